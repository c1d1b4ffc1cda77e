package rombix.links.desktop;

import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Keys;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Machine.Window;
import rombix.links.desktop.machine.Stopped;
import rombix.links.desktop.machine.Unable;
import rombix.links.link.Keyring;

/**
 * Hands at a computer: keys and pointer with their pace, what they hold, and modifiers that let go by themselves. One
 * thread's, but for {@link #stop}.
 */
@OwnedBy(Owner.LINK)
public final class InputDriver implements PointerDriver.Grip {
    private static final long TAP_MILLIS = 10;
    private static final long FRAME_MILLIS = 10;
    private static final long FRONT_MILLIS = 1500;

    /** A modifier that stays down until something happens. */
    private record Sticky(boolean next, long untilNanos, boolean touched) {
    }

    private final Machine machine;
    private final HeldFile file;
    private final Keyring keyring;
    private final Eyes eyes;
    private final Aim aim;
    private final PointerDriver pointer;
    /** What we hold down: keys, and buttons of the pointer as {@code button left}. */
    private final Set<String> held = new LinkedHashSet<>();
    private final Map<String, Sticky> sticky = new LinkedHashMap<>();
    private boolean stopped;

    /**
     * @param kept where what is held is kept, for the case that this process is killed
     * @param eyes find places and windows
     * @param keyring where the texts are that no board may hold
     */
    InputDriver(Machine machine, Eyes eyes, @Nullable Path kept, Keyring keyring) {
        this.machine = machine;
        this.eyes = eyes;
        this.aim = new Aim(machine, eyes);
        this.pointer = new PointerDriver(machine, this, aim);
        this.keyring = keyring;
        this.file = new HeldFile(kept);
        file.found().reversed().forEach(this::up);
    }

    Eyes eyes() {
        return eyes;
    }

    PointerDriver pointer() {
        return pointer;
    }

    /** Whether we hold a key, or a button of the pointer as {@code button left}. */
    @Override
    public boolean holds(String what) {
        return held.contains(what);
    }

    @Override
    public boolean holdsButton() {
        return held.stream().anyMatch(h -> h.startsWith("button "));
    }

    /** Whether what is being done was ended. From any thread. */
    synchronized boolean stopped() {
        return stopped;
    }

    /** Ends what is being done. From any thread. */
    synchronized void stop() {
        stopped = true;
        notifyAll();
    }

    /** What is asked for from now on is not stopped. */
    synchronized void begin() {
        stopped = false;
    }

