package rombix.app.edit;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Paths;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Edits;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;

/**
 * The board under the hand: its history, what of it is selected, and its file. Owned by one thread, the interface's.
 * Every edit is a function from board to board, so undo is the boards before.
 */
public final class Workbench {
    private static final int MOST_UNDO = 500;
    private static final int MOST_RECENT = 40;

    /** The modes: edit; press for real on twins only; press for real with editing locked. */
    public enum Mode {
        BUILD, REHEARSE, LIVE
    }

    /** Which chain is under the hand: that of a gesture, what the button does at the start, or a chain of the board. */
    public record Part(@Nullable Gesture gesture, @Nullable String chain) {
        public static final Part START = new Part(null, null);

        public static Part of(Gesture gesture) {
            return new Part(gesture, null);
        }

        /** What the places of its steps begin with. */
        public String place() {
            return chain != null ? "chain" : gesture == null ? "on-start" : gesture.id();
        }
    }

    private record Done(String name, Board before) {
    }

    private Path file;
    private Rig rig;
    private Board saved;
    private boolean journalled = true;
    private final Deque<Done> undo = new ArrayDeque<>();
    private final Deque<Done> redo = new ArrayDeque<>();
    private Mode mode = Mode.BUILD;
    private String page;
    private @Nullable String button;
    private @Nullable String sought;
    private final Set<String> besides = new LinkedHashSet<>();
    private UnaryOperator<Rig> rule = r -> r;
    private final Deque<Step> recent = new ArrayDeque<>();
    private int state;
    private Part part = Part.of(Gesture.PRESS);
    private final Set<List<Integer>> steps = new LinkedHashSet<>();
    private @Nullable List<Integer> cursor;
    private final List<Runnable> watchers = new ArrayList<>();

    public Workbench(Path file, Rig rig) {
        this.file = file;
        this.rig = rig;
        this.saved = rig.board();
        this.page = rig.board().pages().getFirst().id();
    }

    /** Has a watcher told after every change of the board, the selection or the mode. */
    public void watch(Runnable watcher) {
        watchers.add(watcher);
    }

    /** As {@link #watch}, for as long as something holds. */
    public void watchWhile(Runnable watcher, BooleanSupplier holds) {
        Runnable[] self = new Runnable[1];
        self[0] = () -> {
            if (holds.getAsBoolean()) {
                watcher.run();
            } else {
                watchers.remove(self[0]);
            }
        };
        watchers.add(self[0]);
    }

    private void changed() {
        List.copyOf(watchers).forEach(Runnable::run);
    }

    public Rig rig() {
        return rig;
    }

    public Board board() {
        return rig.board();
    }

    public Path file() {
        return file;
    }

    public Mode mode() {
        return mode;
    }

    public void mode(Mode next) {
        mode = next;
        unselect();
        changed();
    }

    public Page page() {
        return board().page(page).orElse(board().pages().getFirst());
    }

    public void showPage(String id) {
        page = id;
        select(null);
    }

    public Optional<Button> button() {
        return button == null ? Optional.empty() : board().button(button);
    }

    /** All selected buttons, the one whose score is shown first. */
    public List<Button> buttons() {
        List<Button> all = new ArrayList<>(button().stream().toList());
        besides.stream().filter(b -> !b.equals(button)).flatMap(b -> board().button(b).stream()).forEach(all::add);
        return all;
    }

    /** Selects a button of this page besides those that are selected, or lets go of it. */
    public void selectAlso(String id) {
        if (id.equals(button)) {
            List<Button> all = buttons();
            if (all.size() > 1) {
                Set<String> left = new LinkedHashSet<>(besides);
                left.remove(all.get(1).id());
                select(all.get(1).id());
                besides.addAll(left);
                besides.remove(id);
            }
        } else if (button == null) {
            select(id);
            return;
        } else if (!besides.remove(id)) {
            besides.add(id);
        }
        changed();
    }

    /** Has a gear looked for: the rack shows it. */
    public void seek(String gear) {
        sought = gear;
        changed();
        sought = null;
    }

    /** The gear that is looked for right now. */
    public Optional<String> sought() {
        return Optional.ofNullable(sought);
    }

    /** Selects a button, its first state and its press, and no other; null selects none. */
    public void select(@Nullable String id) {
        besides.clear();
        if (!Objects.equals(id, button)) {
            state = 0;
        }
        if (!Objects.equals(id, button) || part.chain() != null) {
            part = Part.of(Gesture.PRESS);
        }
        button = id;
        unselect();
        if (id != null) {
            board().pageOf(id).ifPresent(p -> page = p.id());
        }
        changed();
    }

    public int stateIndex() {
        return button().map(b -> Math.min(state, b.states().size() - 1)).orElse(0);
    }

    public Optional<State> state() {
        return button().map(b -> b.states().get(stateIndex()));
    }

    public void selectState(int index) {
        state = index;
        unselect();
        changed();
    }

    public Part part() {
        return part;
    }

    public void selectPart(Part next) {
        part = next;
        unselect();
        changed();
    }

    /** The chain under the hand; empty where there is none. */
    public Chain chain() {
        String named = part.chain();
        Gesture gesture = part.gesture();
        return named != null
                ? board().chain(named).map(Board.NamedChain::chain).orElse(Chain.EMPTY)
                : gesture == null
                        ? button().map(Button::onStart).orElse(Chain.EMPTY)
                        : state().map(s -> s.chain(gesture)).orElse(Chain.EMPTY);
    }

