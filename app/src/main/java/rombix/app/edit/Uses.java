package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Edits;
import rombix.core.board.Page;
import rombix.core.board.Walk;
import rombix.core.chain.Step;

/** Where something of a board is used by steps, in words. */
public final class Uses {
    private Uses() {
    }

    /** The steps that name a button. */
    public static Predicate<Step> button(String button) {
        return s -> switch (s) {
            case Step.Use u -> button.equals(u.button());
            case Step.Show h -> button.equals(h.button());
            case Step.Stop t -> button.equals(t.button());
            default -> false;
        };
    }

    /** The steps that name a page. */
    public static Predicate<Step> page(String page) {
        return s -> s instanceof Step.Show h && page.equals(h.page());
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
