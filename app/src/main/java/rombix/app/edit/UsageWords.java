package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Walk;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;

/** Where something of a board is used by steps, in words. */
public final class UsageWords {
    private UsageWords() {
    }

    /** The steps that name a button. */
    public static Predicate<Step> button(String button) {
        return s -> switch (s) {
            case DeckStep.Use u -> button.equals(u.button());
            case DeckStep.Show h -> button.equals(h.button());
            case DeckStep.Stop t -> button.equals(t.button());
            default -> false;
        };
    }

    /** The steps that name a page. */
    public static Predicate<Step> page(String page) {
        return s -> s instanceof DeckStep.Show h && page.equals(h.page());
    }

    public static List<String> ofButton(Board board, String button) {
        return of(board, button(button), button);
    }

    public static List<String> ofPage(Board board, String page) {
        return of(board, page(page), "");
    }

    /** The board without a button, and without the steps that name it. */
    public static Board withoutButton(Board board, String button) {
        return Edits.removeButton(Edits.chains(board, c -> c.without(button(button))), button);
    }

    /** The board with every step that names a button naming another; where that lacks the state, its first. */
    public static Board repointed(Board board, String from, String to) {
        String first = board.button(to).map(b -> b.states().getFirst().id()).orElse("");
        return Edits.chains(board, c -> c.each(s -> switch (s) {
            case DeckStep.Use u when from.equals(u.button()) ->
                new DeckStep.Use(to, null, u.gesture(), null, u.args(), u.how(),
                        u.extra());
            case DeckStep.Show h when from.equals(h.button()) -> new DeckStep.Show(null, h.way(), to, first, h.how(), h
                    .extra());
            case DeckStep.Stop t when from.equals(t.button()) ->
                t.withButton(to);
            default -> s;
        }));
    }

    /** The steps that name a state of a button. */
    public static Predicate<Step> state(String button, String state) {
        return s -> switch (s) {
            case DeckStep.Use u -> button.equals(u.button()) && state.equals(u.state());
            case DeckStep.Show h -> button.equals(h.button()) && state.equals(h.state());
            default -> false;
        };
    }

    /** The board without a state of a button, and without the steps that name it. */
    public static Board withoutState(Board board, String button, int index) {
        String state = board.button(button).filter(b -> b.states().size() > 1 && index < b.states().size()).map(b -> b
                .states().get(index).id()).orElse("");
        return state.isEmpty()
                ? board
                : Edits.removeState(Edits.chains(board, c -> c.without(state(button, state))), button, index);
    }

    /** The steps that name a value of the board. */
    public static Predicate<Step> value(String value) {
        return s -> s instanceof DeckStep.Set t && value.equals(t.value())
                || s instanceof DeckStep.Ask a && value.equals(a
                        .into());
    }

    /** The steps that use a chain of the board. */
    public static Predicate<Step> chain(String chain) {
        return s -> s instanceof DeckStep.Use u && chain.equals(u.chain());
    }

    /** The steps that go through a run-down. */
    public static Predicate<Step> runDown(String runDown) {
        return s -> s instanceof DeckStep.Go g && runDown.equals(g.list());
    }

    /** Where steps of some kind stand, in words. */
    public static List<String> of(Board board, Predicate<Step> uses) {
        return of(board, uses, "");
    }

    /** The board without a page and its buttons, and without the steps that name any of them. */
    public static Board withoutPage(Board board, String page) {
        Board left = Edits.chains(board, c -> c.without(page(page)));
        for (Button b : board.page(page).map(Page::buttons).orElse(List.of())) {
            left = withoutButton(left, b.id());
        }
        return Edits.removePage(left, page);
    }

    /** @param own the button whose own steps do not count */
    private static List<String> of(Board board, Predicate<Step> uses, String own) {
        List<String> found = new ArrayList<>();
        Walk.steps(board, spot -> {
            if (uses.test(spot.step()) && (spot.owner().button() == null || !spot.owner().button().id().equals(own))) {
                String where = spot.owner().words();
                if (!found.contains(where)) {
                    found.add(where);
                }
            }
        });
        return found;
    }
}
