package rombix.core.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.State;
import rombix.core.chain.Condition;
import rombix.core.engine.op.Op;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** The buttons whose states follow readings. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Follows {
    private final Deck deck;
    private final Hands hands;
    private final Map<Watched, List<ButtonPlay>> followers = new HashMap<>();

    private record Watched(String gear, String reading) {
    }

    Follows(Deck deck, Hands hands) {
        this.deck = deck;
        this.hands = hands;
    }

    void clear() {
        followers.clear();
    }

    void index(ButtonPlay play) {
        for (State s : play.button.states()) {
            Condition.OnReading when = s.when();
            if (when != null) {
                List<ButtonPlay> list = followers.computeIfAbsent(new Watched(when.gear(), when.reading()),
                        _ -> new ArrayList<>());
                if (!list.contains(play)) {
                    list.add(play);
                }
            }
        }
    }

    /** A reading has a new value. */
    void came(String gear, String reading) {
        for (ButtonPlay b : followers.getOrDefault(new Watched(gear, reading), List.of())) {
            follow(b);
        }
    }

    /** The first state whose condition holds; -1 where none does. */
    int state(Button button) {
        for (int i = 0; i < button.states().size(); i++) {
            Condition.OnReading when = button.states().get(i).when();
            if (when != null && deck.situation.holds(when)) {
                return i;
            }
        }
        return -1;
    }

    /** Shows the state that the gear is in. */
    void follow(ButtonPlay b) {
        int state = state(b.button);
        boolean arrived = state >= 0 && b.onItsWay == state;
        if (state >= 0 && (b.shown != state || arrived)) {
            hands.show(b, state);
            if (arrived) {
                arrived(b, state);
            } else {
                deck.telling.shows(b);
            }
        }
    }

    private void arrived(ButtonPlay b, int state) {
        State now = b.button.states().get(state);
        Condition.OnReading when = now.when();
        deck.telling
                .tell(new Happening.Answered(b.wayRun, b.button.id(), "", when == null ? "" : when.gear(), now.name(),
                        b.wayNanos, deck.now()));
        hands.giveUp(b);
    }

    /** What the gear says in place of what a button waits for. */
    String instead(ButtonPlay b) {
        Condition.OnReading when = b.button.states().get(b.onItsWay).when();
        Twin twin = when == null ? null : deck.situation.twin(when.gear());
        Value now = when == null ? null : deck.situation.reading(when.gear(), when.reading());
        if (when == null || twin == null || now == null) {
            return "no reading has come";
        }
        Twin.Readings of = deck.situation.readingsOf(when.gear());
        return twin.reading(when.reading(), of).map(known -> "%s still says %s, %s".formatted(twin.title(),
                known.title(), twin.spoken(known, now, of))).orElse("no reading has come");
    }

    /** Whether a button may come to show a state by what some chains do, as far as cards say. */
    static boolean mayCome(ButtonPlay b, int state, Op.@Nullable Seq... chains) {
        Condition.OnReading when = b.button.states().get(state).when();
        return Arrays.stream(chains).anyMatch(c -> c != null && (when == null || c.mayChange(when.gear(), when
                .reading())));
    }
}
