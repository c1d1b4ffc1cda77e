package rombix.app.edit;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.store.CardLibrary;
import rombix.core.store.BoardFile.Stamp;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The file of a board: what of it is saved, and what is kept safe in its journal. */
@OwnedBy(Owner.INTERFACE)
final class BoardOnDisk {
    private Path file;
    private Board saved;
    /** The cards as their files have them. */
    private final Map<String, Card> cards;
    private boolean journalled = true;
    private Optional<Stamp> stamp = Optional.empty();

    BoardOnDisk(Path file, Rig saved) {
        this.file = file;
        this.saved = saved.board();
        this.cards = new HashMap<>(saved.cards());
    }

    Path file() {
        return file;
    }

    boolean holds(Board board) {
        return board.equals(saved);
    }

    /** The board has changed: its journal has not. */
    void changed() {
        journalled = false;
    }

    /** What of the board is to be written to its journal; nothing where all of it is safe. */
    Optional<BoardWrite> toJournal(Rig rig) {
        List<Card> made = made(rig);
        boolean wanted = !journalled && (!holds(rig.board()) || !made.isEmpty());
        journalled = true;
        return wanted ? Optional.of(new BoardWrite(file, rig.board(), made, true)) : Optional.empty();
    }

    /** The board to be saved, with the cards that are beside it; all that do not ship where that is another folder. */
    BoardWrite toSave(Path to, Rig rig) {
        boolean here = Objects.equals(to.toAbsolutePath().getParent(), file.toAbsolutePath().getParent());
        Map<String, Card> shipped = here ? Map.of() : CardLibrary.shipped();
        return new BoardWrite(to, rig.board(), here
                ? made(rig)
                : rig.cards().values().stream().filter(c -> !c.equals(shipped.get(c.id()))).toList(), false);
    }

    /** The cards that were made or changed here since they were written. */
    private List<Card> made(Rig rig) {
        return rig.cards().values().stream().filter(c -> !c.equals(cards.get(c.id()))).toList();
    }

    void written(BoardWrite write) {
        write.cards().forEach(c -> cards.put(c.id(), c));
        if (!write.journal()) {
            file = write.file();
            saved = write.board();
            stamp = Stamp.of(file);
        }
    }

    Optional<Stamp> stamp() {
        return stamp;
    }

    void seen(Optional<Stamp> now) {
        stamp = now;
    }

    void notWritten(BoardWrite write) {
        journalled &= !write.journal();
    }

    void leave() {
        journalled = true;
    }

    /** Takes another board in place of the present one, all of which is safe. */
    void take(OpenedBoard opened) {
        file = opened.file();
        saved = opened.saved().board();
        cards.clear();
        cards.putAll(opened.saved().cards());
        journalled = true;
        stamp = opened.stamp();
    }
}
