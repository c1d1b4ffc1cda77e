package rombix.running.input;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Control;
import rombix.core.board.Trigger;
import rombix.core.computer.Input;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.thread.Idle;
import rombix.core.touch.Feedback;
import rombix.core.touch.Switchboard;
import rombix.core.touch.Touch;
import rombix.core.value.Value;
import rombix.links.desktop.GlobalKeys;
import rombix.links.gamepad.Gamepads;
import rombix.links.midi.Controllers;
import rombix.links.osc.OscIn;
import rombix.running.owner.Senders;
import rombix.running.state.DeckState;
import rombix.running.state.Seen;

/**
 * Triggers from outside: keys, controllers and OSC. The loaded board decides which inputs are open; they press while the deck is armed. Safe to use from any thread.
 */
public final class TriggerInputs implements Touches, AutoCloseable {
    /** Among the addresses of gear: the port at which OSC messages are awaited that pull triggers. */
    public static final String OSC = "osc triggers";

    private final Switchboard switchboard;
    private final Feedback feedback;
    private final Controllers controllers;
    private final Gamepads gamepads;
    private final GlobalKeys keys;
    private final OscIn osc;
    private final @Nullable Integer port;
    private final Executor hand;
    /** Opening ports and hooks may take a while: it is done in order, off the conductor's thread. */
    private final ExecutorService opener = Idle.executor("inputs");
    private volatile Board board = Board.empty("");
    private volatile DeckState deck = DeckState.NOTHING;
    private volatile boolean learning;
    private volatile boolean deaf;
    private volatile Summons summons = new Summons(null, () -> {
    });

    /** What controllers show of the deck. */
    private final class Shown implements Feedback.Deck {
        @Override
        public int state(String button) {
            return deck.play(button).state();
        }

        @Override
        public @Nullable Double level(Control.Axis axis) {
            return deck.reading(axis.gear(), axis.reading()) instanceof Value.Num n ? n.number() : null;
        }
    }

    /** A key that works Rombix itself. */
    private record Summons(@Nullable Trigger key, Runnable pressed) {
    }

    /**
     * @param deck where presses are posted
     * @param port where OSC is awaited in place of where the board says; any free one when 0
     * @param touched told of the button that a control would press, while none is pressed
     * @param hand where all are told that learn, record or are summoned: the interface's thread
     */
    public TriggerInputs(Consumer<Event> deck, Consumer<String> touched, @Nullable Integer port, Executor hand) {
        this.port = port;
        this.hand = hand;
        switchboard = new Switchboard(deck, b -> hand.execute(() -> touched.accept(b)));
        Feedback[] made = new Feedback[1];
        controllers = new Controllers(this::touched, name -> made[0].arrived(name));
        feedback = new Feedback(controllers::send, System::nanoTime, new Shown());
        made[0] = feedback;
        gamepads = new Gamepads(switchboard::take);
        keys = new GlobalKeys(this::key);
        osc = new OscIn(switchboard::take, new Senders()::all);
    }

    private void key(Touch touch) {
        Summons own = summons;
        if (!learning && touch instanceof Touch.Key k && new Trigger.Key(k.key()).normal().equals(own.key)) {
            if (k.down()) {
                hand.execute(own.pressed);
            }
            return;
        }
        switchboard.take(touch);
    }

    private void touched(Touch touch) {
        if (touch instanceof Touch.Midi m) {
            feedback.touched(m);
        }
        switchboard.take(touch);
    }

    /** A message came by gear of the board, at a topic that one of its triggers names. */
    public void called(Touch.Mqtt call) {
        switchboard.take(call);
    }

    /** Something happened on the deck. */
    public void accept(Happening happening) {
        switch (happening) {
            case Happening.Loaded l -> {
                board = l.rig().board();
                switchboard.load(l.rig());
                feedback.load(l.rig());
                opener.execute(this::open);
            }
            case Happening.Armed a -> switchboard.arm(a.on());
            default -> {
                // Only lamps may show it.
            }
        }
    }

    /** The deck has changed: so do the lamps and motors of controllers. One call at a time. */
    public void see(Seen seen) {
        deck = seen.state();
        if (seen.whole()) {
            feedback.changed();
            return;
        }
        Set<String> buttons = new HashSet<>();
        Set<Control.Axis> axes = new HashSet<>();
        for (Happening h : seen.since()) {
            if (h instanceof Happening.Shows s) {
                buttons.add(s.button());
            } else if (h instanceof Happening.Came c) {
                axes.add(new Control.Axis(c.gear(), c.reading()));
            }
        }
        feedback.changed(buttons, axes);
    }

    private void open() {
        Board heard = deaf ? Board.empty("") : board;
        List<String> ports = Switchboard.ports(heard);
        controllers.use(ports, learning);
        gamepads.use(Switchboard.gamepads(heard), learning);
        keys.listen(learning || summons.key != null
                || Switchboard.any(heard, t -> t instanceof Trigger.Key k && k.everywhere()));
        osc.listen(learning || Switchboard.any(heard, Trigger.Osc.class::isInstance)
                ? port == null ? board.listensAt() : port
                : -1);
    }

    @Override
    public Sources sources() {
        return new Sources(controllers.open(), controllers.connected(), gamepads.connected(), keys.listening(),
                keys.trouble(),
                osc.port(), osc
                        .trouble(),
                osc.senders(), switchboard.armed(), switchboard.dropped());
    }

    @Override
    public boolean keysSeen() {
        return keys.listening();
    }

    @Override
    public void learn(@Nullable Consumer<Touch> learner) {
        learning = learner != null;
        switchboard.learn(learner == null ? null : t -> hand.execute(() -> learner.accept(t)));
        opener.execute(this::open);
    }

    @Override
    public void record(@Nullable Consumer<Input> to) {
        opener.execute(() -> keys.record(to == null ? null : i -> hand.execute(() -> to.accept(i))));
    }

    @Override
    public void summon(String key, Runnable pressed) {
        summons = new Summons(key.isEmpty() ? null : new Trigger.Key(key).normal(), pressed);
        opener.execute(this::open);
    }

    /** Whether nothing outside is listened to, whatever it says, for the boards that are loaded from now on. */
    public void deaf(boolean on) {
        deaf = on;
    }

    @Override
    public void close() {
        opener.shutdownNow();
        controllers.close();
        gamepads.close();
        keys.close();
        osc.close();
    }
}
