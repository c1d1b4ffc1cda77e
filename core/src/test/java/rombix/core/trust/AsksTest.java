package rombix.core.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.StepOptions;
import rombix.core.computer.Place;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;
import rombix.core.trust.Ask.Kind;
import rombix.core.value.Value;

/** What a board asks for, and what of it is new after a change. */
class AsksTest {
    private static Rig rig;

    @BeforeAll
    static void read() throws Exception {
        rig = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    /** What is asked for after an edit that was not before, in words. */
    private static List<String> fresh(UnaryOperator<Board> edit) {
        List<String> before = Asks.of(rig, Set.of()).stream().map(Ask::key).toList();
        List<String> fresh = new ArrayList<>();
        for (Ask a : Asks.of(rig.with(edit.apply(rig.board())), Set.of())) {
            if (!before.contains(a.key())) {
                fresh.add(a.name() + " " + a.words());
            }
        }
        return fresh;
    }

    private static UnaryOperator<Board> button(String id, UnaryOperator<Button> edit) {
        return b -> Edits.button(b, id, edit);
    }

    @Test
    void everyGearEveryEarAndAllThatHappensByItselfIsAskedFor() {
        List<Ask> all = Asks.of(rig, Set.of());
        assertThat(all.stream().filter(a -> a.kind() == Kind.REACHES)).hasSize(12);
        assertThat(all.stream().map(Ask::key)).contains("hears osc 9110", "hears midi Larkmoor Pads", "hears key F13");
        assertThat(all.stream().filter(a -> a.kind() == Kind.BY_ITSELF).map(Ask::name)).contains("Lights out in ten");
    }

    @Test
    void whatWasAgreedToIsKeptUnderKeysThatNoChangeOfWordsTouches() {
        assertThat(Asks.of(rig, Set.of()).stream().filter(a -> a.kind() == Kind.BY_ITSELF).map(Ask::key)).isNotEmpty()
                .allMatch(
                        k -> k.matches("by itself \\S.*"));
    }

    @Test
    void anotherAddressIsNewAndTheSameOneUnderAnotherNameIsNot() {
        assertThat(fresh(b -> GearEdits.change(b, "studio", g -> g.withName("Elsewhere")))).isEmpty();
        assertThat(fresh(b -> GearEdits.change(b, "studio", g -> g.withLink(g.link().reached(g.link().protocol(),
                "203.0.113.9:9000"))))).singleElement().asString().contains("203.0.113.9:9000");
    }

    @Test
    void aSecretThatIsToldToAnAddressIsNew() {
        assertThat(fresh(b -> GearEdits.change(b, "house", g -> g.withLink(g.link().withSecret("bank")))))
                .singleElement().asString().contains("receives the secret “bank”");
    }

    @Test
    void howAButtonLooksIsNoMatterOfTrust() {
        assertThat(fresh(button("lights-out-in-ten", b -> b.withName("Other").withColumn(5).withRow(3)))).isEmpty();
    }

    @Test
    void whatAButtonDoesByItselfIsNewWhenItsChainChangesThoughDeepInAnotherButton() {
        Chain other = new Chain(List.of(new DeckStep.Say("hello", StepOptions.PLAIN, java.util.Map.of())), List.of());
        UnaryOperator<Board> uses = button("doors-open", b -> b.withTriggers(List.of(new Trigger.When(
                Trigger.When.What.BOARD_OPENED, null))).withStates(b.states().stream().map(
                        s -> s.withOn(java.util.Map
                                .of(Gesture.PRESS,
                                        new Chain(List.of(new DeckStep.Use("record", null, Gesture.PRESS, null,
                                                java.util.Map.of(), StepOptions.PLAIN, java.util.Map.of())),
                                                List.of()))))
                        .toList()));
        assertThat(fresh(uses)).singleElement().asString().contains("when the board is opened");
        Rig before = rig.with(uses.apply(rig.board()));
        Rig after = rig.with(button("record", b -> b.withStates(b.states().stream().map(s -> s.withOn(java.util.Map.of(
                Gesture.PRESS, other))).toList())).apply(before.board()));
        List<String> keys = Asks.of(before, Set.of()).stream().map(Ask::key).toList();
        assertThat(Asks.of(after, Set.of()).stream().map(Ask::key)).anyMatch(k -> !keys.contains(k));
    }

    @Test
    void gearThatItsOwnerReachesElsewhereIsNotAskedFor() {
        assertThat(Asks.of(rig, Set.of("studio")).stream().map(Ask::name)).doesNotContain("Studio");
    }

    @Test
    void aPressReachesTheGearOfTheButtonsThatItUsesAndNoOther() {
        Button gate = rig.button("gate").orElseThrow();
        assertThat(Asks.gear(rig, gate)).containsExactly("house");
    }

    @Test
    void aKeyThatWouldEndALineCannotBringASecondOne() {
        assertThat(new Ask(Kind.REACHES, "reaches a\nreaches b", "x", "y").key()).doesNotContain("\n");
    }

    private static UnaryOperator<Board> steps(String address, GearStep.Do step) {
        return b -> Edits.chain(b.withGear(b.gear().stream().map(g -> g.id().equals("computer")
                ? g.withLink(g.link().reached(g.link().protocol(), address))
                : g).toList()), "next-cue", 0, Gesture.PRESS, _ -> Chain.of(step));
    }

    @Test
    void aSecretIsAskedForByItsNameAndAPlaceThatIsAPictureWantsTheScreenToo() {
        GearStep.Do secret = new GearStep.Do("computer", "type-secret", Map.of("secret", Value.of("bank")));
        assertThat(fresh(steps("here", secret))).anyMatch(w -> w.contains("the secret “bank”"));
        assertThat(fresh(steps("127.0.0.1:9", secret))).noneMatch(w -> w.contains("bank"));
        GearStep.Do click = new GearStep.Do("computer", "click", Map.of("place", Value.of(Place.OnPicture.of("p1")
                .toString())));
        assertThat(fresh(steps("here", click))).anyMatch(w -> w.contains("sees what is on the screen") && w.contains(
                "where a picture is found"));
    }

    /** A board may bring a card of its own, whose titles say what it likes and whose parameters are plain texts. */
    @Test
    void aCardThatTellsLessThanItDoesIsAskedForInFullAllTheSame() throws Exception {
        Card card = CardLibrary.read(Path.of("desktop.json"), """
                {"card": 1, "id": "desktop", "title": "Lamp", "commands": [
                  {"id": "run", "title": "Good evening", "params": [{"id": "a", "title": "a", "type": "text"}],
                   "send": {"desktop": [{"to": "programs run", "args": ["{a}"]}]}},
                  {"id": "say", "title": "Good night", "params": [{"id": "a", "title": "a", "type": "text"}],
                   "send": {"desktop": [{"to": "keys secret", "args": ["{a}"]}]}}]}
                """);
        for (String command : List.of("run", "say")) {
            Board board = steps("here", new GearStep.Do("computer", command, Map.of("a", Value.of("bank")))).apply(rig
                    .board());
            Map<String, Card> cards = new HashMap<>(rig.cards());
            cards.put("desktop", card);
            assertThat(Asks.of(Rig.of(board, cards), Set.of())).anyMatch(a -> a.words().contains("bank"));
        }
    }
}
