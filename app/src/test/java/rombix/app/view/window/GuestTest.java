package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.core.trust.Ask;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Trust;

/** A board from elsewhere does nothing until its owner agrees. */
class GuestTest extends AtTheWindow {
    private static final String GATE = "house/lock/gate";

    @Override
    public Trust trust() {
        return Trust.in(folder.resolve("trusted"));
    }

    /** The demo, which would open the gate as soon as it is opened. */
    @Override
    public void board(Path to) throws Exception {
        Board demo = BoardFile.read(Path.of("../demo/star-night.json")).board();
        BoardFile.save(to, Edits.button(demo, "gate", b -> b.withTriggers(List.of(new Trigger.When(
                Trigger.When.What.BOARD_OPENED, null)))));
    }

    private void fire(String id) {
        soon(() -> find(id) != null);
        robot.interact(() -> ((Button) stage.getScene().lookup(id)).fire());
    }

    @Test
    void aGuestIsLookedAtOnTwinsAndReachesNothingUntilItIsTrusted() throws Exception {
        soon(() -> find("#guest") != null);
        fire("#guest-look");
        mode(Mode.REHEARSE);
        soon(() -> !tile("gate").getAccessibleText().isEmpty());
        click(tile("gate"));
        soon(() -> session.window().model().state().readings("house").apply("locked/gate") != null);
        mode(Mode.BUILD);
        assertThat(session.deck().known().readings()).isEmpty();
        assertThat(session.deck().known().statuses().values()).hasSize(12).allMatch(s -> s.words().equals(
                "guest: not connected"));
        assertThat(gear.house().state(GATE)).contains("LOCKED");

        key(KeyCode.F6); // Live is for boards that are trusted.
        soon(() -> find("#guest") != null);
        assertThat(bench().mode()).isEqualTo(Mode.BUILD);
        fire("#guest-trust");
        soon(() -> gear.house().state(GATE).orElse("").equals("UNLOCKED"));
        soon(() -> label("#rack-desk-muted/host").equals("MUTED"));
        assertThat(find("#notices").lookup("#guest-yes")).isNull();
        mode(Mode.LIVE);
        mode(Mode.BUILD);
    }

    @Test
    void whatWouldWorkThisComputerIsListedAndMayBeAgreedToForThisTimeOnly() throws Exception {
        robot.interact(() -> {
            Board here = GearEdits.reached(bench().board(), "computer", bench().board().gear("computer").orElseThrow()
                    .link().protocol(), "here");
            Rig rig = bench().rig().with(here);
            assertThat(trust().missing(rig)).filteredOn(a -> a.kind() == Ask.Kind.WORKS_HERE).extracting(Ask::name,
                    Ask::words).contains(
                            org.assertj.core.groups.Tuple.tuple("Star chart",
                                    "opens files, folders and pages: charts/star-chart.pdf"),
                            org.assertj.core.groups.Tuple.tuple(
                                    "Ctrl, once",
                                    "presses keys and types: Hold Ctrl until the next key or click, Release Ctrl"));
        });
        soon(() -> find("#guest") != null);
        fire("#guest-now");
        soon(() -> gear.house().state(GATE).orElse("").equals("UNLOCKED"));
        assertThat(session.window().guests().guest()).isFalse();
        assertThat(trust().missing(bench().rig())).isNotEmpty();
    }

    @Test
    void whatItsOwnerAddsToATrustedBoardIsNotAskedForAndWhatSomebodyElseAddsIs() throws Exception {
        fire("#guest-trust");
        soon(() -> label("#rack-desk-muted/host").equals("MUTED"));
        robot.interact(() -> {
            bench().edit("reach it elsewhere", b -> GearEdits.reached(b, "cues", b.gear("cues").orElseThrow().link()
                    .protocol(), "203.0.113.7:9000"));
            session.window().files().save();
        });
        soon(() -> !bench().unsaved());
        soon(() -> trust().missing(bench().rig()).isEmpty());

        Files.writeString(file, Files.readString(file).replace("203.0.113.7", "203.0.113.66"));
        robot.interact(() -> session.window().files().open(file));
        soon(() -> find("#guest") != null);
        assertThat(trust().missing(OpenedBoard.read(file).rig())).singleElement().satisfies(a -> assertThat(a.words())
                .contains("203.0.113.66"));
        fire("#guest-look");
        assertThat(session.window().guests().guest()).isTrue();
        soon(() -> session.deck().known().statuses().get("house").words().equals("guest: not connected"));
    }
}
