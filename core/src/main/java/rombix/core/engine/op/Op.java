package rombix.core.engine.op;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Question;
import rombix.core.board.RunDown;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Formula;
import rombix.core.value.Template;
import rombix.core.value.Value;

/** A step as the conductor runs it: everything looked up beforehand. Times are nanoseconds. */
@OwnedBy(Owner.CONDUCTOR)
public sealed interface Op {

    /** Hands over this command, or those within. */
    private void commands(Consumer<Do> to) {
        Seq[] inner = switch (this) {
            case Do d -> {
                to.accept(d);
                yield new Seq[0];
            }
            case Together t -> t.chains();
            case Pick p -> p.chains;
            case If i -> new Seq[]{i.then(), i.otherwise()};
            case Repeat r -> new Seq[]{r.chain()};
            case ForAWhile w -> new Seq[]{w.chain};
            case Ask a -> a.chains();
            case Wait _,WaitClock _,WaitUntil _,Fade _,Nudge _,Use _,Set _,Go _,Show _,Written _,Stop _,Broken _ ->
                new Seq[0];
        };
        for (Seq seq : inner) {
            seq.commands(to);
        }
    }

    /** Whether it, or anything within, may change a reading, as far as cards say. */
    private boolean mayChange(String gear, String reading) {
        return switch (this) {
            case Do d -> d.mayChange(gear, reading);
            case Fade f -> f.command().mayChange(gear, reading);
            case Nudge n -> n.command().mayChange(gear, reading);
            case Use _ -> true; // What it uses may be another state's.
            case Together t -> any(gear, reading, t.chains());
            case Pick p -> any(gear, reading, p.chains);
            case If i -> any(gear, reading, i.then(), i.otherwise());
            case Repeat r -> any(gear, reading, r.chain());
            case ForAWhile w -> any(gear, reading, w.chain);
            case Ask a -> any(gear, reading, a.chains());
            case Wait _,WaitClock _,WaitUntil _,Set _,Go _,Show _,Written _,Stop _,Broken _ -> false;
        };
    }

    private static boolean any(String gear, String reading, Seq... chains) {
        for (Seq chain : chains) {
            if (chain.mayChange(gear, reading)) {
                return true;
            }
        }
        return false;
    }

    /** Steps one after another, and those that run however it ends. */
    record Seq(Item[] items, Item[] always, long expectedNanos) {
        public static final Seq NOTHING = new Seq(new Item[0], new Item[0], 0);

        /** Whether any step within may change a reading, as far as cards say. */
        public boolean mayChange(String gear, String reading) {
            for (Item[] part : new Item[][]{items, always}) {
                for (Item item : part) {
                    if (item.op().mayChange(gear, reading) || item.instead() != null && item.instead().mayChange(gear,
                            reading)) {
                        return true;
                    }
                }
            }
            return false;
        }

        /** Hands over all commands within, at any depth. */
        public void commands(Consumer<Do> to) {
            for (Item[] part : new Item[][]{items, always}) {
                for (Item item : part) {
                    item.op().commands(to);
                    if (item.instead() != null) {
                        item.instead().commands(to);
                    }
                }
            }
        }
    }

    /**
     * A step with its manner.
     *
     * @param place where it stands, for the as-run log
     * @param times what gives its times when it is due
     */
    record Item(String place, Op op, @Nullable Question condition, StepOptions how, @Nullable Seq instead,
            Map<String, Formula> times) {
    }

    /** An argument: one of the two is there, or {@code fault} says why the formula cannot be read. */
    record Input(@Nullable Value constant, @Nullable Formula formula) {
    }

    /** A command; its order is made out when first needed and again when what the gear lists has changed. */
    final class Do implements Op {
        public final Twin twin;
        public final Command command;
        public final Map<String, Input> args;
        public final long answerNanos;
        public final boolean constant;
        @Nullable
        public Order order;
        public long orderOf = -1;

        public Do(Twin twin, Command command, Map<String, Input> args, long answerNanos) {
            this.twin = twin;
            this.command = command;
            this.args = args;
            this.answerNanos = answerNanos;
            this.constant = args.values().stream().allMatch(i -> i.constant() != null);
        }

        /** Whether it may change a reading: of the same gear, and named by its card, unless that names none. */
        boolean mayChange(String gear, String reading) {
            return twin.gear().equals(gear) && (command.changes().isEmpty() || Stream.concat(command.changes().stream(),
                    command.after().stream()).anyMatch(c -> names(c.reading(), reading)));
        }

        /** Whether a card's reading is this one, with the arguments that are known beforehand. */
        private boolean names(Template of, String reading) {
            boolean known = of.places().stream().allMatch(p -> constant(p) != null);
            return known ? of.fill(this::constant).equals(reading) : of.match(reading).isPresent();
        }

        private @Nullable Value constant(String place) {
            Input given = args.get(place);
            return given != null ? given.constant() : command.param(place).map(Param::preset).orElse(null);
        }
    }

    record Wait(long nanos, long mostNanos) implements Op {
    }

    record WaitClock(java.time.LocalTime time) implements Op {
    }

    record WaitUntil(Question check, long timeoutNanos) implements Op {
    }

    record Together(Seq[] chains, boolean endsWithFirst) implements Op {
    }

    /** Remembers what was picked, across presses. */
    final class Pick implements Op {
        public final Step.Pick.Way way;
        public final Seq[] chains;
        public final double[] weights;
        public final String[] names;
        public int last = -1;
        public final java.util.ArrayList<Integer> bag = new java.util.ArrayList<>();

        Pick(Step.Pick.Way way, Seq[] chains, double[] weights, String[] names) {
            this.way = way;
            this.chains = chains;
            this.weights = weights;
            this.names = names;
        }
    }

    record If(Question check, Seq then, Seq otherwise) implements Op {
    }

    record Repeat(@Nullable Input times, @Nullable Question check, long everyNanos, String count, Seq chain)
            implements
                Op {
    }

    record Fade(Do command, Param param, @Nullable Input from, Input to, long nanos, GearStep.Fade.Curve curve)
            implements
                Op {
    }

    /** Compared by identity: each is one place in one chain. */
    final class ForAWhile implements Op {
        /** In place of a time: nothing is put back unless it is stopped. */
        public static final long UNLESS_STOPPED = -1;

        public final Seq chain;
        /** As it was reckoned last. */
        public long nanos;

        ForAWhile(Seq chain, long nanos) {
            this.chain = chain;
            this.nanos = nanos;
        }
    }

    record Nudge(Do command, Param param, Input by, boolean wrap) implements Op {
    }

    record Ask(DeckStep.Ask step, List<String> options, Seq[] chains) implements Op {
    }

    record Use(@Nullable String button, @Nullable String state, Gesture gesture, @Nullable String chain,
            Map<String, Input> args) implements Op {
    }

    record Set(String value, Input to) implements Op {
    }

    record Go(RunDown list, Input to) implements Op {
    }

    record Show(DeckStep.Show step) implements Op {
    }

    record Written(DeckStep.Written step) implements Op {
    }

    record Stop(DeckStep.Stop step) implements Op {
    }

    /** A step that cannot be run, and why: its formula cannot be read. */
    record Broken(String why) implements Op {
    }
}
