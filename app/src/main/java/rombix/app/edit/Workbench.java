package rombix.app.edit;

import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.BoardOnDisk;
import rombix.app.edit.file.BoardWrite;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Paths;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile.Stamp;
import rombix.core.thread.OneThread;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.running.owner.OpenedBoard;

/**
 * The board being edited, with its history, what of it is selected, and its file. Owned by one thread, the interface's.
 * Every edit is a function from board to board, so undo is the boards before.
 */
@OwnedBy(Owner.INTERFACE)
public final class Workbench {
    private static final int MAX_RECENT = 40;

    private final OneThread thread = new OneThread();
    private final BoardOnDisk disk;
    private final History history = new History();
    private final Selection selection;
    private Rig rig;
    private Mode mode = Mode.BUILD;
    private int lives;
    private @Nullable String lookedFor;
    private UnaryOperator<Rig> rule = r -> r;
    private final Deque<Step> recent = new ArrayDeque<>();
    private final List<Runnable> watchers = new ArrayList<>();

    public Workbench(Path file, Rig rig) {
        this.rig = rig;
        this.disk = new BoardOnDisk(file, rig);
        this.selection = new Selection(this::rig);
    }

    /** On a board as it was read, with what was not saved of it. */
    public Workbench(OpenedBoard opened) {
        this(opened.file(), opened.saved());
        take(opened);
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
        assert thread.entered() : thread;
        List.copyOf(watchers).forEach(Runnable::run);
    }

    public Rig rig() {
        return rig;
    }

    public Board board() {
        return rig.board();
    }

    public Path file() {
        return disk.file();
    }

    public Mode mode() {
        return mode;
    }

    public void mode(Mode next) {
        lives += next == Mode.LIVE && mode != Mode.LIVE ? 1 : 0;
        mode = next;
        selection.dropSteps();
        changed();
    }

    /** How often the board has gone live since it was opened. */
    public int lives() {
        return lives;
    }

    public Page page() {
        return selection.page();
    }

    public void showPage(String id) {
        selection.page(id);
        changed();
    }

    /** The pages in the tabs: all of them in Build, else those that aren't hidden, and the one that is shown. */
    public List<Page> inTabs() {
        return board().pages().stream().filter(p -> mode() == Mode.BUILD || !p.hidden() || p.id().equals(page().id()))
                .toList();
    }

    /** The page so many tabs further; behind the last comes the first. */
    public Page beside(int by) {
        List<Page> tabs = inTabs();
        int at = tabs.indexOf(page());
        return tabs.get(Math.floorMod(at + by, tabs.size()));
    }

    public Optional<Button> button() {
        return selection.button();
    }

    /** All selected buttons, the one whose score is shown first. */
    public List<Button> buttons() {
        return selection.buttons();
    }

    /** Selects a button of this page besides those that are selected, or lets go of it. */
    public void selectAlso(String id) {
        selection.toggle(id);
        changed();
    }

    /** Has a gear looked for: the rack shows it. */
    public void lookFor(String gear) {
        lookedFor = gear;
        changed();
        lookedFor = null;
    }

    /** The gear that is looked for right now. */
    public Optional<String> lookedFor() {
        return Optional.ofNullable(lookedFor);
    }

    /** Selects a button, its first state and its press, and no other; null selects none. */
    public void select(@Nullable String id) {
        selection.button(id);
        changed();
    }

    public int stateIndex() {
        return selection.state();
    }

    public Optional<State> state() {
        return button().map(b -> b.states().get(stateIndex()));
    }

    public void selectState(int index) {
        selection.state(index);
        changed();
    }

    public Part part() {
        return selection.part();
    }

    public void selectPart(Part next) {
        selection.part(next);
        changed();
    }

    /** The chain under the hand; empty where there is none. */
    public Chain chain() {
        String named = part().chain();
        Gesture gesture = part().gesture();
        return named != null
                ? board().chain(named).map(Board.NamedChain::chain).orElse(Chain.EMPTY)
                : gesture == null
                        ? button().map(Button::onStart).orElse(Chain.EMPTY)
                        : state().map(s -> s.chain(gesture)).orElse(Chain.EMPTY);
    }

    /** Whether there is a chain under the hand that steps can be added to. */
    public boolean hasChain() {
        return part().chain() != null ? board().chain(part().chain()).isPresent() : button().isPresent();
    }

