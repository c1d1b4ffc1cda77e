package rombix.app.view.button;

import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.core.board.Button.Proposed;
import rombix.core.board.Face;
import rombix.core.edit.Edits;
import rombix.core.edit.Proposals;

/** The face being edited in the face popover. */
record FaceSubject(Desk desk, String button, int state) {
    Face face() {
        return desk.bench().rig().button(button).filter(b -> state < b.states().size()).map(b -> b.states().get(
                state).face()).orElse(Face.PLAIN);
    }

    void edit(@Nullable Proposed chosen, UnaryOperator<Face> change) {
        desk.bench().edit("change the face", b -> {
            var with = Edits.state(b, button, state, s -> s.withFace(change.apply(s.face())));
            return chosen == null ? with : Edits.button(with, button, x -> Proposals.chosen(x, chosen));
        });
    }
}
