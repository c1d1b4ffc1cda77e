package rombix.app.edit;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;

/**
 * The board under the hand: its history, what of it is selected, and its file. Owned by one thread, the interface's.
 * Every edit is a function from board to board, so undo is the boards before.
 */
public final class Workbench {
    private static final int MOST_UNDO = 500;

    /** The modes: edit, or press with editing locked. */
    public enum Mode {
        BUILD, LIVE
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
    private int state;
    private Gesture gesture = Gesture.PRESS;
    private @Nullable List<Integer> step;
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
        step = null;
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

    /** Selects a button, its first state and its press; null selects none. */
    public void select(@Nullable String id) {
        if (!Objects.equals(id, button)) {
            state = 0;
            gesture = Gesture.PRESS;
        }
        button = id;
        step = null;
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
        step = null;
        changed();
    }

    public Gesture gesture() {
        return gesture;
    }

    public void selectGesture(Gesture next) {
        gesture = next;
        step = null;
        changed();
    }

    /** The selected chain; empty where no button is selected. */
    public Chain chain() {
        return state().map(s -> s.chain(gesture)).orElse(Chain.EMPTY);
    }

    /** Where the selected step stands in the chain; empty where none is. */
    public Optional<List<Integer>> step() {
        return Optional.ofNullable(step);
    }

    public void selectStep(@Nullable List<Integer> path) {
        step = path;
        changed();
    }

    /** Carries out an edit that can be undone. One that changes nothing leaves no trace. */
    public void edit(String name, UnaryOperator<Board> edit) {
        Board before = board();
        Board after = edit.apply(before);
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
        step = null;
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
        step = null;
        journalled = true;
        changed();
        return journal.isPresent();
    }
}
