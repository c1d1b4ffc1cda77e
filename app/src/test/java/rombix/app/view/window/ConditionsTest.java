package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.core.board.Trigger;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.event.Mode;
import rombix.core.value.Value;

/** Conditions of several parts are picked, seen to be true or not, and work, in the window, offscreen. */
class ConditionsTest extends AtTheWindow {
    private static final Condition HOST = Condition.OnReading.is("desk", "muted/host", Value.of(true));
    private static final Condition GATE = Condition.OnReading.is("house", "locked/gate", Value.of(true));

    private rombix.core.board.Button button(String id) {
        return bench().rig().button(id).orElseThrow();
    }

    private String spoken(String button) {
        return String.valueOf(tile(button).getAccessibleText());
    }

    /** What stands beside a part: a tick, a cross, or a question mark. */
    private String now(int part) {
        return find("#face-popover").lookupAll(".so-now").stream().map(n -> ((Label) n).getText()).toList().get(part);
    }

    @Test
    void aStateFollowsTwoPiecesOfGearAndTheOtherIsForOtherwise() {
        robot.interact(() -> bench().select("tea-urn"));
        robot.interact(() -> bench().selectState(0));
        key(KeyCode.F2);
        choose("#state-when", "Sound desk: Host MUTED");
        click(find("#state-when-add"));
        choose("#state-when-2", "House: Gate LOCKED");
        assertThat(button("tea-urn").states().getFirst().when()).isEqualTo(new Condition.All(List.of(HOST, GATE)));
        soon(() -> now(0).equals("✓") && now(1).equals("✓"));
        robot.interact(((CheckBox) find("#state-when-2-not"))::fire);
        soon(() -> now(1).equals("✗"));
        choose("#state-when-mode", "At least one of these is true");
        assertThat(button("tea-urn").states().getFirst().when()).isEqualTo(new Condition.Any(List.of(HOST,
                new Condition.Not(GATE))));
        click(find("#face-state-1"));
        choose("#state-when", "no other state's condition is true");
        assertThat(button("tea-urn").states().getLast().when()).isEqualTo(new Condition.Otherwise());
        robot.type(KeyCode.ESCAPE);
        soon(() -> spoken("tea-urn").contains(button("tea-urn").states().getFirst().name()));
        click(find("#rack-desk-muted/host"));
        soon(() -> spoken("tea-urn").contains(button("tea-urn").states().getLast().name()));
        undoAll();
        assertThat(button("tea-urn").states().getFirst().when()).isNotInstanceOf(Condition.Any.class);
    }

    @Test
    void aLampIsLitByATextThatContainsAnother() {
        robot.interact(() -> bench().select("tea-urn"));
        key(KeyCode.F2);
        robot.interact(((javafx.scene.control.Button) find("#lamp-add"))::fire);
        type("#lamp-word", "ASKED");
        choose("#lamp-when", "Chat: Last said contains…");
        type("#lamp-when-text", "tea");
        assertThat(button("tea-urn").states().getFirst().face().tally().getFirst()).satisfies(t -> {
            assertThat(t.word()).isEqualTo("ASKED");
            assertThat(t.when()).isEqualTo(new Condition.OnReading("chat", "last/star-night", Comparison.contains(
                    "tea")));
        });
        robot.type(KeyCode.ESCAPE);
        gear.chat().say("More TEA please");
        soon(() -> spoken("tea-urn").contains("ASKED"));
        undoAll();
    }

    @Test
    void aVoteOfFourToThreeIsCountedAsFourToThree() {
        mode(Mode.LIVE);
        for (String said : List.of("!yes", "!no", "!no", "!yes", "!yes", "!no", "!yes", "no idea")) {
            gear.chat().say(said);
        }
        robot.interact(() -> bench().showPage("questions"));
        soon(() -> spoken("yes").contains("4") && spoken("no").contains("3"));
        assertThat(spoken("yes")).contains("AHEAD");
        assertThat(spoken("no")).doesNotContain("AHEAD");
    }

    @Test
    void aTriggerForEachTimeIsMadeInTheTriggersView() {
        robot.interact(() -> bench().select("tea-urn"));
        key(KeyCode.T, KeyCode.CONTROL);
        choose("#trigger-add", "a condition");
        choose("#trigger-becomes", "Chat: Last said matches a pattern…");
        type("#trigger-becomes-text", "^!tea (\\w+)");
        robot.interact(((CheckBox) find("#trigger-each"))::fire);
        assertThat(button("tea-urn").triggers().getLast()).isEqualTo(new Trigger.Becomes(new Condition.OnReading("chat",
                "last/star-night", Comparison.pattern("^!tea (\\w+)")), true, Map.of()));
        undoAll();
    }
}