    /** Waits, unless it is stopped. */
    @Override
    public synchronized void pause(long millis) throws Stopped {
        long until = System.nanoTime() + millis * 1_000_000L;
        try {
            for (long left = millis; left > 0 && !stopped; left = (until - System.nanoTime() + 999_999L) / 1_000_000L) {
                wait(left);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Stopped();
        }
        if (stopped) {
            throw new Stopped();
        }
    }

    @Override
    public void down(String what) throws Unable {
        held.add(what);
        file.keep(held); // Before it is so: whoever is killed now is followed by one who lets go.
        if (what.startsWith("button ")) {
            machine.button(what.substring("button ".length()), true);
        } else {
            machine.key(what, true);
        }
    }

    @Override
    public void up(String what) {
        try {
            if (what.startsWith("button ")) {
                machine.button(what.substring("button ".length()), false);
            } else {
                machine.key(what, false);
            }
        } catch (Unable e) {
            // It is down no more either way.
        }
        held.remove(what);
        sticky.remove(what);
        file.keep(held);
    }

    /** Lets go of all that we hold. */
    void letGo() {
        new ArrayList<>(held).reversed().forEach(this::up);
    }

    /** Lets modifiers up that a hand of flesh still holds, such as those of the shortcut that pressed the button. */
    private void clear() throws Unable {
        for (String modifier : machine.down()) {
            if (!held.contains(modifier)) {
                machine.key(modifier, false);
            }
        }
    }

    private void keys(Machine.Deed deed) throws Unable, Stopped {
        pause(machine.keysReadyIn());
        aim.keys(deed);
    }

    void press(List<String> chord, int times, long pace) throws Unable, Stopped {
        aim.keyboard();
        clear();
        for (int i = 0; i < times; i++) {
            if (i > 0) {
                pause(pace);
            }
            Deque<String> own = new ArrayDeque<>();
            try {
                for (String key : chord) {
                    if (!held.contains(key)) {
                        keys(() -> {
                            own.push(key);
                            down(key);
                        });
                    }
                }
                pause(TAP_MILLIS);
            } finally {
                own.forEach(this::up);
            }
        }
        done();
    }

    /** Holds keys down. Modifiers alone may be held in front of Rombix, too: they do nothing by themselves. */
    void hold(List<String> chord) throws Unable, Stopped {
        boolean modifiers = chord.stream().allMatch(Keys::modifier);
        try {
            for (String key : chord) {
                if (!held.contains(key) && modifiers) {
                    down(key);
                } else if (!held.contains(key)) {
                    keys(() -> down(key));
                }
            }
        } catch (Unable | Stopped e) {
            release(chord);
            throw e;
        }
    }

    void release(List<String> chord) {
        chord.reversed().forEach(key -> {
            if (held.contains(key)) {
                up(key);
            }
        });
    }

    /** @param millis how long at most; 0 where no time ends it */
    void stick(String modifier, boolean next, long millis) throws Unable {
        if (!held.contains(modifier)) {
            down(modifier);
        }
        if (next || millis > 0) {
            sticky.put(modifier, new Sticky(next, millis > 0 ? System.nanoTime() + millis * 1_000_000L : Long.MAX_VALUE,
                    false));
        } else {
            sticky.remove(modifier);
        }
    }

    void type(String text, long pace) throws Unable, Stopped {
        aim.keyboard();
        clear();
        int[] all = text.replace("\r\n", "\n").codePoints().toArray();
        for (int i = 0; i < all.length; i++) {
            if (i > 0) {
                pause(pace);
            }
            int next = all[i];
            keys(() -> machine.type(next));
        }
        done();
    }

    /** Types what the owner keeps under a name, and no board may hold. */
    void secret(String name, long pace) throws Unable, Stopped {
        if (name.isEmpty()) {
            throw new Unable("no secret chosen: choose one in the step");
        }
        type(keyring.secret(name).orElseThrow(() -> new Unable(
                "the secret “%s” isn't on this computer: set it in the step".formatted(name))), pace);
    }

    /** Something was pressed, clicked or typed: what held a modifier for that alone lets go. */
    @Override
    public void done() {
        new ArrayList<>(sticky.entrySet()).forEach(s -> {
            if (s.getValue().next()) {
                up(s.getKey());
            }
        });
    }

    /** In how many milliseconds {@link #watch} is to be called; negative where it need not. */
    long watching() {
        if (sticky.isEmpty()) {
            return -1;
        }
        if (sticky.values().stream().anyMatch(Sticky::next)) {
            return FRAME_MILLIS;
        }
        long first = sticky.values().stream().mapToLong(Sticky::untilNanos).min().orElse(0);
        return Math.clamp((first - System.nanoTime()) / 1_000_000L + 1, 1, 1000);
    }

    /** Lets modifiers go whose time is over, or that waited for the next key or click, of any hand. */
    void watch() {
        boolean any = sticky.values().stream().anyMatch(Sticky::next) && machine.touched();
        new ArrayList<>(sticky.entrySet()).forEach(s -> {
            Sticky now = s.getValue();
            if (now.untilNanos() != Long.MAX_VALUE && System.nanoTime() - now.untilNanos() >= 0 || now.touched()
                    && !any) {
                up(s.getKey());
            } else if (now.next() && any) { // It goes with that one, and not before.
                sticky.put(s.getKey(), new Sticky(true, now.untilNanos(), true));
            }
        });
    }

    /** Brings a window to the front and waits until it is there. Gives back what was there before. */
    Optional<Window> bring(Window window) throws Unable, Stopped {
        Optional<Window> before = machine.front();
        if (!inFront(window) || !machine.keyboard(window)) {
            machine.bring(window);
            long began = System.nanoTime();
            while (!inFront(window) || !machine.keyboard(window)) {
                long millis = (System.nanoTime() - began) / 1_000_000L;
                if (inFront(window) && millis > FRONT_MILLIS / 2) {
                    break; // Some programs take their keys at a window that isn't the one to be seen.
                }
                if (millis > FRONT_MILLIS) {
                    throw new Unable("“" + window.title() + "” didn't come to the front");
                }
                pause(FRAME_MILLIS);
            }
        }
        return before;
    }

    private boolean inFront(Window window) {
        return machine.front().filter(w -> w.id() == window.id()).isPresent()
                && machine.ownWindow() == machine.ownWindow(window);
    }

    /** Does something in front of an application, or of whatever is in front where that is blank. */
    void before(String application, boolean back, Machine.Deed what) throws Unable, Stopped {
        if (application.isBlank()) {
            what.now();
            return;
        }
        Window window = eyes.window(application, "");
        Optional<Window> before = bring(window);
        try {
            aim.only(machine.keyboard(window) ? window : null);
            what.now();
        } finally {
            aim.only(null);
            if (back && before.isPresent() && before.get().id() != window.id()) {
                machine.bring(before.get());
            }
        }
    }

    /** The modifier with an id such as {@code right-ctrl}. */
    static String modifier(String id) throws Unable {
        return Keys.key(id.replace('-', ' ')).filter(Keys::modifier).orElseThrow(() -> new Unable("“" + id
                + "” isn't a modifier key"));
    }

    void close() {
        letGo();
        file.close();
    }
}
