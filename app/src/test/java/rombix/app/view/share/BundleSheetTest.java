package rombix.app.view.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.bundle.Bundle;
import rombix.core.bundle.BundleWriter;
import rombix.core.card.Card;
import rombix.core.edit.GearEdits;
import rombix.core.store.BoardFile;
import rombix.running.owner.Trust;

/** A bundle in the window: saved, looked at, matched, unpacked. */
class BundleSheetTest extends AtTheWindow {
    @Override
    public Trust trust() {
        return Trust.in(folder.resolve("trusted"));
    }

    private void fire(String id) {
        soon(() -> find(id) != null);
        robot.interact(() -> ((Button) find(id)).fire());
    }

    private void trusted() {
        fire("#guest-trust");
        soon(() -> !session.window().guests().guest());
    }

    @Test
    void theBoardIsSavedAsABundle() throws Exception {
        trusted();
        key(KeyCode.S, KeyCode.ALT, KeyCode.SHIFT);
        soon(() -> find("#bundle-file") != null);
        Path out = folder.resolve("out.rombix");
        robot.interact(() -> ((TextField) find("#bundle-file")).setText(out.toString()));
        key(KeyCode.ENTER);
        soon(() -> Files.exists(out) && find("#bundle-saving") == null);
        assertThat(Bundle.read(out).rig().board().pages()).isEqualTo(bench().board().pages());
    }

    @Test
    void aBundleIsMatchedWithTheGearHereAndOpensAsAGuest() throws Exception {
        trusted();
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Path file = folder.resolve("visit.rombix");
        BundleWriter.write(demo.with(demo.board().withName("A visit")), file, false);
        robot.interact(() -> bench().edit("another hall", b -> GearEdits.listed(b, "desk", "channel", List.of(
                new Card.Item("host", "Host", java.util.Map.of("number", 1))))));
        robot.interact(() -> session.window().files().open(file));
        soon(() -> find("#unpack") != null);
        assertThat(((Label) find("#unpack-lost-desk")).getText()).contains("No counterpart", "“Music bed”");
        assertThat(find("#bundle-files").lookupAll(".read").stream().map(n -> ((Label) n).getText()))
                .contains("a-visit.json")
                .anyMatch(t -> t.endsWith("kB"));
        Path to = folder.resolve("Unpacked");
        assertThat(to).doesNotExist();
        choose("#unpack-gear-cues", "Stand-in for now");
        choose("#unpack-gear-desk", "Add as new gear");
        robot.interact(() -> ((TextField) find("#unpack-folder")).setText(to.toString()));
        assertThat(((Label) find("#unpack-lost-desk")).getText()).isEmpty();
        fire("#unpack");
        soon(() -> bench().file().startsWith(to));
        Board board = bench().board();
        assertThat(board.name()).isEqualTo("A visit");
        assertThat(board.gear("studio").orElseThrow().link().address()).as("mine").isEqualTo(demo.board().gear("studio")
                .orElseThrow().link().address());
        assertThat(board.gear("cues").orElseThrow().link().address()).as("a stand-in").startsWith("127.0.0.1:");
        soon(() -> session.window().guests().guest());
        soon(() -> find("#guest") != null);
    }

    @Test
    void aBadBundleIsToldAndLeavesAllAsItWas() throws Exception {
        trusted();
        Path before = bench().file();
        Path file = Files.writeString(folder.resolve("bad.rombix"), "no zip");
        robot.interact(() -> session.window().files().open(file));
        soon(() -> find("#notices").lookupAll(".label").stream().anyMatch(n -> n instanceof Label l && l.getText()
                .contains("isn't a ZIP file")));
        assertThat(bench().file()).isEqualTo(before);
    }
}
