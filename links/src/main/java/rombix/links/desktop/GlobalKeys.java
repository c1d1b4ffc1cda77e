package rombix.links.desktop;

import com.github.kwhat.jnativehook.GlobalScreen;
import com.github.kwhat.jnativehook.NativeHookException;
import com.github.kwhat.jnativehook.keyboard.NativeKeyEvent;
import com.github.kwhat.jnativehook.keyboard.NativeKeyListener;
import java.lang.reflect.Field;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.AbstractExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Input;
import rombix.core.computer.Keys;
import rombix.core.touch.Touch;
import rombix.links.desktop.machine.SentKeys;

/**
 * Keys seen whatever application is in front: it listens and takes nothing away, so a key that another program has too
 * does both. Named as boards name them. Where there is nothing to listen to, it says so and the rest goes on.
 */
public final class GlobalKeys implements AutoCloseable {
    private static final Map<String, String> NAMES = Map.ofEntries(Map.entry("ESCAPE", "Esc"), Map.entry("PRINTSCREEN",
            "Print Screen"), Map.entry("MEDIA_PLAY", "Play"), Map.entry("MEDIA_STOP", "Stop"),
            Map.entry(
                    "MEDIA_NEXT", "Track Next"),
            Map.entry("MEDIA_PREVIOUS", "Track Prev"), Map.entry("VOLUME_MUTE",
                    "Mute"),
            Map.entry("BACKQUOTE", "Back Quote"));
    /** Media keys that the hook's own table lacks under X, by the lower half of their key symbols (XF86keysym.h). */
    private static final Map<Integer, String> MEDIA = Map.of(0xFF12, "Mute", 0xFF14, "Play", 0xFF15, "Stop", 0xFF16,
            "Track Prev", 0xFF17, "Track Next", 0xFF31, "Pause");
    private static final Set<String> MODIFIERS = Set.of("CONTROL", "SHIFT", "ALT", "META", "CONTROL_L", "CONTROL_R",
            "SHIFT_L", "SHIFT_R", "ALT_L", "ALT_R", "META_L", "META_R");
    private static final Map<Integer, String> CODES = codes();

    private final Consumer<Touch> touched;
    private final Listener listener = new Listener();
    private final MouseKeys mouse = new MouseKeys(this::mouse);
    /** The name with which each button of the mouse went down. */
    private final Map<String, String> mouseDown = new HashMap<>();
    /** The name with which each key went down: its modifiers may be let go before it. */
    private final Map<Integer, String> down = new HashMap<>();
    private boolean listening;
    private boolean wanted;
    private @Nullable Recorder recorder;
    private String trouble = "";

    /** @param touched told of each key, on the hook's thread; must not block */
    public GlobalKeys(Consumer<Touch> touched) {
        this.touched = touched;
    }

    private static Map<Integer, String> codes() {
        Map<Integer, String> codes = new HashMap<>();
        for (Field f : NativeKeyEvent.class.getFields()) {
            if (f.getName().startsWith("VC_")) {
                try {
                    codes.putIfAbsent(f.getInt(null), f.getName().substring(3));
                } catch (IllegalAccessException e) {
                    throw new IllegalStateException(e);
                }
            }
        }
        return codes;
    }

    /** Begins to listen, or ends it. What was held as it ends is let go. */
    public synchronized void listen(boolean on) {
        wanted = on;
        hook();
    }

    /** Hands all that hands do at this computer to another, on the hook's thread; null ends that. */
    public synchronized void record(@Nullable Consumer<Input> to) {
        Recorder before = recorder;
        if (before != null) {
            before.close();
            recorder = null;
        }
        if (to != null) {
            recorder = new Recorder(to, GlobalKeys::plain);
        }
        hook();
    }

    private void hook() {
        boolean on = wanted || recorder != null;
        if (on && !listening) {
            begin();
        } else if (!on && listening) {
            end();
        }
        if (recorder != null && listening) {
            recorder.open();
        }
    }

    private void begin() {
        Optional<String> missing = missing();
        if (missing.isPresent()) {
            trouble = missing.get();
            return;
        }
        try {
            Logger.getLogger(GlobalScreen.class.getPackage().getName()).setLevel(Level.OFF);
            GlobalScreen.setEventDispatcher(new OnItsThread());
            GlobalScreen.registerNativeHook();
            GlobalScreen.addNativeKeyListener(listener);
            mouse.open();
            listening = true;
            trouble = "";
        } catch (NativeHookException | UnsatisfiedLinkError | RuntimeException e) {
            trouble = "this desktop doesn't let Rombix receive keys: " + e.getMessage();
        }
    }

    private void end() {
        GlobalScreen.removeNativeKeyListener(listener);
        mouse.close();
        try {
            GlobalScreen.unregisterNativeHook();
        } catch (NativeHookException e) {
            // It is of no use any more either way.
        }
        listening = false;
        down.clear();
        mouseDown.clear();
        touched.accept(new Touch.Gone(""));
    }

    private static Optional<String> missing() {
        boolean linux = System.getProperty("os.name", "").toLowerCase(Locale.ROOT).contains("linux");
        if (linux && System.getenv("DISPLAY") == null) {
            return Optional.of(System.getenv("WAYLAND_DISPLAY") == null
                    ? "there is no desktop here (no X server)"
                    : "this desktop has no X server and doesn't pass on the keys of other programs");
        }
        return Optional.empty();
    }

