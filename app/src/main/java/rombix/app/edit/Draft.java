package rombix.app.edit;

import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/**
 * A button that is edited while its board is on air: on a workbench of its own, until all of it is applied as one edit.
 * There is one draft at a time; its workbench stays, and is in Build only while something is edited there.
 */
@OwnedBy(Owner.INTERFACE)
public final class Draft {
    private final Workbench board;
    private final Workbench own;
    private @Nullable Rig began;
    private String button = "";

    /** @param board the board that is on air */
    public Draft(Workbench board) {
        this.board = board;
        this.own = new Workbench(board.file(), board.rig());
        own.mode(Mode.LIVE);
    }

    /** Where it is edited. */
    public Workbench bench() {
        return own;
    }

    /** @param state which state of the button is shown first */
    public void begin(String edited, int state) {
        button = edited;
        began = board.rig();
        own.takeOver(board);
        own.mode(Mode.BUILD);
        own.showPage(board.rig().pageOf(edited).orElseGet(board::page).id());
        own.select(edited);
        own.selectState(state);
    }

    /** Nothing is edited any longer; what was not applied is gone. */
    public void end() {
        began = null;
        own.mode(Mode.LIVE);
    }

    /** Whether a button is edited. */
    public boolean begun() {
        return began != null;
    }

    /** The button as the draft has it. */
    public Button button() {
        return own.rig().button(button).orElseThrow();
    }

    /** Whether anything differs from what is on air. */
    public boolean changed() {
        return began != null && own.rig() != began;
    }

    /** Whether the board that is on air still has the button. */
    public boolean stands() {
        return board.rig().button(button).isPresent();
    }

    /**
     * Has the board take the draft, as one edit, and ends it. Where the board was changed meanwhile it takes the button
     * alone.
     */
    public void apply() {
        Rig from = began;
        Rig made = own.rig();
        Button edited = button();
        end();
        board.editRig("edit “" + edited.name() + "” on air", rig -> rig == from
                ? made
                : rig.with(Edits.button(rig.board(), edited.id(), _ -> edited)));
    }
}
