package rombix.app.edit.file;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.check.References;
import rombix.core.store.BoardFile.Stamp;
import rombix.core.store.CardLibrary;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.running.owner.OpenedBoard;

/** The file of a board: what of it is saved, and what is kept safe in its journal. */
@OwnedBy(Owner.INTERFACE)
public final class BoardOnDisk {
    private Path file;
    private Board saved;
    /** The cards as their files have them. */
    private final Map<String, Card> cards;
    /** The cards that were made since the board was opened, by their ids: their files go with them. */
    private final Set<String> ours = new HashSet<>();
    private boolean journalled = true;
    private Optional<Stamp> stamp = Optional.empty();

    public BoardOnDisk(Path file, Rig saved) {
        this.file = file;
        this.saved = saved.board();
        this.cards = new HashMap<>(saved.cards());
    }

    public Path file() {
        return file;
    }

    public Board saved() {
        return saved;
    }

    public boolean holds(Board board) {
        return board.equals(saved);
    }

    /** The board has changed: its journal has not. */
    public void changed() {
        journalled = false;
    }

    /**
     * What of the board is to be written to its journal; nothing where all of it is safe. The board as it was saved has to
     * be readable with its cards as they are then: a card that lacks what that names waits until the board is saved.
     */
    public Optional<BoardWrite> toJournal(Rig rig) {
        List<Card> made = made(rig).stream().filter(this::fitsSaved).toList();
        boolean wanted = !journalled && (!holds(rig.board()) || !made.isEmpty());
        journalled = true;
        return wanted ? Optional.of(new BoardWrite(file, rig.board(), made, Set.of(), true)) : Optional.empty();
    }

    private boolean fitsSaved(Card card) {
        Rig before = Rig.of(saved, cards);
        return !cards.containsKey(card.id())
                || References.flaws(before.withCard(card)).size() <= References.flaws(before)
                        .size();
    }

    /** The board to be saved, with the cards that are beside it; all that do not ship where that is another folder. */
    public BoardWrite toSave(Path to, Rig rig) {
        boolean here = Objects.equals(to.toAbsolutePath().getParent(), file.toAbsolutePath().getParent());
        Map<String, Card> shipped = here ? Map.of() : CardLibrary.shipped();
        return new BoardWrite(to, rig.board(), here
                ? made(rig)
                : rig.cards().values().stream().filter(c -> !c.equals(shipped.get(c.id()))).toList(),
                here
                        ? ours.stream().filter(id -> !rig.cards().containsKey(id)).collect(Collectors.toSet())
                        : Set.of(),
                false);
    }

    /** The cards that were made or changed here since they were written. */
    private List<Card> made(Rig rig) {
        return rig.cards().values().stream().filter(c -> !c.equals(cards.get(c.id()))).toList();
    }

    public void written(BoardWrite write) {
        write.cards().forEach(c -> {
            if (cards.put(c.id(), c) == null) {
                ours.add(c.id());
            }
        });
        write.gone().forEach(cards::remove);
        ours.removeAll(write.gone());
        if (!write.journal()) {
            file = write.file();
            saved = write.board();
            stamp = Stamp.of(file);
        }
    }

    public Optional<Stamp> stamp() {
        return stamp;
    }

    public void seen(Optional<Stamp> now) {
        stamp = now;
    }

    public void notWritten(BoardWrite write) {
        journalled &= !write.journal();
    }

    public void discardUnsaved() {
        journalled = true;
    }

    /** Takes another board in place of the present one, all of which is safe. */
    public void take(OpenedBoard opened) {
        file = opened.file();
        saved = opened.saved().board();
        cards.clear();
        ours.clear();
        cards.putAll(opened.saved().cards());
        journalled = true;
        stamp = opened.stamp();
    }
}
