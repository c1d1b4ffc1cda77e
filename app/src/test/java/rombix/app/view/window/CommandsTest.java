package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.app.show.Session;
import rombix.app.view.common.KeyNames;
import rombix.app.view.window.Command.Where;
import rombix.core.board.Trigger;
import rombix.core.check.TriggerConflicts;

/** The one table of commands: every key does one thing where it works, and every command has a key. */
class CommandsTest {
    @TempDir
    static Path folder;
    private static Session session;
    private static List<Command> all;

    @BeforeAll
    static void open() throws Exception {
        Session.startToolkit(true);
        Path file = Files.copy(Path.of("../demo/star-night.json"), folder.resolve("b.json"));
        session = Session.open(file, Map.of(), null, null);
        all = Session.onInterface(() -> session.window().commands().all());
    }

    @AfterAll
    static void close() {
        session.close();
    }

    private static boolean meet(Where a, Where b) {
        boolean live = a == Where.LIVE || b == Where.LIVE;
        return a == b || a == Where.ALWAYS || b == Where.ALWAYS || !live && (a == Where.BUILD || b == Where.BUILD);
    }

    @Test
    void noKeyDoesTwoThingsInOnePlace() {
        Map<String, List<Command>> byKey = new HashMap<>();
        all.forEach(c -> c.keys().forEach(k -> byKey.computeIfAbsent(k, _ -> new java.util.ArrayList<>()).add(c)));
        byKey.forEach((key, commands) -> {
            for (Command a : commands) {
                for (Command b : commands) {
                    assertThat(a == b || !meet(a.where(), b.where())).as("%s: %s and %s", key, a.words().get(), b
                            .words().get()).isTrue();
                }
            }
        });
    }

    @Test
    void everyCommandHasAKeyAndWordsOfItsOwn() {
        Set<String> words = new HashSet<>();
        assertThat(all).allSatisfy(c -> {
            assertThat(c.keys()).as(c.words().get()).isNotEmpty();
            assertThat(words.add(c.words().get())).as(c.words().get()).isTrue();
        });
        assertThat(all).hasSizeGreaterThan(60);
    }

    @Test
    void keysThatEveryDesktopKnowsDoWhatTheyDoEverywhere() {
        Map<String, String> preset = Map.of("Ctrl+Z", "Undo", "Ctrl+Shift+Z", "Redo", "Ctrl+S", "Save", "Ctrl+O",
                "Open",
                "Ctrl+N", "New", "Ctrl+F", "Find", "F1", "All commands", "F11", "Toggle full screen");
        preset.forEach((key, word) -> assertThat(all).filteredOn(c -> c.keys().contains(key)).singleElement().satisfies(
                c -> assertThat(c.words().get()).startsWith(word)));
        // Keys that desktops and windows keep for themselves.
        assertThat(all).allSatisfy(c -> assertThat(c.keys()).doesNotContain("Alt+F4", "Alt+Tab", "Alt+Space", "Ctrl+Q",
                "Ctrl+W", "Alt+F1", "Alt+F2", "Tab", "Enter", "Space", "Esc"));
    }

    @Test
    void theCheckKnowsEveryKeyThatWorksInLive() {
        assertThat(all).filteredOn(c -> c.where() == Where.ALWAYS || c.where() == Where.LIVE)
                .allSatisfy(c -> assertThat(
                        TriggerConflicts.OWN)
                        .containsAll(c.keys().stream().map(k -> new Trigger.Key(k).normal().key()).toList()));
    }

    @Test
    void keysAreShownWithSigns() {
        assertThat(KeyNames.shown("Alt+Shift+Right")).isEqualTo("Alt+Shift+→");
        assertThat(KeyNames.shown("Alt+Up")).isEqualTo("Alt+↑");
        assertThat(KeyNames.shown("Ctrl+Page Up")).isEqualTo("Ctrl+PgUp");
        assertThat(KeyNames.shown("Ctrl+Shift+Page Down")).isEqualTo("Ctrl+Shift+PgDn");
        assertThat(KeyNames.shown("Slash")).isEqualTo("/");
        assertThat(KeyNames.shown("Ctrl+Period")).isEqualTo("Ctrl+.");
    }
}
