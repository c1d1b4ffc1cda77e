package rombix.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face.Image;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.State;

/** What of one button is given to another: all of it, its looks, its chains, a state. Functions from board to board. */
public final class Copies {
    private Copies() {
    }

    /** A copy of a button with an id of its own, where there is room for it; keys stay with the first. */
    public static Board button(Board board, String pageId, Button copied, int column, int row) {
        Page page = board.page(pageId).orElse(null);
        if (page == null) {
            return board;
        }
        Button copy = copied.withId(Edits.freshId(board, copied.name())).withTriggers(List.of());
        int[] at = Edits.freePlace(page, copy.withColumn(column).withRow(row));
        return at.length == 0 ? board : Edits.addButton(board, pageId, copy.withColumn(at[0]).withRow(at[1]));
    }

    /** The looks alone, state by state: all of a face but its words and its tally. */
    public static Board looks(Board board, String buttonId, Button from) {
        return states(board, buttonId, from, false, (to, of) -> to.withFace(looks(to.face(), of.face())));
    }

    /** The colours, the mark, and how pictures lie, state by state: what makes buttons match. */
    public static Board match(Board board, String buttonId, Button from) {
        return states(board, buttonId, from, false, (to, of) -> to.withFace(match(to.face(), of.face())));
    }

    /** The chains of all gestures, state by state, with what follows what; states that it lacks are added. */
    public static Board chains(Board board, String buttonId, Button from) {
        Board chained = states(board, buttonId, from, true, (to, of) -> to.withOn(of.on()).withWhen(of.when()));
        return Edits.button(chained, buttonId, b -> {
            List<State> all = new ArrayList<>();
            for (int i = 0; i < b.states().size(); i++) {
                State s = b.states().get(i);
                all.add(i < from.states().size()
                        ? s.withThen(then(from, i, b)).withFallBack(fallBack(from, i, b))
                        : s);
            }
            return b.withStates(all).withOnStart(from.onStart()).withBusy(from.busy()).withRepeat(from.repeat())
                    .withPressAlso(from.pressAlso());
        });
    }

    /** A state put behind the others, or in the place of one: its face and its chains. */
    public static Board state(Board board, String buttonId, int index, State from) {
        return Edits.button(board, buttonId, b -> {
            List<State> all = new ArrayList<>(b.states());
            if (index < all.size()) {
                State to = all.get(index);
                all.set(index, to.withFace(from.face()).withOn(from.on()).withWhen(from.when()));
            } else if (all.size() < Button.MAX_STATES) {
                Set<String> ids = all.stream().map(State::id).collect(Collectors.toSet());
                all.add(from.withId(Edits.freshId(from.name(), "state", ids::contains)).withThen(State.NEXT)
                        .withFallBack(null));
            }
            return b.withStates(all);
        });
    }

    /** One state's whole face on all the others. */
    public static Board faceOnAllStates(Board board, String buttonId, int index) {
        return Edits.button(board, buttonId, b -> {
            Face face = b.states().get(index).face();
            return b.withStates(b.states().stream().map(s -> s.withFace(face)).toList());
        });
    }

    private static Board states(Board board, String buttonId, Button from, boolean asMany,
            BiFunction<State, State, State> change) {
        Board with = board;
        int missing = asMany
                ? from.states().size() - board.button(buttonId).map(b -> b.states().size()).orElse(Integer.MAX_VALUE)
                : 0;
        for (int i = 0; i < missing; i++) {
            with = Edits.addState(with, buttonId);
        }
        return Edits.button(with, buttonId, b -> {
            List<State> all = new ArrayList<>();
            for (int i = 0; i < b.states().size(); i++) {
                boolean beyond = i >= from.states().size();
                all.add(beyond && asMany
                        ? b.states().get(i)
                        : change.apply(b.states().get(i), from.states().get(Math.min(i, from.states().size() - 1))));
            }
            return b.withStates(all);
        });
    }

    private static Face looks(Face to, Face of) {
        return of.withLabel(to.label()).withSecond(to.second()).withTally(to.tally()).withExtra(to.extra());
    }

    private static Face match(Face to, Face of) {
        Image image = to.image();
        Image like = of.image();
        return to.withFill(of.fill()).withTint(of.tint()).withInk(of.ink()).withAccent(of.accent()).withMark(of.mark())
                .withImage(
                        image == null || like == null ? image : image.withFit(like.fit()).withPadding(like.padding()));
    }

    /** A state that another button names, as the state of this one that stands in the same place. */
    private static String then(Button from, int index, Button to) {
        String then = from.states().get(index).then();
        return Set.of(State.NEXT, State.STAY, State.RANDOM).contains(then) ? then : sameState(from, then, to);
    }

    private static State.@org.jspecify.annotations.Nullable FallBack fallBack(Button from, int index, Button to) {
        State.FallBack fall = from.states().get(index).fallBack();
        return fall == null ? null : fall.withTo(sameState(from, fall.to(), to));
    }

    private static String sameState(Button from, String id, Button to) {
        for (int i = 0; i < from.states().size(); i++) {
            if (Objects.equals(from.states().get(i).id(), id)) {
                return to.states().get(i).id();
            }
        }
        return State.NEXT;
    }
}
