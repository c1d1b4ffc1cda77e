package rombix.app.view.gear;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.check.References;
import rombix.core.edit.GearEdits;
import rombix.core.event.Mode;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.Twin;

/** Adds gear, says where it is reached, names it and takes it away, in the window, offscreen. */
class GearTest extends AtTheWindow {
    @Override
    public Set<String> off() {
        return Set.of("chat");
    }

    private Gear gear(String id) {
        return bench().board().gear(id).orElseThrow();
    }

    private void push(String id) {
        robot.interact(((Button) find(id))::fire);
    }

    /** Adds gear of a kind. */
    private void kind(String card) {
        push("#gear-add");
        push("#kind-" + card);
    }

    @Test
    void aSecondStudioIsAddedReachedAndWorkedFromTheRackAndBothKeepTheirNames() throws Exception {
        Board before = bench().board();
        key(KeyCode.R, KeyCode.ALT);
        kind("studio");
        assertThat(gear("studio-2").name()).isEqualTo("Studio 2");
        try (var second = new rombix.standins.Studio(0)) {
            type("#gear-address-studio-2", "127.0.0.1:" + second.port());
            type("#gear-name-studio-2", "Dome camera");
            robot.type(KeyCode.ESCAPE);
            soon(() -> find("#rack-studio-2-scene-host-desk") != null);
            robot.interact(((Button) find("#rack-studio-2-scene-host-desk"))::fire);
            soon(() -> second.scene().equals("host-desk"));
            assertThat(gear.studio().scene()).isEqualTo("sky-map");
        }
        assertThat(gear("studio-2").name()).isEqualTo("Dome camera");
        undoAll();
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void gearThatIsRenamedGoesOnBeingUsedAndAnAddressThatIsNoneSaysSo() {
        key(KeyCode.R, KeyCode.ALT);
        gear("house", "connection");
        type("#gear-name-house", "The whole house");
        robot.type(KeyCode.ESCAPE);
        mode(Mode.LIVE);
        click(tile("gate"));
        soon(() -> gear.house().state("house/lock/gate").orElse("").equals("UNLOCKED"));
        mode(Mode.BUILD);
        key(KeyCode.R, KeyCode.ALT);
        kind("chat");
        type("#gear-address-chat-2", "nowhere");
        soon(() -> find("#gear").lookupAll(".trouble").stream().anyMatch(n -> ((Labeled) n).getText().contains(
                "HOST:PORT")));
    }

    @Test
    void channelsAreAddedAndThoseThatAreUsedStay() {
        key(KeyCode.R, KeyCode.ALT);
        key(KeyCode.R, KeyCode.ALT); // Opened anew over itself it goes on working.
        gear("desk", "items");
        push("#gear-item-desk-channel-add");
        type("#gear-item-desk-channel-channel-6", "Balcony");
        assertThat(gear("desk").lists().get("channel").getLast()).isEqualTo(new Item("channel-6", "Balcony", Map.of(
                "mute", 25, "level", 35)));
        type("#gear-item-desk-channel-channel-6-mute", "45");
        assertThat(gear("desk").lists().get("channel").getLast().fields()).containsEntry("mute", 45);
        push("#gear-item-desk-channel-host-gone");
        assertThat(label("#gear-item-used")).contains("“Host” is used by", "Doors open");
        assertThat(gear("desk").lists().get("channel")).hasSize(6);
        push("#gear-item-desk-channel-channel-6-gone");
        assertThat(gear("desk").lists().get("channel")).hasSize(5).extracting(Item::id).contains("host");
        robot.type(KeyCode.ESCAPE);
        soon(() -> find("#rack-desk-muted/host") != null);
    }

    @Test
    void aSlotThatNoLampCanHaveIsSaidAsItIsTypedAndNotTaken() {
        robot.interact(() -> bench().edit("by hand",
                b -> GearEdits.change(b, "lamps", g -> g.withPatch(List.of()).withLists(
                        Map.of("lamp",
                                List.of(new Item("desk-key", "Desk Key", Map.of("universe", 1, "level", 1))))))));
        key(KeyCode.R, KeyCode.ALT);
        gear("lamps", "items");
        type("#gear-item-lamps-lamp-desk-key-level", "513");
        assertThat(label("#gear-item-lamps-lamp-desk-key-level-wrong")).contains("“513” can't be the level of",
                "slots to 512");
        assertThat(gear("lamps").lists().get("lamp").getFirst().fields()).containsEntry("level", 1);
        type("#gear-item-lamps-lamp-desk-key-universe", "64000");
        assertThat(label("#gear-item-lamps-lamp-desk-key-universe-wrong")).contains("universes go to 63999");
        type("#gear-item-lamps-lamp-desk-key-level", "512");
        assertThat(find("#gear-item-lamps-lamp-desk-key-level-wrong")).isNull();
        assertThat(gear("lamps").lists().get("lamp").getFirst().fields()).containsEntry("level", 512);
    }

    @Test
    void gearThatIsUsedSaysWhereBeforeItGoesAndComesBackByUndo() {
        Board before = bench().board();
        key(KeyCode.R, KeyCode.ALT);
        gear("chat", "connection");
        push("#gear-gone-chat");
        assertThat(find("#confirm").lookupAll(".label").stream().map(n -> ((Labeled) n).getText())).anyMatch(
                t -> t.contains("“Calm chat”"));
        push("#confirm-yes");
        assertThat(bench().board().gear("chat")).isEmpty();
        assertThat(References.flaws(bench().rig())).isEmpty();
        robot.interact(() -> bench().undo());
        assertThat(bench().board()).isEqualTo(before);
    }

    /** Adds so many gear of a kind that nothing answers for. */
    private void unreachable(int many) {
        robot.interact(() -> bench().edit("by hand", b -> {
            Card card = bench().rig().cards().get("projector");
            Board more = b;
            for (int i = 0; i < many; i++) {
                more = GearEdits.add(more, card, card.protocols().iterator().next());
                Gear last = more.gear().getLast();
                more = GearEdits.reached(more, last.id(), last.link().protocol(), "127.0.0.1:9");
            }
            return more;
        }));
    }

    private List<String> listed() {
        return WaitForAsyncUtils.waitForAsyncFx(60_000, () -> ((ListView<?>) there(
                "#gear-all")).getItems().stream().map(Object::toString).toList());
    }

    @Test
    void gearInTroubleComesFirstAndIsNewUntilItIsLookedAt() {
        unreachable(1);
        soon(() -> !session.window().model().state().status("projector-2").well());
        key(KeyCode.R, KeyCode.ALT);
        assertThat(listed().subList(0, 3)).containsExactly("chat", "projector-2", "studio");
        assertThat(said("#gear-row-projector-2")).endsWith("off · new");
        robot.type(KeyCode.DOWN); // Chat was looked at as it is the first.
        soon(() -> said("#gear-row-projector-2").endsWith("off"));
        assertThat(listed().getFirst()).as("rows stay where they are").isEqualTo("chat");
        robot.type(KeyCode.ENTER);
        robot.write("Dome lamp", 0);
        robot.type(KeyCode.ENTER);
        soon(() -> gear("projector-2").name().contains("Dome lamp"));
    }

    @Test
    void sixtyPiecesOfGearAreListedWithARowOnlyForWhatIsSeen() {
        unreachable(60);
        key(KeyCode.R, KeyCode.ALT);
        assertThat(listed()).hasSizeGreaterThan(70);
        robot.type(KeyCode.END);
        soon(() -> find("#gear-row-" + listed().getLast()) != null);
        assertThat(there("#gear-all").lookupAll(".list-cell")).hasSizeLessThan(30);
    }

    @Test
    void theCardOfAGearIsSeenWithItsPresentValuesAndItsPacketsAreFollowed() {
        key(KeyCode.R, KeyCode.ALT);
        gear("desk", "card");
        assertThat(this.<Twin.Reading>rowsOf("#gear-readings")).extracting(Twin.Reading::title).contains("Host level");
        gear("desk", "traffic");
        soon(() -> !rowsOf("#traffic").isEmpty());
        gear("chat", "traffic");
        soon(() -> this.<TrafficPacket>rowsOf("#traffic").stream().noneMatch(p -> p.gear().equals("desk")));
    }
}
