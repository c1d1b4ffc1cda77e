package rombix.core.engine;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Compiler;
import rombix.core.engine.op.Op;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.event.Known;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/** The buttons of the board, in play. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Buttons {
    private final Deck deck;
    private final Map<String, ButtonPlay> all = new LinkedHashMap<>();
    /** Begins a button that is not in play yet; null where all are. */
    private @Nullable Function<String, @Nullable ButtonPlay> onDemand;

    Buttons(Deck deck) {
        this.deck = deck;
    }

    /** Has each button of a board begin when it is touched: a forecast touches few of them. */
    void begin(Rig board, Known known) {
        Compiler compiler = new Compiler(board);
        onDemand = id -> board.button(id).map(b -> {
            ButtonPlay play = new ButtonPlay(b, compiler);
            all.put(id, play);
            deck.follows.index(play);
            int followed = deck.follows.state(b);
            play.shown = followed >= 0
                    ? followed
                    : Math.min(known.states().getOrDefault(id, 0), b.states().size() - 1);
            return play;
        }).orElse(null);
    }

    @Nullable
    ButtonPlay get(@Nullable String id) {
        ButtonPlay b = id == null ? null : all.get(id);
        return b == null && id != null && onDemand != null ? onDemand.apply(id) : b;
    }

    Collection<ButtonPlay> all() {
        return all.values();
    }

    /** Those in play that are on another board no more. */
    List<ButtonPlay> goneFrom(Rig next) {
        return all.values().stream().filter(b -> next.button(b.button.id()).isEmpty()).toList();
    }

    /**
     * Makes them those of a board. What stays goes on.
     *
     * @return those that are new, or are not as they were
     */
    List<ButtonPlay> load(Rig next, boolean otherGear) {
        Compiler compiler = new Compiler(next);
        Map<String, ButtonPlay> before = new LinkedHashMap<>(all);
        all.clear();
        List<ButtonPlay> changed = new ArrayList<>();
        next.board().buttons().forEach(b -> {
            ButtonPlay play = before.get(b.id());
            boolean same = play != null && play.button == b && !otherGear;
            if (play == null) {
                play = new ButtonPlay(b, compiler);
            } else if (!same) {
                play.become(b, compiler);
            }
            all.put(b.id(), play);
            deck.follows.index(play);
            if (!same) {
                prepare(play);
                changed.add(play);
            }
        });
        return changed;
    }

    /** Compiles a button's chains and makes their orders out, so that a press does neither. */
    private void prepare(ButtonPlay play) {
        for (int i = 0; i < play.button.states().size(); i++) {
            for (Gesture g : play.button.states().get(i).on().keySet()) {
                Op.Seq chain = play.chain(i, g);
                if (chain != null) {
                    chain.commands(deck.orders::prepare);
                }
            }
        }
    }
}