    /** Edits the chain under the hand. */
    public void editChain(String name, UnaryOperator<Chain> change) {
        String named = part().chain();
        Gesture gesture = part().gesture();
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
        return selection.steps.size() == 1 ? Optional.of(selection.steps.iterator().next()) : Optional.empty();
    }

    /** Where the selected steps stand, in the order in which they were selected. */
    public Set<List<Integer>> steps() {
        return Collections.unmodifiableSet(selection.steps);
    }

    /** Selects one step; null selects none. The next one is added behind it. */
    public void selectStep(@Nullable List<Integer> path) {
        selectSteps(path == null ? List.of() : List.of(path));
    }

    public void selectSteps(Collection<List<Integer>> paths) {
        selection.steps(paths);
        changed();
    }

    /** Where the next step goes: the end of the chain where nothing else was chosen. */
    public List<Integer> cursor() {
        List<Integer> chosen = selection.cursor;
        return chosen == null ? List.of(chain().steps().size()) : chosen;
    }

    /** Chooses where the next step goes. */
    public void cursor(@Nullable List<Integer> path) {
        selection.dropSteps();
        selection.cursor = path;
        changed();
    }

    /** The steps that were added last, newest first. */
    public List<Step> recent() {
        return List.copyOf(recent);
    }

    /** Adds steps where the cursor stands, and selects nothing; the next go behind them. */
    public void add(String name, List<Step> added) {
        List<Integer> at = cursor();
        boolean end = selection.cursor == null;
        added.forEach(s -> {
            recent.remove(s);
            recent.push(s);
        });
        while (recent.size() > MAX_RECENT) {
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

    /** Takes the board of another workbench as it is now. Neither knows of the other's edits. */
    void takeOver(Workbench other) {
        rig = other.rig;
        rule = other.rule;
        history.clear();
        selection.reset();
        changed();
    }

    /** Has something done to the board after every edit, as part of it. */
    public void follow(UnaryOperator<Rig> next) {
        rule = next;
    }

    /** Carries out an edit that can be undone. One that changes nothing leaves no trace. */
    public void edit(String name, UnaryOperator<Board> edit) {
        editRig(name, r -> r.with(edit.apply(r.board())));
    }

    /** As {@link #edit}, where a card of its gear changes with it. */
    public void editRig(String name, UnaryOperator<Rig> edit) {
        Rig after = rule.apply(edit.apply(rig));
        if (after.board().equals(board()) && after.cards().equals(rig.cards())) {
            return;
        }
        history.did(name, rig);
        become(after);
    }

    /** Runs edits that are undone as one. */
    public void asOne(String name, Runnable edits) {
        history.asOne(name, rig, edits);
    }

    private void become(Rig next) {
        rig = next;
        disk.changed();
        selection.keep(chain());
        changed();
    }

    /** What undo would undo. */
    public Optional<String> undoName() {
        return history.undoName();
    }

    public Optional<String> redoName() {
        return history.redoName();
    }

    public void undo() {
        Rig before = history.undo(rig);
        if (before != null) {
            become(before);
        }
    }

    public void redo() {
        Rig after = history.redo(rig);
        if (after != null) {
            become(after);
        }
    }

    public boolean unsaved() {
        return !disk.holds(board());
    }

    /** The board as it was saved or read last. */
    public Rig saved() {
        return rig.with(disk.saved());
    }

    /** The board as it is, to be saved in a file. */
    public BoardWrite toSave(Path to) {
        return disk.toSave(to, rig);
    }

    /** What is not safe yet, to be written to the journal; once. */
    public Optional<BoardWrite> toJournal() {
        return disk.toJournal(rig);
    }

    /** Something that was to be written is. */
    public void written(BoardWrite write) {
        disk.written(write);
        if (!write.journal()) { // An autosave changes nothing that is seen.
            changed();
        }
    }

    /** The file as it was when it was read, written or seen last; empty where that is not known. */
    public Optional<Stamp> stamp() {
        return disk.stamp();
    }

    /** The file was changed by another program; that stands until it is saved over. */
    public void seen(Optional<Stamp> stamp) {
        disk.seen(stamp);
    }

    public void discardUnsaved() {
        disk.discardUnsaved();
    }

    public void notWritten(BoardWrite write) {
        disk.notWritten(write);
    }

    /** Takes another board in place of the present one; what that has unsaved is in its journal already. */
    public void take(OpenedBoard opened) {
        lives = opened.file().equals(file()) ? lives : 0;
        disk.take(opened);
        rig = opened.rig();
        history.clear();
        selection.reset();
        changed();
    }
}
