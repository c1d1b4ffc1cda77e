package rombix.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Button.Proposed;
import rombix.core.board.Face;
import rombix.core.board.Face.Fill;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.StepWords;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;

/** What a new button proposes of itself from its first step: a name, an icon, a tint. */
public final class Proposals {
    /** What a button is called before it has a step. */
    public static final String NAMELESS = "New button";
    private static final int LONGEST_NAME = 28;

    private Proposals() {
    }

    /** A button that proposes all that it can, until a person chooses otherwise. */
    public static Button fresh(Board board, int column, int row) {
        return new Button(Edits.freshId(board, NAMELESS), NAMELESS, column, row, 1, 1, Button.Busy.RESTART,
                List.of(State.named("on")), java.util.Map.of()).withProposed(Set.of(Proposed.values()));
    }

    /** The board with every proposal made anew from what the first steps are now. */
    public static Rig follow(Rig rig, Function<String, Readings> readings) {
        StepWords words = new StepWords(rig, readings);
        Board board = rig.board();
        for (Page page : board.pages()) {
            for (Button b : page.buttons()) {
                Button after = b.proposed().isEmpty() ? b : follow(b, rig, words);
                if (!after.equals(b)) {
                    board = Edits.button(board, b.id(), _ -> after);
                }
            }
        }
        return board == rig.board() ? rig : rig.with(board);
    }

    /** A person has chosen something: it follows no more. */
    public static Button chosen(Button button, Proposed what) {
        return button.proposed().contains(what)
                ? button.withProposed(button.proposed().stream().filter(p -> p != what).collect(
                        java.util.stream.Collectors.toSet()))
                : button;
    }

    private static Button follow(Button b, Rig rig, StepWords words) {
        List<State> states = new ArrayList<>();
        String name = b.name();
        for (State s : b.states()) {
            Step first = first(s);
            if (first == null) {
                states.add(s);
                continue;
            }
            if (states.isEmpty() && b.proposed().contains(Proposed.NAME)) {
                name = cut(words.of(first));
            }
            Face face = s.face();
            if (b.proposed().contains(Proposed.ICON)) {
                face = face.withIcon(icon(first, rig));
            }
            if (b.proposed().contains(Proposed.FILL)) {
                face = face.withFill(fill(first, rig));
            }
            states.add(s.withFace(face));
        }
        return b.withName(name).withStates(states);
    }

    private static String cut(String words) {
        String plain = words.replace('\u00a0', ' ');
        if (plain.length() <= LONGEST_NAME) {
            return plain;
        }
        int space = plain.lastIndexOf(' ', LONGEST_NAME);
        return plain.substring(0, space > LONGEST_NAME / 2 ? space : LONGEST_NAME).replaceAll("[\\s,:]+$", "");
    }

    /** The first step that says what the state is for: a wait does not, where anything else stands behind it. */
    private static @org.jspecify.annotations.Nullable Step first(State state) {
        for (Gesture g : Gesture.values()) {
            Chain chain = state.chain(g);
            if (!chain.steps().isEmpty()) {
                return chain.steps().stream().filter(s -> !(s instanceof Step.Wait)).findFirst().orElse(chain.steps()
                        .getFirst());
            }
        }
        return null;
    }

    private static String gear(Step step) {
        return step instanceof GearStep g
                ? g.gear()
                : step.inner().stream().flatMap(c -> c.steps().stream()).map(Proposals::gear).filter(g -> !g.isEmpty())
                        .findFirst().orElse("");
    }

    private static String icon(Step step, Rig rig) {
        return rig.twin(gear(step)).map(Twin::card).map(Card::icon).orElseGet(() -> switch (step) {
            case Step.Wait _ -> "mdi2t-timer-outline";
            case Step.Pick _ -> "mdi2s-shuffle-variant";
            case Step.Repeat _,Step.ForAWhile _ -> "mdi2r-replay";
            case DeckStep.Ask _ -> "mdi2h-help-circle-outline";
            case DeckStep.Say _ -> "mdi2m-message-outline";
            case DeckStep.Show _ -> "mdi2f-file-outline";
            case DeckStep.Stop _ -> "mdi2s-stop";
            case DeckStep.Set _ -> "mdi2c-counter";
            case DeckStep.Go _ -> "mdi2f-format-list-numbered";
            default -> "mdi2p-play-outline";
        });
    }

    private static Fill fill(Step step, Rig rig) {
        return rig.twin(gear(step)).map(t -> fill(t.card())).orElse(Fill.STONE);
    }

    /** Gear of one kind gets one tint. */
    public static Fill fill(Card card) {
        return Fill.values()[Math.floorMod(card.id().hashCode(), Fill.values().length - 1)];
    }
}
