package rombix.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;
import static rombix.core.engine.TestDeck.rig;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Button;
import rombix.core.board.Contrast;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.card.Protocol;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.check.Finding.Kind;
import rombix.core.value.Value;

class CheckTest {
    private static final StepOptions PLAIN = StepOptions.PLAIN;

    private static State plain(String id) {
        return new State(id, id, Face.PLAIN.withLabel(id), State.NEXT, null, Map.of(), Map.of());
    }

    private static Step use(String button) {
        return new DeckStep.Use(button, null, Gesture.PRESS, null, Map.of(), PLAIN, Map.of());
    }

    private static Step repeat(String whileIt, Step... steps) {
        return new Step.Repeat(null, whileIt == null ? null : new rombix.core.chain.Condition.Computed(whileIt), null,
                "count", Chain.of(steps), PLAIN, Map.of());
    }

    private static Rig presses(Step... steps) {
        return rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))), button("b", state(Chain.of(
                steps))));
    }

    static Stream<Arguments> wrong() {
        Step set = new DeckStep.Set("n", new Arg.Computed("{n} + 1"), PLAIN, Map.of());
        return Stream.of(
                Arguments.of(Kind.DEAD_REFERENCE, presses(use("nobody")), "/pages/0/buttons/0/states/0/on/press/0"),
                Arguments.of(Kind.DEAD_REFERENCE, presses(DeckStep.Show.page("nowhere", DeckStep.Show.Way.TURN)),
                        "page"),
                Arguments.of(Kind.DEAD_REFERENCE, presses(new DeckStep.Set("m", Arg.of(1), PLAIN, Map
                        .of())), "value"),
                Arguments.of(Kind.DEAD_REFERENCE, presses(new Step.If(
                        new rombix.core.chain.Condition.Computed("{gear:mood} > 1"), Chain.EMPTY,
                        Chain.EMPTY, PLAIN, Map.of())), "press/0"),
                Arguments.of(Kind.FORMULA, presses(
                        repeat("1 +", pause(5))), "press/0"),
                Arguments.of(
                        Kind.UNREACHABLE_STATE, rig(button("b", plain("x").withThen(
                                State.STAY), plain("y"))),
                        "states/1"),
                Arguments.of(
                        Kind.UNREACHABLE_STATE, rig(button("b", plain(
                                "x").withWhen(
                                        rombix.core.chain.Condition.OnReading.is(
                                                "gear", "on/a", Value
                                                        .of(true))),
                                plain("y"))),
                        "states/1"),
                Arguments.of(
                        Kind.SAME_LOOK, rig(button("b",
                                plain("x"), plain("y")
                                        .withFace(plain(
                                                "x")
                                                .face()))),
                        "states/1"),
                Arguments.of(
                        Kind.ENDLESS_LOOP,
                        presses(repeat(null, on(
                                "a"))),
                        "press/0"),
                Arguments
                        .of(Kind.ENDLESS_LOOP,
                                presses(repeat(
                                        "{n} < 3",
                                        on("a"))),
                                "press/0"),
                Arguments.of(Kind.ENDLESS_LOOP, presses(use("b")), "press"), Arguments.of(Kind.ENDLESS_LOOP, rig(button(
                        "b", state(Chain.of(use("c")))), button("c", state(Chain.of(on("a"), use("b"))))), "press"),
                Arguments.of(Kind.NOT_UNDONE, rig(button("b", state("s", null, Chain.of(on("a")), Chain.of(off(
                        "b"))))), "release"),
                Arguments.of(Kind.TRIGGER_TWICE, rig(button("b", plain("x"))
                        .withTriggers(List.of(new Trigger.Key("Ctrl+Shift+K"))),
                        button("c", plain("x"))
                                .withTriggers(List.of(new Trigger.Key("shift+ctrl+k")))),
                        "triggers/0"),
                Arguments.of(Kind.NO_LINK, rig(b -> b.withGear(List.of(b.gear().getFirst().withLink(new Gear.Link(
                        Protocol.of("osc"), " ", Map.of())))), button("b", plain("x"))), "/gear/0/link"),
                Arguments.of(
                        Kind.NO_LINK, rig(b -> b.withGear(List.of(b.gear().getFirst().withLink(new Gear.Link(
                                Protocol.of("midi"), "Desk", Map.of())))), button("b", plain("x"))),
                        "/gear/0/link"),
                Arguments.of(Kind.LABEL_TOO_LONG, rig(button("b", plain(
                        "A label that is far too long for a tile of one small cell, however small the type is in which it is set on it"))),
                        "face"),
                Arguments.of(
                        Kind.LOW_CONTRAST, rig(button("b", plain("x").withFace(Face.PLAIN.withTint("#F2B134")
                                .withInk("#FFFFFF")))),
                        "face"),
                Arguments.of(Kind.ENDLESS_LOOP, presses(set,
                        repeat(null, set)), "press/1"));
    }

    @ParameterizedTest(name = "{0} at {2}")
    @MethodSource("wrong")
    void finds(Kind kind, Rig rig, String place) {
        List<Finding> found = Check.of(rig);
        assertThat(found).anySatisfy(f -> {
            assertThat(f.kind()).isEqualTo(kind);
            assertThat(f.pointer()).contains(place);
            assertThat(f.message()).isNotBlank();
        });
        assertThat(found).extracting(Finding::kind).containsOnly(kind);
    }

    @Test
    void findsNothingWhereNothingIsWrong() {
        Step set = new DeckStep.Set("n", new Arg.Computed("{n} + 1"), PLAIN, Map.of());
        Step until = new Step.If(new rombix.core.chain.Condition.Computed("{n} < 3"), Chain.of(use("b")), Chain.EMPTY,
                PLAIN,
                Map.of());
        Rig fine = rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))), button("b", state(Chain.of(
                repeat("{n} < 3", set), repeat(null, pause(10)), set, until))), button("c", state("s", null,
                        Chain.of(
                                on("a")),
                        Chain.of(off("a")))),
                button("d", state(Chain.of(pause(5), use("d")))), button("e",
                        plain("x").withFallBack(new State.FallBack("y", 5)).withThen(State.STAY), plain("y"))
                        .withTriggers(List.of(new Trigger.Key("F9"))),
                button("f", plain("x").withFace(
                        Face.PLAIN.withTint("#123456"))));
        assertThat(Check.of(fine)).isEmpty();
    }

    @Test
    void contrastIsThatOfTheStandard() {
        assertThat(Contrast.of("#000000", "#FFFFFF")).isEqualTo(21);
        assertThat(Contrast.of("#777777", "#FFFFFF")).isBetween(4.47, 4.49);
        assertThat(Contrast.inkOn("#F2B134")).isEqualTo("#16201B");
    }

    @Test
    void aBoardWithAMissingReferenceIsRefusedAndADraftOfItIsNot() {
        Board board = presses(use("nobody")).board();
        assertThat(References.flaws(presses(use("nobody")))).extracting(References.Flaw::pointer).containsExactly(
                "/pages/0/buttons/0/states/0/on/press/0/button");
        assertThat(board.button("b").map(Button::name)).contains("b");
    }

    private static Trigger becomes(String reading) {
        return new Trigger.Becomes(rombix.core.chain.Condition.OnReading.is("gear", reading, Value.of(true)));
    }

    @Test
    void placesInTextsThatNameNothingAreFound() {
        Face face = Face.PLAIN.withLabel("{gear:nothing} {gear:level} {n} {nobody}").withSecond("{= {n} + 1}");
        Rig rig = rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))), button("b", new State("s", "s",
                face, State.STAY, null, Map.of(Gesture.PRESS, Chain.of(new DeckStep.Say("{cuont} of {n}", PLAIN, Map
                        .of()), repeat("{n} < 3", new DeckStep.Say("{count}", PLAIN, Map.of()), pause(10)))),
                Map.of())));
        assertThat(Check.of(rig)).filteredOn(f -> f.kind() == Kind.DEAD_REFERENCE)
                .extracting(f -> f.message().substring(f
                        .message().indexOf('{'), f.message().indexOf('}') + 1))
                .containsExactlyInAnyOrder("{gear:nothing}",
                        "{nobody}", "{cuont}");
    }

    @Test
    void aValueOutOfItsCardsRangeIsFound() {
        assertThat(Check.of(presses(rombix.core.engine.TestDeck.level(140)))).filteredOn(f -> f
                .kind() == Kind.OUT_OF_RANGE).singleElement().satisfies(f -> assertThat(f.message()).contains("140",
                        "at most 100"));
        assertThat(Check.of(presses(rombix.core.engine.TestDeck.level(40)))).noneMatch(f -> f
                .kind() == Kind.OUT_OF_RANGE);
    }

    @Test
    void triggersThatFireEachOtherAreFound() {
        Button a = button("a", state(Chain.of(on("b")))).withTriggers(List.of(becomes("on/a")));
        Button b = button("b", state(Chain.of(on("a")))).withTriggers(List.of(becomes("on/b")));
        assertThat(Check.of(rig(a, b))).filteredOn(f -> f.message().contains("trigger each other")).extracting(
                Finding::button).containsExactly("a", "b");
        assertThat(Check.of(rig(a, b.withTriggers(List.of()))))
                .noneMatch(f -> f.message().contains("trigger each other"));
    }

    private static List<String> dead(Rig rig) {
        return Check.of(rig).stream().filter(f -> f.kind() == Kind.DEAD_REFERENCE).map(Finding::message).toList();
    }

    private static Step computed(String formula) {
        return new Step.Wait(0, null, null, new rombix.core.chain.Condition.Computed(formula), null, PLAIN, Map.of());
    }

    /** A misspelt name in a formula was found by the forecast alone. */
    @Test
    void aNameInAFormulaThatIsNothingHereIsFoundWithTheNearest() {
        BoardValue round = new BoardValue("round", "Round", Value.of(0));
        rombix.core.chain.Condition misspelt = new rombix.core.chain.Condition.Computed("{ruond} > 1");
        List<Step> steps = List.of(new DeckStep.Set("round", new Arg.Computed("{ruond} + 1"), PLAIN, Map.of()),
                new Step.If(misspelt, Chain.of(on("a")), Chain.EMPTY, PLAIN, Map.of()), computed("{ruond} > 1"),
                on("a").withHow(new rombix.core.chain.StepOptions(false, null, misspelt, null, 0, 0, null)),
                new rombix.core.chain.GearStep.Do("gear", "level", Map.of("level", (Arg) new Arg.Computed("{ruond}")),
                        null, PLAIN, Map.of()));
        for (Step step : steps) {
            assertThat(dead(rig(b -> b.withValues(List.of(round)), button("b", state(Chain.of(pause(5), step))))))
                    .as(step.toString()).singleElement().asString()
                    .contains("“ruond”, which isn't a value here", "round");
        }
        Rig page = rig(b -> b.withValues(List.of(round)).withPages(List.of(b.pages().getFirst().withFollows(misspelt))),
                button("b", plain("x")));
        assertThat(dead(page)).singleElement().asString().contains("a condition names “ruond”", "round");
        Face face = Face.PLAIN.withLabel("{= {ruond} + 1}");
        assertThat(dead(rig(b -> b.withValues(List.of(round)), button("b", plain("x").withFace(face))))).singleElement()
                .asString().contains("{ruond}", "round");
        assertThat(dead(presses(computed("{gaer:level} > 1")))).singleElement().asString().contains(
                "isn't gear on this board",
                "gear");
        assertThat(dead(presses(computed("{gear:levle} > 1")))).singleElement().asString().contains(
                "isn't a reading of Gear", "level");
    }

    @Test
    void whatGearListsIsCheckedWhereItIsKnown() {
        Rig rig = presses(new rombix.core.chain.GearStep.Do("gear", "scene", Map.of("scene", Value.of("hsot"))));
        assertThat(rig).isNotNull();
        rombix.core.card.Card studio = rombix.core.store.CardLibrary.shipped().get("studio");
        Board board = new Board(1, "T", List.of(new Gear("studio", "Studio", "studio", new Gear.Link(Protocol.of("osc"),
                "127.0.0.1:1", Map.of()), Map.of(), Map.of())), List.of(rig.board().pages().getFirst().withButtons(
                        List
                                .of(button("b",
                                        state(Chain.of(new rombix.core.chain.GearStep.Do("studio", "scene", Map.of(
                                                "scene", Value.of("hsot-desk"))))))))),
                Map.of());
        Rig with = Rig.of(board, Map.of("studio", java.util.Objects.requireNonNull(studio)));
        Value scenes = new Value.Choices(List.of(new Value.Choice("host-desk", "Host Desk"), new Value.Choice(
                "main-scope", "Main Scope")));
        assertThat(dead(with)).isEmpty();
        assertThat(Check.of(with, new CheckContext() {
            @Override
            public rombix.core.twin.Twin.Readings readings(String gear) {
                return id -> id.equals("scene") ? null : scenes;
            }
        })).filteredOn(f -> f.kind() == Kind.DEAD_REFERENCE).singleElement().satisfies(f -> assertThat(f.message())
                .contains("no scene “hsot-desk”", "host-desk"));
    }

    @Test
    void anIconThatThereIsNotIsFoundWithTheNearest() {
        Rig rig = rig(button("b", plain("x").withFace(Face.PLAIN.withIcon("mdi2m-microphnoe"))));
        assertThat(Check.of(rig, new CheckContext() {
            @Override
            public boolean icon(String name) {
                return icons().contains(name);
            }

            @Override
            public List<String> icons() {
                return List.of("mdi2m-microphone", "mdi2b-bell");
            }
        })).singleElement().satisfies(f -> assertThat(f.message()).contains("no icon “mdi2m-microphnoe”",
                "mdi2m-microphone"));
    }

    @Test
    void aDialOrAStripThatMovesNothingIsFound() {
        for (rombix.core.board.Control control : List.of(new rombix.core.board.Control.Dial(null, 0, 0),
                new rombix.core.board.Control.WheelStrip(false),
                new rombix.core.board.Control.PointerField(1, false))) {
            Button dial = button("b", plain("x")).withControl(control);
            assertThat(Check.of(rig(dial))).as(control.toString()).extracting(Finding::kind).containsExactly(
                    Kind.MOVES_NOTHING);
            State turned = plain("x").withOn(Map.of(Gesture.TURN, Chain.of(on("a"))));
            assertThat(Check.of(rig(dial.withStates(List.of(turned))))).isEmpty();
        }
    }
}