    /** Whether there is a chain under the hand that steps can be added to. */
    public boolean hasChain() {
        return part.chain() != null ? board().chain(part.chain()).isPresent() : button().isPresent();
    }

    /** Edits the chain under the hand. */
    public void editChain(String name, UnaryOperator<Chain> change) {
        String named = part.chain();
        Gesture gesture = part.gesture();
        if (named != null) {
            edit(name, b -> Edits.namedChain(b, named, change));
        } else {
            button().ifPresent(b -> edit(name, board -> gesture == null
                    ? Edits.button(board, b.id(), x -> x.withOnStart(change.apply(x.onStart())))
                    : Edits.chain(board, b.id(), stateIndex(), gesture, change)));
        }
    }

    /** Where the selected step stands in the chain; empty where none, or more than one, is. */
    public Optional<List<Integer>> step() {
        return steps.size() == 1 ? Optional.of(steps.iterator().next()) : Optional.empty();
    }

    /** Where the selected steps stand, in the order in which they were selected. */
    public Set<List<Integer>> steps() {
        return Collections.unmodifiableSet(steps);
    }

    /** Selects one step; null selects none. The next one is added behind it. */
    public void selectStep(@Nullable List<Integer> path) {
        selectSteps(path == null ? List.of() : List.of(path));
    }

    public void selectSteps(Collection<List<Integer>> paths) {
        unselect();
        steps.addAll(paths);
        cursor = steps.isEmpty() ? null : Paths.next(List.copyOf(steps).getLast());
        changed();
    }

    private void unselect() {
        steps.clear();
        cursor = null;
    }

    /** Where the next step goes: the end of the chain where nothing else was chosen. */
    public List<Integer> cursor() {
        return cursor == null ? List.of(chain().steps().size()) : cursor;
    }

    /** Chooses where the next step goes. */
    public void cursor(@Nullable List<Integer> path) {
        steps.clear();
        cursor = path;
        changed();
    }

    /** The steps that were added last, newest first. */
    public List<Step> recent() {
        return List.copyOf(recent);
    }

    /** Adds steps where the cursor stands, and selects nothing; the next go behind them. */
    public void add(String name, List<Step> added) {
        List<Integer> at = cursor();
        boolean end = cursor == null;
        added.forEach(s -> {
            recent.remove(s);
            recent.push(s);
        });
        while (recent.size() > MOST_RECENT) {
            recent.removeLast();
        }
        editChain(name, c -> Paths.inserted(c, at, added));
        if (!end) {
            List<Integer> next = at;
            for (int i = 0; i < added.size(); i++) {
                next = Paths.next(next);
            }
            cursor(next);
        }
    }

    /** Has something done to the board after every edit, as part of it. */
    public void follow(UnaryOperator<Rig> next) {
        rule = next;
    }

    /** Carries out an edit that can be undone. One that changes nothing leaves no trace. */
    public void edit(String name, UnaryOperator<Board> edit) {
        Board before = board();
        Board after = rule.apply(rig.with(edit.apply(before))).board();
        if (after.equals(before)) {
            return;
        }
        undo.push(new Done(name, before));
        if (undo.size() > MOST_UNDO) {
            undo.removeLast();
        }
        redo.clear();
        become(after);
    }

    private void become(Board board) {
        rig = rig.with(board);
        journalled = false;
        if (button != null && board.button(button).isEmpty()) {
            button = null;
        }
        besides.removeIf(b -> board.button(b).isEmpty());
        Chain chain = chain();
        steps.removeIf(path -> Paths.step(chain, path).isEmpty());
        if (cursor != null && !Paths.fits(chain, cursor)) {
            cursor = null;
        }
        changed();
    }

    /** What undo would undo. */
    public Optional<String> undoName() {
        return Optional.ofNullable(undo.peek()).map(Done::name);
    }

    public Optional<String> redoName() {
        return Optional.ofNullable(redo.peek()).map(Done::name);
    }

    public void undo() {
        back(undo, redo);
    }

    public void redo() {
        back(redo, undo);
    }

    private void back(Deque<Done> from, Deque<Done> to) {
        Done done = from.poll();
        if (done != null) {
            to.push(new Done(done.name(), board()));
            become(done.before());
        }
    }

    public boolean unsaved() {
        return !board().equals(saved);
    }

    public void save() throws IOException {
        BoardFile.save(file, board());
        saved = board();
        journalled = true;
        changed();
    }

    public void saveAs(Path other) throws IOException {
        file = other;
        save();
    }

    /** Writes what is not saved yet to the journal, if it was not written already. */
    public void autosave() throws IOException {
        if (!journalled) {
            if (unsaved()) {
                BoardFile.journal(file, board());
            }
            journalled = true;
        }
    }

    /**
     * Opens another board. What the present one has unsaved stays in its journal.
     *
     * @return whether edits that were not saved were brought back from a journal
     * @throws BadFile if it cannot be used; then all is as before
     */
    public boolean open(Path other) throws BadFile, IOException {
        Rig read = BoardFile.read(other);
        autosave();
        Optional<Board> journal = BoardFile.unsaved(other, read.cards());
        file = other;
        saved = read.board();
        rig = journal.map(read::with).orElse(read);
        undo.clear();
        redo.clear();
        page = board().pages().getFirst().id();
        button = null;
        besides.clear();
        part = Part.of(Gesture.PRESS);
        unselect();
        journalled = true;
        changed();
        return journal.isPresent();
    }
}
