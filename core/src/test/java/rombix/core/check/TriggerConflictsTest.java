package rombix.core.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.engine.TestDeck;
import rombix.core.store.CardLibrary;

class TriggerConflictsTest {
    private static final Rig RIG = TestDeck.rig();

    @ParameterizedTest
    @CsvSource({"F13, true, ", "F13, false, ", "Ctrl+Alt+K, true, ", "K, false, ",
            "F6, false, a shortcut of Rombix itself",
            "Ctrl+Period, true, a shortcut of Rombix itself", "Alt+Tab, true, switches windows",
            "Print Screen, false, takes a screenshot", "K, true, would press while you work",
            "Shift+7, true, would press while you work", "Ctrl+C, true, would press while you work"})
    void whatAKeyIsForAlreadyIsSaid(String key, boolean everywhere, String why) {
        var taken = TriggerConflicts.by(new Trigger.Key(key, everywhere), RIG);
        if (why == null) {
            assertThat(taken).isEmpty();
        } else {
            assertThat(taken).hasValueSatisfying(t -> assertThat(t).contains(why));
        }
    }

    @Test
    void aKeyThatAGearListensToItselfIsTaken() {
        Card card = RIG.cards().values().iterator().next();
        Card listening = card.withHotkeys(List.of("Shift+Ctrl+F5"));
        Rig rig = Rig.of(RIG.board(), Map.of(card.id(), listening));
        assertThat(TriggerConflicts.by(new Trigger.Key("Ctrl+Shift+F5", true), rig))
                .hasValueSatisfying(t -> assertThat(t)
                        .startsWith("Gear also uses"));
        assertThat(TriggerConflicts.by(new Trigger.Key("Ctrl+F5", true), rig)).isEmpty();
    }

    @Test
    void aControlThatAGearReportsWithIsTaken() throws Exception {
        Card desk = CardLibrary.shipped().get("sound-desk");
        Rig rig = Rig
                .of(new Board(1, "B", List.of(new Gear("desk", "Desk", "sound-desk", new Gear.Link(Protocol.of("midi"),
                        "Port", Map.of()), Map.of(), Map.of())), List.of(), Map.of()), Map.of("sound-desk", desk));
        assertThat(TriggerConflicts.by(midi("Port", 20), rig))
                .hasValueSatisfying(t -> assertThat(t).contains("Desk uses it"));
        assertThat(TriggerConflicts.by(midi("Port", 99), rig)).isEmpty();
        assertThat(TriggerConflicts.by(midi("Other", 20), rig)).isEmpty();
    }

    private static Trigger midi(String port, int number) {
        return new Trigger.Midi(port, Message.CONTROL, 1, number, null, Map.of(), false);
    }

    @Test
    void theCheckTellsOfItAndOffersToTakeItOff() {
        Rig rig = TestDeck.rig(TestDeck.button("b", TestDeck.state(Chain.of(TestDeck.PING))).withTriggers(List.of(
                new Trigger.Key("Alt+F4"))));
        Finding found = Check.of(rig).stream().filter(f -> f.kind() == Finding.Kind.TAKEN).findFirst().orElseThrow();
        Board mended = Fixes.of(rig, found).orElseThrow().edit().apply(rig.board());
        assertThat(mended.button("b").orElseThrow().triggers()).isEmpty();
    }
}
