package rombix.app.view.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.input.Clipboard;
import javafx.scene.input.DataFormat;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Board;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.bundle.SharedPart;
import rombix.core.chain.Gesture;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.store.BoardFile;

/** Parts of boards on the system's clipboard. */
class PartClipboardTest extends AtTheWindow {
    private String clipboard() {
        String[] text = {""};
        robot.interact(() -> text[0] = String.valueOf(Clipboard.getSystemClipboard().getString()));
        return text[0];
    }

    private void put(String text) {
        robot.interact(() -> Clipboard.getSystemClipboard().setContent(Map.of(DataFormat.PLAIN_TEXT, text)));
    }

    @Test
    void aCopiedButtonIsOnTheClipboardAsTextAndIsStillPastedHereAsEver() throws Exception {
        robot.interact(() -> {
            bench().select("gate");
            tile("gate").requestFocus();
        });
        key(KeyCode.C, KeyCode.CONTROL);
        SharedPart part = SharedPart.read(clipboard()).orElseThrow();
        assertThat(part.words()).isEqualTo("“Gate”");
        key(KeyCode.V, KeyCode.CONTROL);
        soon(() -> find("#paste-whole") != null); // The menu of what is pasted onto a button.
    }

    @Test
    void aPageOfAnotherBoardComesWithItsGearAndGoesWithOneUndo() throws Exception {
        Rig other = BoardFile.read(Path.of("../demo/star-night.json"));
        SharedPart part = SharedPart.page(other, other.page("trouble").orElseThrow());
        robot.interact(() -> bench().edit("another hall", b -> GearEdits.without(Edits.removePage(b, "trouble"),
                "relays")));
        Board before = bench().board();
        put(part.text());
        robot.interact(() -> {
            bench().select("gate");
            tile("gate").requestFocus();
        });
        key(KeyCode.V, KeyCode.CONTROL);
        soon(() -> find("#part-paste") != null || bench().board().page("trouble").isPresent());
        if (find("#part-paste") instanceof Button paste) {
            robot.interact(paste::fire);
        }
        soon(() -> bench().board().page("trouble").isPresent());
        assertThat(bench().board().page("trouble").orElseThrow().buttons()).hasSameSizeAs(part.rig().board().pages()
                .getFirst().buttons());
        robot.interact(() -> bench().undo());
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void aStateTheChainAndTheLookOfAButtonCanBeCopiedAlone() throws Exception {
        robot.interact(() -> {
            bench().select("gate");
            tile("gate").requestFocus();
        });
        for (SharedPart.What what : List.of(SharedPart.What.STATE, SharedPart.What.CHAIN, SharedPart.What.LOOK)) {
            key(KeyCode.CONTEXT_MENU);
            soon(() -> find("#menu-copy-only") != null);
            robot.interact(() -> ((Button) find("#menu-copy-only")).fire());
            String id = "#copy-" + what.name().toLowerCase(Locale.ROOT);
            soon(() -> find(id) != null);
            robot.interact(() -> ((Button) find(id)).fire());
            SharedPart part = SharedPart.read(clipboard()).orElseThrow();
            assertThat(part.what()).isEqualTo(what);
            assertThat(part.rig().board().gear()).extracting(Gear::id).containsExactlyElementsOf(
                    what == SharedPart.What.LOOK ? List.of() : List.of("house"));
        }
        robot.interact(() -> {
            bench().select("tea-urn");
            tile("tea-urn").requestFocus();
        });
        Face before = bench().state().orElseThrow().face();
        key(KeyCode.V, KeyCode.CONTROL);
        soon(() -> !bench().state().orElseThrow().face().equals(before));
        assertThat(bench().state().orElseThrow().face().icon()).isEqualTo(bench().board().button("gate").orElseThrow()
                .states().getFirst().face().icon());
    }

    @Test
    void copiedStepsAreOnTheClipboardAndStepsFromElsewhereArePastedAmongSteps() throws Exception {
        robot.interact(() -> {
            bench().select("doors-open");
            bench().selectStep(List.of(1));
        });
        key(KeyCode.DIGIT3, KeyCode.CONTROL);
        key(KeyCode.C, KeyCode.CONTROL);
        SharedPart part = SharedPart.read(clipboard()).orElseThrow();
        assertThat(part.what()).isEqualTo(SharedPart.What.CHAIN);
        assertThat(
                part.rig().board().buttons().findFirst().orElseThrow().states().getFirst().chain(Gesture.PRESS).steps())
                .containsExactly(bench().chain().steps().get(1));
        Rig other = BoardFile.read(Path.of("../demo/star-night.json"));
        put(SharedPart.of(SharedPart.What.CHAIN, other, List.of(other.button("fog").orElseThrow())).text());
        int steps = bench().chain().steps().size();
        key(KeyCode.V, KeyCode.CONTROL);
        soon(() -> bench().chain().steps().size() > steps);
    }

    @Test
    void aChainGoesOntoTheSelectedButton() throws Exception {
        Rig other = BoardFile.read(Path.of("../demo/star-night.json"));
        put(SharedPart.of(SharedPart.What.CHAIN, other, List.of(other.button("record").orElseThrow())).text());
        robot.interact(() -> {
            bench().select("gate");
            tile("gate").requestFocus();
        });
        int steps = bench().state().orElseThrow().chain(Gesture.PRESS).steps().size();
        key(KeyCode.V, KeyCode.CONTROL);
        soon(() -> bench().state().orElseThrow().chain(Gesture.PRESS).steps().size() > steps);
    }
}
