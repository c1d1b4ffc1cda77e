package rombix.core.engine;

import java.time.Duration;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Page;
import rombix.core.board.Question;
import rombix.core.board.Schedule;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.When.What;
import rombix.core.chain.Condition;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.twin.Twin;
import rombix.core.value.Formula;
import rombix.core.value.Value;

/**
 * The triggers that the deck itself watches: clocks, readings that become so, and what happens to the board and its
 * gear. Owned by the conductor's thread. They press while the deck is armed, in Live and in Rehearse; only that the
 * board is opened counts in every mode.
 *
 * <p>
 * A clock is looked at again at least every {@value #LOOK_SECONDS} seconds, so one that is set, or a machine that was
 * asleep, is noticed by then. A time that passed unseen is missed: it presses late only where its trigger says so. A
 * clock that is set back does not press again what it pressed already.
 */
@OwnedBy(Owner.CONDUCTOR)
public final class BoardTriggers {
    private static final int LOOK_SECONDS = 20;
    private static final Duration MISSED = Duration.ofSeconds(LOOK_SECONDS + 10L);

    /** A trigger that its own chain makes so again within this time is not heeded. */
    private static final long SELF_NANOS = 10_000_000L;

    private final Deck deck;
    private final Set<String> away = new HashSet<>();
    private final Map<String, List<Becoming>> becoming = new HashMap<>();
    private final Map<String, List<Following>> following = new HashMap<>();
    private final List<Happens> happens = new ArrayList<>();
    private Map<String, Timed> timed = new LinkedHashMap<>();
    private Agenda.@Nullable Entry look;
    private boolean armed;

    private static final class Becoming {
        private final String button;
        private final Question question;
        /** The readings whose arrival counts each time, though it was so before; where there are any, no other does. */
        private final Set<String> each;
        private @Nullable Boolean was;
        private long pressedNanos;
        private boolean pressed;

        Becoming(String button, Question question, Set<String> each) {
            this.button = button;
            this.question = question;
            this.each = each;
        }
    }

    /** A page and what it follows. */
    private static final class Following {
        private final String page;
        private final Question question;
        private boolean so;

        Following(String page, Question question) {
            this.page = page;
            this.question = question;
        }
    }

    private record Happens(String button, Trigger.When when) {
    }

    private static final class Timed {
        private final String button;
        private final Trigger.Clock clock;
        /** The last time that pressed or was missed; a clock that is set back does not come to it again. */
        private ZonedDateTime last;

        Timed(String button, Trigger.Clock clock, ZonedDateTime now) {
            this.button = button;
            this.clock = clock;
            this.last = now;
        }
    }

    BoardTriggers(Deck deck) {
        this.deck = deck;
    }

    void load(Iterable<ButtonPlay> buttons) {
        becoming.clear();
        happens.clear();
        follow();
        Map<String, Timed> before = timed;
        timed = new LinkedHashMap<>();
        for (ButtonPlay b : buttons) {
            Button button = b.button;
            for (Trigger t : button.triggers()) {
                switch (t) {
                    case Trigger.Becomes r -> becoming(button, r);
                    case Trigger.When w -> happens.add(new Happens(button.id(), w));
                    case Trigger.Clock c -> {
                        Timed old = before.get(button.id() + c.at().text());
                        Timed made = new Timed(button.id(), c, old == null ? deck.clock.wall() : old.last);
                        timed.put(button.id() + c.at().text(), made);
                    }
                    case Trigger.Key _,Trigger.Midi _,Trigger.Gamepad _,Trigger.Osc _,MessageTrigger.Http _,MessageTrigger.Mqtt _ -> {
                        // These come from outside.
                    }
                }
            }
        }
        next();
    }

    private void follow() {
        following.clear();
        for (Page p : deck.board().pages()) {
            Condition test = p.follows();
            if (test != null) {
                Question.of(test).ifPresent(q -> {
                    Following made = new Following(p.id(), q);
                    made.so = armed && holds(made);
                    q.names().forEach(n -> following.computeIfAbsent(n, _ -> new ArrayList<>()).add(made));
                });
            }
        }
    }

    private boolean holds(Following f) {
        return deck.situation.now(f.question, Scope.of(""));
    }

    /** A reading, {@code gear:reading}, or a value has changed. */
    void changed(String name) {
        for (Following f : armed ? following.getOrDefault(name, List.of()) : List.<Following>of()) {
            boolean now = holds(f);
            if (now != f.so) {
                f.so = now;
                deck.telling.tell(new Happening.PageFollows(f.page, now));
            }
        }
    }

    private void becoming(Button button, Trigger.Becomes trigger) {
        Set<String> each = new HashSet<>();
        for (Condition.OnReading r : Condition.readings(trigger.condition())) {
            Twin twin = deck.situation.twin(r.gear());
            if (trigger.each() || twin != null && twin.moment(r.reading())) {
                each.add(r.name());
            }
        }
        Question.of(trigger.condition()).ifPresent(q -> {
            Becoming made = new Becoming(button.id(), q, each);
            made.was = known(made);
            q.names().forEach(n -> becoming.computeIfAbsent(n, _ -> new ArrayList<>()).add(made));
        });
    }

    private @Nullable Boolean known(Becoming b) {
        return deck.situation.known(b.question, Scope.of(b.button));
    }