    /** Whether keys are seen. */
    public synchronized boolean listening() {
        return listening;
    }

    /** Why keys cannot be seen, in words; empty where nothing is wrong. */
    public synchronized String trouble() {
        return trouble;
    }

    /** A key as boards name it, by its code in the hook and the system's own; empty for modifiers and what has no name. */
    static Optional<String> name(int code, int raw, int location, int modifiers) {
        String constant = CODES.getOrDefault(code, "UNDEFINED");
        String media = constant.equals("UNDEFINED") ? MEDIA.get(raw) : null;
        if (MODIFIERS.contains(constant) || media == null && constant.equals("UNDEFINED")) {
            return Optional.empty();
        }
        return Optional.of(with(modifiers, (location == NativeKeyEvent.KEY_LOCATION_NUMPAD ? "Numpad " : "")
                + (media != null ? media : NAMES.getOrDefault(constant, words(constant)))));
    }

    /** A key with its modifiers before it. */
    private static String with(int modifiers, String key) {
        List<String> parts = new ArrayList<>();
        if ((modifiers & NativeKeyEvent.CTRL_MASK) != 0) {
            parts.add("Ctrl");
        }
        if ((modifiers & NativeKeyEvent.ALT_MASK) != 0) {
            parts.add("Alt");
        }
        if ((modifiers & NativeKeyEvent.SHIFT_MASK) != 0) {
            parts.add("Shift");
        }
        if ((modifiers & NativeKeyEvent.META_MASK) != 0) {
            parts.add("Meta");
        }
        parts.add(key);
        return String.join("+", parts);
    }

    /** A button of the mouse, or its wheel tilted. */
    private void mouse(String name, int modifiers, boolean on) {
        if (SentKeys.consume(name, on)) {
            return; // What Rombix sends itself presses none of its triggers.
        }
        String whole = on ? with(modifiers, name) : mouseDown.remove(name);
        if (on) {
            mouseDown.put(name, whole);
        }
        if (whole != null) {
            touched.accept(new Touch.Key(whole, on));
        }
    }

    /** A key by its plain name, modifiers each by their side; empty where it has none. */
    static Optional<String> plain(NativeKeyEvent e) {
        String constant = CODES.getOrDefault(e.getKeyCode(), "UNDEFINED");
        if (MODIFIERS.contains(constant)) {
            String name = constant.startsWith("CONTROL") ? "Ctrl" : words(constant.replaceAll("_[LR]$", ""));
            return Keys.key((e.getKeyLocation() == NativeKeyEvent.KEY_LOCATION_RIGHT || constant.endsWith("_R")
                    ? "Right "
                    : "") + name);
        }
        if (constant.equals("PAUSE")) {
            return Keys.key("Pause Break");
        }
        return name(e.getKeyCode(), e.getRawCode(), e.getKeyLocation(), 0).flatMap(Keys::key);
    }

    private static String words(String constant) {
        StringBuilder words = new StringBuilder();
        for (String word : constant.split("_")) {
            words.append(words.isEmpty() ? "" : " ").append(word.charAt(0)).append(word.substring(1).toLowerCase(
                    Locale.ROOT));
        }
        return words.toString();
    }

    @Override
    public void close() {
        record(null);
        listen(false);
    }

    private final class Listener implements NativeKeyListener {
        private final Set<Integer> held = new HashSet<>();

        /** A key without its modifiers. */
        private static String bare(String name) {
            return name.substring(name.lastIndexOf('+') + 1);
        }

        private static int key(NativeKeyEvent e) {
            return e.getKeyCode() == NativeKeyEvent.VC_UNDEFINED ? -e.getRawCode() : e.getKeyCode();
        }

        @Override
        public void nativeKeyPressed(NativeKeyEvent e) {
            name(e.getKeyCode(), e.getRawCode(), e.getKeyLocation(), e.getModifiers()).ifPresent(name -> {
                int key = key(e);
                if (SentKeys.consume(bare(name), true)) {
                    return; // What Rombix sends itself presses none of its triggers.
                }
                if (held.add(key)) {
                    down.put(key, name);
                    touched.accept(new Touch.Key(name, true));
                }
            });
        }

        @Override
        public void nativeKeyReleased(NativeKeyEvent e) {
            name(e.getKeyCode(), e.getRawCode(), e.getKeyLocation(), 0)
                    .ifPresent(name -> SentKeys.consume(name, false));
            held.remove(key(e));
            String name = down.remove(key(e));
            if (name != null) {
                touched.accept(new Touch.Key(name, false));
            }
        }
    }

    /** Hands events over on the thread that they come on. The hook may shut it down and go on all the same. */
    private static final class OnItsThread extends AbstractExecutorService {
        private volatile boolean closed;

        @Override
        public void execute(Runnable command) {
            command.run();
        }

        @Override
        public void shutdown() {
            closed = true;
        }

        @Override
        public List<Runnable> shutdownNow() {
            closed = true;
            return List.of();
        }

        @Override
        public boolean isShutdown() {
            return closed;
        }

        @Override
        public boolean isTerminated() {
            return closed;
        }

        @Override
        public boolean awaitTermination(long timeout, TimeUnit unit) {
            return true;
        }
    }
}
