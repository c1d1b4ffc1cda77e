package rombix.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

class FinderTest {
    private final Rig rig = demo();
    private static final Readings SCENES = id -> id.equals("scene-list")
            ? new Value.Choices(List.of(new Value.Choice("host-desk", "Host Desk"),
                    new Value.Choice("main-scope", "Main Scope")))
            : null;

    private static Rig demo() {
        try {
            return BoardFile.read(Path.of("../demo/star-night.json"));
        } catch (BadFile e) {
            throw new AssertionError(e);
        }
    }

    private String first(String query) {
        List<Found> found = new Finder(rig, _ -> SCENES).find(query, 5);
        return found.isEmpty() ? "" : found.getFirst().title().replace('\u00a0', ' ');
    }

    @Test
    void whatAComputerCannotDoIsNotOffered() {
        Readings none = id -> id.equals("unable")
                ? new Value.Choices(List.of(new Value.Choice("pointer", "there is no desktop here")))
                : null;
        assertThat(new Finder(rig, _ -> SCENES).find("double click mouse", 5)).extracting(Found::title).anyMatch(t -> t
                .contains("click"));
        assertThat(new Finder(rig, g -> g.equals("computer") ? none : SCENES).find("double click mouse", 5)).extracting(
                Found::title).noneMatch(t -> t.contains("click"));
    }

    @Test
    void aSharedChainIsFoundWithItsArgumentsLikeACommand() {
        Step found = new Finder(rig, _ -> SCENES).find("dim desk 40", 5).stream().map(Found::step).filter(
                DeckStep.Use.class::isInstance).findFirst().orElseThrow();
        assertThat(((DeckStep.Use) found).args()).containsExactly(java.util.Map.entry("level", Arg.of(40)));
    }

    @ParameterizedTest
    @CsvSource({"mute host, Mute Host", "host mute, Mute Host", "mute ho, Mute Host", "unmute guest, Unmute Guest",
            "mtue host, Mute Host", "desk key 40%, Desk Key to 40 %", "desk key 3200 k, Desk Key at 3200 K",
            "music bed -20, Music Bed to −20 dB", "scene main, Scene Main Scope", "host desk, Scene Host Desk",
            "wait 2, Wait 2 s", "wait 500ms, Wait 0.5 s", "wait 1.5 min, Wait 1:30 min",
            "unlock dome, Unlock Dome door",
            "tea urn on, Tea urn on", "together, Together", "keep clip, Keep the last 20 s as a clip"})
    void theBestGuessIsFirst(String query, String expected) {
        assertThat(first(query)).isEqualTo(expected);
    }

    @Test
    void whatNoGearCanDoFindsNothing() {
        assertThat(new Finder(rig, _ -> SCENES).find("launch rocket", 5)).isEmpty();
    }

    @Test
    void aFoundStepCarriesItsArguments() {
        Step step = new Finder(rig, _ -> SCENES).find("desk key 40%", 1).getFirst().step();
        assertThat(step).isInstanceOfSatisfying(GearStep.Do.class, d -> {
            assertThat(d.gear()).isEqualTo("lamps");
            assertThat(d.args()).containsEntry("lamp", Arg.of("desk-key")).containsEntry("level", Arg.of(40));
        });
    }
}