    /** Whether each arrival of a reading counts, though it says what it said before. */
    boolean each(String name) {
        return armed && becoming.getOrDefault(name, List.of()).stream().anyMatch(b -> b.each.contains(name));
    }

    void arm(boolean on) {
        if (on && !armed) {
            timed.values().forEach(t -> t.last = latest(t.last, deck.clock.wall()));
        }
        armed = on;
        following.values().stream().flatMap(List::stream).distinct().forEach(f -> {
            f.so = on && holds(f);
            if (f.so) {
                deck.telling.tell(new Happening.PageFollows(f.page, true));
            }
        });
        next();
    }

    private static ZonedDateTime latest(ZonedDateTime a, ZonedDateTime b) {
        return a.isAfter(b) ? a : b;
    }

    /** Presses when what is being taken is done with. */
    private void press(String button, String source, long at) {
        press(button, source, Map.of(), at);
    }

    private void press(String button, String source, Map<String, Value> said, long at) {
        deck.take(new Event.Perform(button, Gesture.PRESS, source, -1, said), at);
    }

    /**
     * A reading ({@code gear:reading}) or a value has changed.
     *
     * @param moment whether it tells that something happens: then it counts each time, whatever was before
     */
    void changed(String name, Value value, long at, boolean moment) {
        for (Becoming b : becoming.getOrDefault(name, List.of())) {
            boolean each = moment || b.each.contains(name);
            Boolean now = known(b);
            boolean became = Boolean.TRUE.equals(now) && (each || b.each.isEmpty() && Boolean.FALSE.equals(b.was));
            b.was = now;
            if (became && armed && !each && b.pressed && at - b.pressedNanos < SELF_NANOS) {
                deck.troubled(b.button, "not pressed again, as it makes its own trigger true");
            } else if (became && armed) {
                b.pressed = true;
                b.pressedNanos = at;
                press(b.button, name.equals(Formula.CLOCK)
                        ? "clock"
                        : "%s %s is %s".formatted(name.indexOf(':') < 0 ? "value" : "reading", name, value),
                        textNames(b, name, value), at);
            }
        }
    }

    private static Map<String, Value> textNames(Becoming b, String name, Value value) {
        return Condition.readings(b.question.condition()).stream().filter(r -> r.name().equals(name)).findFirst()
                .map(r -> r.that().parts(value)).orElse(Map.of());
    }

    void linked(String gear, Status.Phase before, Status.Phase now, long at) {
        if (now == Status.Phase.READY) {
            if (away.remove(gear)) {
                happened(What.GEAR_BACK, gear, at);
            }
        } else if (before == Status.Phase.READY) {
            away.add(gear);
            happened(What.GEAR_LOST, gear, at);
        } else if (now == Status.Phase.OFF) {
            away.add(gear);
        }
    }

    void happened(What what, @Nullable String gear, long at) {
        for (Happens h : happens) {
            if (h.when.what() == what && (h.when.gear() == null || h.when.gear().equals(gear))
                    && (armed || what == What.BOARD_OPENED)) {
                press(h.button, gear == null ? what.words() : what.words() + ": " + gear, at);
            }
        }
    }

    /** Looks at the clock again when the next time comes, or before the clock can have gone far astray. */
    private void next() {
        if (look != null) {
            look.cancel();
            look = null;
        }
        boolean ticks = following.containsKey(Formula.CLOCK) || becoming.containsKey(Formula.CLOCK);
        if (!armed || timed.isEmpty() && !ticks) {
            return;
        }
        ZonedDateTime now = deck.clock.wall();
        long wait = Duration.ofSeconds(ticks ? 1 : LOOK_SECONDS).toNanos();
        for (Timed t : timed.values()) {
            ZonedDateTime due = t.clock.at().after(t.last).orElse(null);
            if (due != null) {
                Duration until = Duration.between(now, due);
                wait = until.compareTo(Duration.ofSeconds(LOOK_SECONDS)) > 0
                        ? wait
                        : Math.min(wait, Math.max(0, until
                                .toNanos()));
            }
        }
        look = deck.agenda.at(deck.clock.nanos() + wait, this::look);
    }

    private void look(long due) {
        changed(Formula.CLOCK);
        changed(Formula.CLOCK, Formula.clock(deck.clock.wall()), due, false);
        ZonedDateTime now = deck.clock.wall();
        for (Timed t : List.copyOf(timed.values())) {
            if (t.clock.at() instanceof Schedule.Every && now.isBefore(t.last.minusSeconds(LOOK_SECONDS))) {
                t.last = now; // The clock was set back: what comes at intervals goes on coming.
            }
            ZonedDateTime time = t.clock.at().after(t.last).filter(x -> !x.isAfter(now)).orElse(null);
            if (time == null) {
                continue;
            }
            // However many were missed meanwhile, it presses once.
            ZonedDateTime latest = time;
            for (ZonedDateTime x = time; x != null && !x.isAfter(now); x = t.clock.at().after(x).orElse(null)) {
                latest = x;
            }
            t.last = latest(latest, t.last);
            boolean missed = Duration.between(latest, now).compareTo(MISSED) > 0;
            if (!missed || t.clock.late()) {
                press(t.button, (missed ? "clock, late, " : "clock, ") + t.clock.at().words(), due);
            } else {
                deck.troubled(t.button, t.clock.at().words()
                        + ": missed, as the computer was asleep or its clock was changed");
            }
        }
        next();
    }
}
