package rombix.app.edit;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The boards before this one with their cards, and those that were undone, each with the name of the edit that left it. */
@OwnedBy(Owner.INTERFACE)
final class History {
    private static final int LONGEST = 500;

    private record Done(String name, Rig before) {
    }

    private final Deque<Done> undo = new ArrayDeque<>();
    private final Deque<Done> redo = new ArrayDeque<>();
    private boolean grouped;

    /** Runs edits that are undone as one. */
    void asOne(String name, Rig before, Runnable edits) {
        grouped = true;
        try {
            edits.run();
        } finally {
            grouped = false;
        }
        did(name, before);
    }

    /** Records an edit; undone edits can no longer be redone. */
    void did(String name, Rig before) {
        if (grouped) {
            return;
        }
        undo.push(new Done(name, before));
        if (undo.size() > LONGEST) {
            undo.removeLast();
        }
        redo.clear();
    }

    void clear() {
        undo.clear();
        redo.clear();
    }

    Optional<String> undoName() {
        return Optional.ofNullable(undo.peek()).map(Done::name);
    }

    Optional<String> redoName() {
        return Optional.ofNullable(redo.peek()).map(Done::name);
    }

    /** The board before the last edit; null where there is none. */
    @Nullable
    Rig undo(Rig now) {
        return back(undo, redo, now);
    }

    /** The board that was undone last; null where there is none. */
    @Nullable
    Rig redo(Rig now) {
        return back(redo, undo, now);
    }

    private static @Nullable Rig back(Deque<Done> from, Deque<Done> to, Rig now) {
        Done done = from.poll();
        if (done == null) {
            return null;
        }
        to.push(new Done(done.name(), now));
        return done.before();
    }
}
