package rombix.core.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Question;
import rombix.core.board.State;
import rombix.core.chain.Condition;
import rombix.core.chain.Condition.OnReading;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.engine.run.Run;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.twin.Twin;
import rombix.core.value.Formula;
import rombix.core.value.Value;

/**
 * The buttons whose states follow conditions, and what is awaited after a press of one. Owned by the conductor's thread.
 */
@OwnedBy(Owner.CONDUCTOR)
final class Follows {
    private static final long SECOND = 1_000_000_000L;

    private final Deck deck;
    private final Gestures hands;
    private final Map<String, List<ButtonPlay>> followers = new HashMap<>();
    /** What each state of a button follows; null where it follows nothing. */
    private final Map<Button, List<@Nullable Question>> questions = new IdentityHashMap<>();
    private Agenda.@Nullable Entry second;

    Follows(Deck deck, Gestures hands) {
        this.deck = deck;
        this.hands = hands;
    }

    void clear() {
        followers.clear();
        questions.clear();
        Agenda.cancel(second);
        second = null;
    }

    void index(ButtonPlay play) {
        if (!play.button.follows()) {
            return;
        }
        List<@Nullable Question> of = new ArrayList<>();
        for (State s : play.button.states()) {
            Question question = question(s.when());
            of.add(question);
            for (String name : question == null ? List.<String>of() : question.names()) {
                List<ButtonPlay> list = followers.computeIfAbsent(name, _ -> new ArrayList<>());
                if (!list.contains(play)) {
                    list.add(play);
                }
            }
        }
        questions.put(play.button, of);
        if (second == null && followers.containsKey(Formula.CLOCK)) {
            tick(deck.now());
        }
    }

    private static @Nullable Question question(@Nullable Condition of) {
        return of == null ? null : Question.of(of).orElse(null);
    }

    /** Looks again each second, as what some states follow changes with the time. */
    private void tick(long from) {
        second = deck.agenda.at(from + SECOND, at -> {
            changed(Formula.CLOCK);
            tick(at);
        });
    }

    /** A reading, {@code gear:reading}, or a value has changed. */
    void changed(String name) {
        for (ButtonPlay b : followers.getOrDefault(name, List.of())) {
            follow(b);
        }
    }

    /** The first state whose condition holds, else the one for otherwise; -1 where nothing is known of any. */
    int state(Button button) {
        Scope scope = Scope.of(button.id());
        return Question.first(questions.getOrDefault(button, List.of()), q -> deck.situation.known(q, scope));
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
        String gear = awaited(b).map(OnReading::gear).findFirst().orElse("");
        deck.telling
                .tell(new Happening.Answered(b.wayRun, b.button.id(), "", gear, now.name(), b.wayNanos, deck.now()));
        giveUp(b);
    }

    /** The readings that the state on its way follows. */
    private static Stream<OnReading> awaited(ButtonPlay b) {
        return Condition.readings(b.button.states().get(b.onItsWay).when()).stream();
    }

    /** What the button follows is awaited from the end of a run on. */
    void await(ButtonPlay b, Run run, long at) {
        if (b.onItsWay < 0) {
            return;
        }
        b.wayRun = run.id;
        b.wayNanos = at;
        Agenda.cancel(b.followBy);
        b.followBy = null;
        if (run.over) {
            followBy(b, at);
        } else {
            b.awaited = run;
        }
    }

    /** The run whose effect is awaited is over. */
    void awaitedEnded(ButtonPlay b, Happening.End end, long due) {
        if (end == Happening.End.STOPPED) {
            giveUp(b);
        } else {
            followBy(b, due);
        }
    }

    private void followBy(ButtonPlay b, long from) {
        b.awaited = null;
        b.followBy = deck.agenda.at(from + Deck.FOLLOW_NANOS, _ -> {
            if (b.onItsWay >= 0) {
                deck.telling.fault(b, null, "no change within 2 s: " + instead(b));
                giveUp(b);
            }
        });
    }

    /** What was on its way will not come. */
    private void giveUp(ButtonPlay b) {
        b.onItsWay = -1;
        b.awaited = null;
        Agenda.cancel(b.followBy);
        b.followBy = null;
        deck.telling.shows(b);
    }

    /** A gear that is awaited has failed. */
    void failed(ButtonPlay b, @Nullable String gear) {
        if (b.onItsWay >= 0 && awaited(b).anyMatch(r -> r.gear().equals(gear))) {
            giveUp(b);
        }
    }

    /** What the gear says in place of what a button waits for. */
    private String instead(ButtonPlay b) {
        return awaited(b).flatMap(r -> readingNames(r).stream()).findFirst().orElse("no reading received");
    }

    private List<String> readingNames(OnReading r) {
        Twin twin = deck.situation.twin(r.gear());
        Value now = deck.situation.reading(r.gear(), r.reading());
        if (twin == null || now == null) {
            return List.of();
        }
        Twin.Readings of = deck.situation.readingsOf(r.gear());
        return twin.reading(r.reading(), of).map(known -> "%s is still %s, %s".formatted(twin.title(),
                known.title(), twin.spoken(known, now, of))).stream().toList();
    }

    /** Whether a button may come to show a state by what some chains do, as far as cards say. */
    static boolean mayCome(ButtonPlay b, int state, Op.@Nullable Seq... chains) {
        List<OnReading> of = Condition.readings(b.button.states().get(state).when());
        return Arrays.stream(chains).anyMatch(c -> c != null && (of.isEmpty() || of.stream().anyMatch(r -> c.mayChange(r
                .gear(), r.reading()))));
    }
}
