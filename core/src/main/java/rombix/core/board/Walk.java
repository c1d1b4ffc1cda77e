package rombix.core.board;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;

/** Goes through every step of a board, at any depth, saying where each stands. */
public final class Walk {
    private Walk() {
    }

    /**
     * Whose chain it is: a gesture of a button's state, what a button does at the start (no state), or a chain of the
     * board (no button).
     *
     * @param chain the id of the board's chain
     */
    public record Owner(@Nullable Button button, @Nullable State state, @Nullable Gesture gesture,
            @Nullable String chain) {
        /** In words: {@code Desk lit, on, press}. */
        public String words() {
            if (button == null) {
                return "chain “" + chain + "”";
            }
            if (state == null || gesture == null) {
                return "“" + button.name() + "”, at the start";
            }
            return "“%s”%s, %s".formatted(button.name(),
                    button.states().size() > 1 ? ", state “" + state.name() + "”" : "", gesture.words());
        }
    }

    /** A step in its place. Where that is is only spelled when it is asked for: deep down that is a long text. */
    public record Spot(Owner owner, At at, Step step) {
        /** Where it stands in the board's file, as a JSON pointer. */
        public String pointer() {
            return at.spelled(At::pointer);
        }

        /** Where it stands in its chain, as the as-run log writes it. */
        public String place() {
            return at.spelled(At::place);
        }
    }

    /** A place within another, and how it goes on from there in the file and in the log. */
    public record At(@Nullable At within, String pointer, String place) {
        private At then(String pointerPart, String placePart) {
            return new At(this, pointerPart, placePart);
        }

        private String spelled(Function<At, String> part) {
            Deque<String> parts = new ArrayDeque<>();
            for (At at = this; at != null; at = at.within) {
                parts.push(part.apply(at));
            }
            return String.join("", parts);
        }
    }

    /** A whole chain of a board: that of a gesture, of a start, or one with a name. */
    public record Whole(Owner owner, String pointer, String place, Chain chain) {
    }

    /** Hands over every whole chain of a board. */
    public static void chains(Board board, Consumer<Whole> to) {
        for (int p = 0; p < board.pages().size(); p++) {
            List<Button> buttons = board.pages().get(p).buttons();
            for (int b = 0; b < buttons.size(); b++) {
                Button button = buttons.get(b);
                String at = "/pages/%d/buttons/%d".formatted(p, b);
                for (int s = 0; s < button.states().size(); s++) {
                    State state = button.states().get(s);
                    String on = at + "/states/" + s + "/on/";
                    state.on().forEach((gesture, chain) -> to.accept(new Whole(
                            new Owner(button, state, gesture, null), on + gesture.id(), gesture.id(), chain)));
                }
                if (!button.onStart().isEmpty()) {
                    to.accept(new Whole(new Owner(button, null, null, null), at + "/onStart", "on-start",
                            button.onStart()));
                }
            }
        }
        for (int c = 0; c < board.chains().size(); c++) {
            Board.NamedChain named = board.chains().get(c);
            to.accept(new Whole(new Owner(null, null, null, named.id()), "/chains/" + c + "/chain", "chain",
                    named.chain()));
        }
    }

    /** Hands over every step of a board. */
    public static void steps(Board board, Consumer<Spot> to) {
        chains(board, whole -> steps(whole.owner(), whole.chain(), new At(null, whole.pointer(), whole.place()), to));
    }

    private static void steps(Owner owner, Chain chain, At at, Consumer<Spot> to) {
        each(owner, chain.steps(), chain.always().isEmpty() ? at : at.then("/steps", ""), to);
        if (!chain.always().isEmpty()) {
            each(owner, chain.always(), at.then("/always", "/always"), to);
        }
    }

    private static void each(Owner owner, List<Step> steps, At at, Consumer<Spot> to) {
        for (int i = 0; i < steps.size(); i++) {
            Step step = steps.get(i);
            At here = at.then("/" + i, "/" + i);
            to.accept(new Spot(owner, here, step));
            List<Chain> inner = step.inner();
            for (int c = 0; c < inner.size(); c++) {
                steps(owner, inner.get(c), here.then(field(step, c), "/" + c), to);
            }
            Chain instead = step.how().instead();
            if (instead != null) {
                steps(owner, instead, here.then("/how/instead", "/instead"), to);
            }
        }
    }

    private static String field(Step step, int index) {
        return switch (step) {
            case Step.Together _ -> "/chains/" + index;
            case Step.Pick _,DeckStep.Ask _ -> "/choices/" + index + "/chain";
            case Step.If _ -> index == 0 ? "/then" : "/else";
            default -> "/chain";
        };
    }
}
