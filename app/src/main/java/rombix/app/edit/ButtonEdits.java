package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.bundle.SharedPart;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.edit.Copies;
import rombix.core.edit.Edits;

/** Edits of the selected buttons. Each is one named edit. */
public final class ButtonEdits {
    private final Workbench bench;
    private @Nullable Copied copied;
    private @Nullable Copied cutting;
    private Consumer<List<Button>> told = _ -> {
    };
    private Consumer<SharedPart.What> parts = _ -> {
    };

    public ButtonEdits(Workbench bench) {
        this.bench = bench;
    }

    /**
     * What was copied, as it was then.
     *
     * @param state the state that was selected, and {@code gesture} the gesture
     */
    public record Copied(List<Button> buttons, State state, @Nullable Gesture gesture) {
        public Button first() {
            return buttons.getFirst();
        }
    }

    /** What of a copied button is pasted onto another. */
    public enum Onto {
        LOOKS("the look"), CHAINS("all chains"), STATE("state “%s”, replacing this one"), STATE_MORE(
                "state “%s”, as a new state"), GESTURE("the chain for %s");

        private final String words;

        Onto(String words) {
            this.words = words;
        }

        /** In words, for what was copied. */
        public String words(Copied copied) {
            Gesture gesture = copied.gesture();
            return words.formatted(this == GESTURE
                    ? gesture == null ? "the start chain" : gesture.words()
                    : copied.state()
                            .name());
        }
    }

    private static String names(List<Button> buttons) {
        return buttons.size() == 1 ? "“" + buttons.getFirst().name() + "”" : buttons.size() + " buttons";
    }

    /**
     * Has another told of buttons that are copied.
     *
     * @param only is told where one part of the selected button is to be copied
     */
    public void whenCopied(Consumer<List<Button>> next, Consumer<SharedPart.What> only) {
        told = next;
        parts = only;
    }

    /** Copies one part of the selected button. */
    public void copyOnly(SharedPart.What what) {
        parts.accept(what);
    }

    public Optional<Copied> copied() {
        return Optional.ofNullable(copied);
    }

    public void copy() {
        List<Button> buttons = bench.buttons();
        cutting = null;
        bench.state().ifPresent(s -> {
            copied = new Copied(buttons, s, bench.part().gesture());
            told.accept(buttons);
        });
    }

    /** Copies the selected buttons; the next paste moves them there, so that what names them still does. */
    public void cut() {
        copy();
        cutting = copied;
    }

    /** Whether a button goes away from here with the next paste. */
    public boolean isCut(String button) {
        return cutting != null && cutting.buttons().stream().anyMatch(b -> b.id().equals(button));
    }

    /** Takes the selected buttons away, and the steps that name them. */
    public void delete() {
        List<Button> gone = bench.buttons();
        bench.edit("delete " + names(gone), board -> {
            Board left = board;
            for (Button b : gone) {
                left = UsageWords.withoutButton(left, b.id());
            }
            return left;
        });
    }

    /** Puts copies of the copied buttons on this page, the first one in a cell if it is free; or moves cut ones there. */
    public void paste(int column, int row) {
        Copied now = copied;
        if (now == null) {
            return;
        }
        boolean move = now == cutting;
        cutting = null;
        String page = bench.page().id();
        List<String> made = new ArrayList<>();
        bench.edit((move ? "move " : "paste ") + names(now.buttons()), board -> {
            Board with = board;
            for (Button b : now.buttons()) {
                int c = column + b.column() - now.first().column();
                int r = row + b.row() - now.first().row();
                Board next = move ? moved(with, page, b, c, r) : Copies.button(with, page, b, c, r);
                if (!next.equals(with)) {
                    made.add(next.page(page).orElseThrow().buttons().getLast().id());
                }
                with = next;
            }
            return with;
        });
        select(made);
    }

    private static Board moved(Board board, String page, Button b, int column, int row) {
        Button here = board.button(b.id()).orElse(null);
        Board left = Edits.removeButton(board, b.id());
        int[] at = here == null
                ? new int[0]
                : left.page(page).map(p -> Edits.freePlace(p, here.withColumn(column).withRow(row))).orElse(new int[0]);
        return here == null || at.length == 0
                ? board
                : Edits.addButton(left, page, here.withColumn(at[0]).withRow(at[1]));
    }

