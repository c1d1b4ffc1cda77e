package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import rombix.core.board.Board;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Board.NamedChain;
import rombix.core.board.Button;
import rombix.core.board.Button.Guard;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Page;
import rombix.core.board.RunDown;
import rombix.core.board.Schedule;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.card.Protocol;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.value.Value;

/** Random boards with every kind of step and rule: written, read and written again they are the same. */
class EveryStepRoundTripTest {
    private static final Path FILE = Path.of("b.json");

    @Property(tries = 150)
    void aBoardSurvivesItsFile(@ForAll("boards") Board board) throws BadFile {
        String text = BoardFile.format(board);
        Board again = BoardFile.parse(FILE, text, CardLibrary.shipped());
        assertThat(again).isEqualTo(board);
        assertThat(BoardFile.format(again)).isEqualTo(text);
    }

    @Property(tries = 40)
    void whatIsWrittenIsWhatTheSchemaSays(@ForAll("boards") Board board) throws IOException {
        Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(Path.of("../docs/board.schema.json")), InputFormat.JSON);
        assertThat(schema.validate(BoardFile.format(board), InputFormat.JSON)).isEmpty();
    }

    private static final Control.Axis LEVEL = new Control.Axis("desk", "level/host");
    private static final List<Trigger> TRIGGERS = List.of(new Trigger.Key("Ctrl+K"), new Trigger.Key("F13", true),
            new Trigger.Midi("Pads", Trigger.Midi.Message.NOTE, 10, 36, null, Map.of("one", new Trigger.Midi.Led(48,
                    0), "two", new Trigger.Midi.Led(null, 5)), false),
            new Trigger.Midi("Pads",
                    Trigger.Midi.Message.CONTROL, 1, 0, Trigger.Midi.Turns.SIGNED_BIT, Map.of(), true),
            new Trigger.Osc("/go/1"), new MessageTrigger.Http("bell", List.of("who")),
            new MessageTrigger.Mqtt("house", "bell/+", null), new MessageTrigger.Mqtt("house", "#", "on"),
            new Trigger.Clock(Schedule.of("Fri,Sat 21:30"), true), new Trigger.Clock(Schedule
                    .of("every 15 min"), false),
            new Trigger.Clock(Schedule.of("2026-12-24T21:30"), false),
            new Trigger.Becomes(Condition.OnReading.is("desk", "muted/host", Value.of(true)), true, Map.of()),
            new Trigger.When(
                    Trigger.When.What.GEAR_LOST, "desk"),
            new Trigger.When(Trigger.When.What.BOARD_OPENED, null));

    @Provide
    Arbitrary<Board> boards() {
        return Combinators.combine(chain(2), chain(1), chain(1), manners(1)).as((press, release, named, how) -> {
            Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
            on.put(Gesture.PRESS, press);
            on.put(Gesture.RELEASE, release);
            on.put(Gesture.TURN_FINE, Chain.of(new DeckStep.Say("{turn}", how, Map.of())));
            on.values().removeIf(Chain::isEmpty);
            State one = new State("one", "One",
                    Face.PLAIN.withTint("#102030").withLabel("{n}").withSecond("of 9").withMark(Face.Mark.TICK)
                            .withImage(new Face.Image("dot", Face.Image.Fit.COVER, 12, "#FFEEDD")),
                    State.RANDOM,
                    new State.FallBack("two", 900), Condition.OnReading.is("desk", "muted/host", Value.of(true)), on,
                    Map.of());
            State two = new State("two", "two", Face.PLAIN, "one", null, Map.of(), Map.of());
            Button fader = new Button("f", "F", 0, 0, 1, 1, Button.Busy.QUEUE, List.of(State.named("on")), Map.of())
                    .withControl(
                            new Control.Fader(LEVEL));
            Button dial = fader.withId("d").withRow(1).withControl(new Control.Dial(LEVEL, 2, 0));
            Button plain = fader.withId("e").withColumn(1).withRow(1).withControl(new Control.Dial(null, 0, 0));
            Button b = new Button("b", "B", 1, 0, 1, 1, Button.Busy.QUEUE, List.of(one, two), Map.of())
                    .withGuard(new Guard(Guard.Kind.TWICE, 1500)).withTag("noise").withRepeat(150).withPressAlso(true)
                    .withTriggers(TRIGGERS)
                    .withControl(new Control.Pad(LEVEL, LEVEL, true)).withOnStart(release)
                    .withProposed(java.util.Set.of(Button.Proposed.ICON))
                    .withValues(List.of(new BoardValue("own", "Own", Value.of("x"))));
            return new Board(1, "Random",
                    List.of(new Gear("desk", "Desk", "sound-desk", new Gear.Link(Protocol.of("midi"),
                            "Desk", Map.of()), Map.of(), Map.of()), new Gear("house", "House", "house",
                                    new Gear.Link(
                                            Protocol.of("mqtt"), "127.0.0.1:1883", Map.of()),
                                    Map.of(), Map.of())),
                    List.of(new Page("p", "P", 3, 2, List.of(b, fader, dial, plain), new Condition.Computed("{n} > 2"),
                            true, Face.Fill.WINE,
                            Map.of())),
                    List.of(new BoardValue("n", "N", Value.of(4))), List.of(new NamedChain("c", "C", List.of("to"),
                            named)),
                    List.of(new Board.Picture("dot", "dot.svg", "PHN2Zy8+")), List.of(new RunDown("night", "Night",
                            RunDown.items("Welcome | Good evening | 2:00\nTea"))),
                    700, 0, 9777, Board.AfterCrash.ALWAYS, Map.of());
        });
    }

    private static Arbitrary<Chain> chain(int depth) {
        Arbitrary<List<Step>> steps = step(depth).list().ofMaxSize(4);
        return Combinators.combine(steps, step(0).list().ofMaxSize(1), Arbitraries.of(true, false))
                .as((s, a, back) -> new Chain(s,
                        a, back, Map.of()));
    }

    private static Arbitrary<StepOptions> manners(int depth) {
        Arbitrary<StepOptions> plain = Arbitraries.just(StepOptions.PLAIN);
        Arbitrary<StepOptions> others = Arbitraries.of(
                new StepOptions(true, "a note", null, StepOptions.Fail.GO_ON, 0, 0, null),
                new StepOptions(false, null, new Condition.Computed("{n} > 1"), StepOptions.Fail.STOP, 0, 0, null),
                new StepOptions(false,
                        null,
                        new Condition.OnReading("desk", "level/host", new Comparison(null, -20.0, 3.5, null, null)),
                        StepOptions.Fail.RETRY, 4,
                        250, null));
        return depth == 0
                ? Arbitraries.oneOf(plain, others)
                : Arbitraries.oneOf(plain, others,
                        chain(0).filter(c -> !c.isEmpty()).map(c -> new StepOptions(false, null,
                                null, StepOptions.Fail.INSTEAD, 0, 0, c)));
    }

    private static Arbitrary<Step> step(int depth) {
        Map<String, Arg> host = Map.of("channel", Arg.of("host"));
        Arbitrary<Arg> args = Arbitraries.of(Arg.of(-12), Arg.of(2.5), new Arg.Computed("{n} * 2"));
        Arbitrary<Condition> tests = Arbitraries.of(new Condition.Computed("{n} == 4"), new Condition.All(List.of(
                new Condition.Not(new Condition.OnValue("n", Comparison.is(Value.of(4)))), new Condition.Any(List.of(
                        new Condition.Daytime("21:30", null), new Condition.Daytime(null, "7:00"),
                        new Condition.OnReading("desk", "muted/host", Comparison.pattern("^(yes|no)$")))),
                new Condition.OnReading("desk", "muted/host", Comparison.contains("y")))),
                Condition.OnReading.is("desk", "muted/guest", Value
                        .of(false)),
                new Condition.OnReading("desk", "level/host", new Comparison(null, -10.0, null, null, null)));
        Arbitrary<Step> plain = Arbitraries.oneOf(Combinators.combine(args, Arbitraries.of(0L, 1L)).as((level,
                answer) -> new GearStep.Do("desk", "level", Map.of("channel", Arg.of("host"), "level", level),
                        answer == 0
                                ? null
                                : 900L,
                        StepOptions.PLAIN, Map.of())),
                Arbitraries.longs().between(0, 5000).map(Step.Wait::new),
                Arbitraries.longs().between(0, 90)
                        .map(ms -> new Step.Wait(ms, ms + 10, null, null, null, StepOptions.PLAIN,
                                Map.of())),
                Arbitraries.of("7:05", "21:30:15").map(t -> new Step.Wait(0, null, t, null, null,
                        StepOptions.PLAIN, Map.of())),
                tests.map(t -> new Step.Wait(0, null, null, t, 5000L,
                        StepOptions.PLAIN, Map.of())),
                Combinators.combine(args, Arbitraries.of(
                        GearStep.Fade.Curve.values())).as(
                                (to, curve) -> new GearStep.Fade("desk",
                                        "level", host, "level", null, to, 800, curve, StepOptions.PLAIN, Map
                                                .of())),
                args.map(by -> new GearStep.Nudge("desk", "level",
                        host, "level", by, true, StepOptions.PLAIN, Map
                                .of())),
                args.map(to -> new DeckStep.Set(
                        "n", to, StepOptions.PLAIN, Map
                                .of())),
                Arbitraries.of(
                        new DeckStep.Use("b",
                                "two",
                                Gesture.LONG_PRESS,
                                null,
                                Map.of(),
                                StepOptions.PLAIN,
                                Map.of()),
                        new DeckStep.Use(
                                null,
                                null,
                                Gesture.PRESS,
                                "c",
                                Map.of("to",
                                        Arg.of(3)),
                                StepOptions.PLAIN,
                                Map.of()),
                        DeckStep.Show.page("p", DeckStep.Show.Way.WHILE_HELD),
                        DeckStep.Show.page("p", DeckStep.Show.Way.POP_UP),
                        DeckStep.Show.by(DeckStep.Show.Way.BACK),
                        DeckStep.Show.by(DeckStep.Show.Way.NEXT), new DeckStep.Go("night", Arg.of(Value.of("next")),
                                StepOptions.PLAIN, Map.of()),
                        DeckStep.Show.state("b", "one"),
                        new DeckStep.Stop(
                                DeckStep.Stop.What.TAG,
                                null,
                                "noise",
                                StepOptions.PLAIN,
                                Map.of()),
                        new DeckStep.Note("{n} again", StepOptions.PLAIN, Map.of()),
                        new DeckStep.Say(
                                "“x” {n}",
                                StepOptions.PLAIN,
                                Map.of("later",
                                        7))));
        Arbitrary<Step> all = depth == 0 ? plain : Arbitraries.oneOf(plain, holding(depth, args, tests));
        return Combinators.combine(all, manners(Math.min(depth, 1))).as(Step::withHow);
    }

    private static Arbitrary<Step> holding(int depth, Arbitrary<Arg> args, Arbitrary<Condition> tests) {
        Arbitrary<Chain> inner = chain(depth - 1);
        Arbitrary<List<Step.Choice>> choices = Combinators.combine(Arbitraries.of("Red", ""), Arbitraries.of(1.0, 2.5),
                inner).as((name, weight, c) -> new Step.Choice(name.isEmpty() ? null : name, weight, c)).list()
                .ofMinSize(1).ofMaxSize(3);
        return Arbitraries.oneOf(Combinators.combine(inner.list().ofMaxSize(3), Arbitraries.of(Step.Together.Ends
                .values())).as((cs, ends) -> new Step.Together(cs, ends, StepOptions.PLAIN, Map.of())),
                Combinators.combine(
                        choices, Arbitraries.of(Step.Pick.Way.values())).as(
                                (cs, way) -> new Step.Pick(way, cs,
                                        StepOptions.PLAIN, Map.of())),
                Combinators.combine(tests, inner, inner).as((t, a,
                        b) -> new Step.If(t, a, b, StepOptions.PLAIN, Map.of())),
                Combinators.combine(args,
                        tests, inner).as(
                                (times, t, c) -> new Step.Repeat(times, t, 300L, "i",
                                        c, StepOptions.PLAIN, Map.of())),
                inner.map(c -> new Step.ForAWhile(
                        c, 4000, StepOptions.PLAIN, Map.of())),
                choices.map(
                        cs -> new DeckStep.Ask("Which?",
                                DeckStep.Ask.AnswerType.CHOICE, cs, "n", Value.of(
                                        0),
                                2000L, StepOptions.PLAIN, Map
                                        .of())));
    }
}