    private void select(List<String> buttons) {
        if (!buttons.isEmpty()) {
            bench.select(buttons.getFirst());
            buttons.subList(1, buttons.size()).forEach(bench::selectAlso);
        }
    }

    /** Gives the selected buttons something of the copied one. */
    public void paste(Onto what) {
        Copied now = copied;
        List<Button> onto = bench.buttons();
        if (now == null || onto.isEmpty()) {
            return;
        }
        int state = bench.stateIndex();
        bench.edit("paste onto " + names(onto), each(onto, (board, b) -> switch (what) {
            case LOOKS -> Edits.button(Copies.looks(board, b.id(), now.first()), b.id(), ButtonEdits::ownLooks);
            case CHAINS -> Copies.chains(board, b.id(), now.first());
            case STATE -> Copies.state(board, b.id(), Math.min(state, b.states().size() - 1), now.state());
            case STATE_MORE -> Copies.state(board, b.id(), b.states().size(), now.state());
            case GESTURE -> gesture(board, b, Math.min(state, b.states().size() - 1), now);
        }));
    }

    private static Board gesture(Board board, Button b, int state, Copied now) {
        Gesture gesture = now.gesture();
        Chain chain = gesture == null ? now.first().onStart() : now.state().chain(gesture);
        return gesture == null
                ? Edits.button(board, b.id(), x -> x.withOnStart(chain))
                : Edits.chain(board, b.id(), state, gesture, _ -> chain);
    }

    /** Looks that a person gave: they follow the first step no more. */
    private static Button ownLooks(Button b) {
        return b.withProposed(b.proposed().contains(Button.Proposed.NAME)
                ? java.util.Set.of(Button.Proposed.NAME)
                : java.util.Set.of());
    }

    private static java.util.function.UnaryOperator<Board> each(List<Button> buttons,
            BiFunction<Board, Button, Board> change) {
        return board -> {
            Board with = board;
            for (Button b : buttons) {
                with = change.apply(with, b);
            }
            return with;
        };
    }

    /** Gives all selected buttons the colours, the mark and the layout of the first. */
    public void match() {
        List<Button> all = bench.buttons();
        if (all.size() > 1) {
            Button first = all.getFirst();
            bench.edit("make " + all.size() + " buttons match", each(all.subList(1, all.size()), (board, b) -> Edits
                    .button(Copies.match(board, b.id(), first), b.id(), x -> rombix.core.edit.Proposals.chosen(x,
                            Button.Proposed.FILL))));
        }
    }

    /** Puts copies of the selected buttons beside them. */
    public void duplicate() {
        Copied before = copied;
        copy();
        Button last = bench.buttons().isEmpty() ? null : bench.buttons().getLast();
        if (last != null) {
            paste(last.column() + last.width(), last.row());
        }
        copied = before;
    }

    /** Moves the selected buttons by so many cells; one alone swaps with what is there. */
    public void move(int columns, int rows) {
        List<Button> all = bench.buttons();
        if (all.size() == 1) {
            Button b = all.getFirst();
            moveTo(b, b.column() + columns, b.row() + rows);
        } else {
            bench.edit("move " + names(all), board -> Edits.moveButtons(board, all.stream().map(Button::id).toList(),
                    columns, rows));
        }
    }

    public void moveTo(Button b, int column, int row) {
        bench.edit("move “" + b.name() + "”", board -> Edits.moveButton(board, b.id(), column, row));
    }

    /** Has the selected buttons take more or fewer cells. */
    public void size(int columns, int rows) {
        List<Button> all = bench.buttons();
        bench.edit("size " + names(all), each(all, (board, b) -> Edits.sizeButton(board, b.id(), b.width() + columns,
                b.height() + rows)));
    }

    /** Moves the selected buttons to another page, which is then shown; those that find no room stay. */
    public void moveToPage(String page) {
        List<Button> all = bench.buttons();
        bench.edit("move " + names(all) + " to “" + bench.rig().page(page).map(Page::name).orElse(page) + "”", each(
                all, (board, b) -> Edits.moveToPage(board, b.id(), page)));
        List<String> there = all.stream().map(Button::id).filter(b -> bench.rig().pageOf(b).filter(p -> p.id()
                .equals(page)).isPresent()).toList();
        select(there);
    }

    /** The page so many places after the one shown, round and round. */
    public Page pageBy(int by) {
        List<Page> pages = bench.board().pages();
        return pages.get(Math.floorMod(pages.indexOf(bench.page()) + by, pages.size()));
    }
}
