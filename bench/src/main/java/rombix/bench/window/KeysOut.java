package rombix.bench.window;

import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.platform.unix.X11;
import java.io.BufferedReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.VirtualScreen;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.edit.Edits;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;

/**
 * From a press to its key seen by another client of an X server, against a thread that is handed an object and calls the
 * server's test extension; and a thousand letters typed at a pace. In a process of its own, as a display is a process's.
 */
public final class KeysOut implements Measured {
    private static final int WARM_UP = 300;
    private static final int ROUNDS = 10;
    private static final int EACH = 30;
    private static final int F9 = 75;
    /** A key that is still down when it is pressed again makes no event: each is given time to go up. */
    private static final long APART_NANOS = 30_000_000;
    private static final long PATIENCE_MILLIS = 3000;
    private static final int MOST_LOST = 5;
    private static final int LETTERS = 1000;
    private static final int PACE = 2;

    @Override
    public List<Figure> measure() throws Exception {
        Optional<VirtualScreen> server = VirtualScreen.start();
        if (server.isEmpty()) {
            return List.of();
        }
        try (VirtualScreen x = server.get()) {
            ProcessBuilder child = new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(),
                    "--enable-native-access=ALL-UNNAMED", "-cp", System.getProperty("java.class.path"), KeysOut.class
                            .getName())
                    .redirectErrorStream(true);
            child.environment().put("DISPLAY", x.display());
            List<Figure> figures = new ArrayList<>();
            Process process = child.start();
            try (BufferedReader out = process.inputReader()) {
                for (String line = out.readLine(); line != null; line = out.readLine()) {
                    String[] words = line.split(" ");
                    if (!words[0].matches("key-p\\d+|typed-\\w+")) {
                        System.err.println(line);
                        continue;
                    }
                    figures.add(
                            Figure.of(words[0], Double.parseDouble(words[1]), Double.parseDouble(words[2]), words[3],
                                    Double.parseDouble(words[4])));
                }
            }
            process.waitFor();
            return figures;
        }
    }

    private interface Focus extends Library {
        int XSetInputFocus(X11.Display display, X11.Window window, int revert, NativeLong time);

        int XInitThreads();
    }

    /** Another client: a window that hears keys. */
    private static final class Hears {
        private final AtomicLong at = new AtomicLong();
        private final AtomicInteger count = new AtomicInteger();
        private final Semaphore one = new Semaphore(0);

        Hears(Focus focus) {
            X11 x = X11.INSTANCE;
            X11.Display display = x.XOpenDisplay(null);
            X11.Window window = x.XCreateSimpleWindow(display, x.XDefaultRootWindow(display), 0, 0, 200, 100, 0, 0, 0);
            x.XSelectInput(display, window, new NativeLong(X11.KeyPressMask | X11.StructureNotifyMask));
            x.XMapWindow(display, window);
            X11.XEvent event = new X11.XEvent();
            x.XWindowEvent(display, window, new NativeLong(X11.StructureNotifyMask), event);
            LockSupport.parkNanos(200_000_000L);
            focus.XSetInputFocus(display, window, 1, new NativeLong(0));
            x.XSync(display, false);
            Thread.ofPlatform().daemon().start(() -> {
                while (true) {
                    x.XNextEvent(display, event);
                    if (event.type == X11.KeyPress) {
                        at.set(System.nanoTime());
                        count.incrementAndGet();
                        one.release();
                    }
                }
            });
        }
    }

    private static Rig rig() throws Exception {
        var gear = new rombix.core.board.Gear("pc", "PC", "desktop", new rombix.core.board.Gear.Link(Protocol.of(
                "desktop"), "here", Map.of()), Map.of(), Map.of());
        Board board = Board.empty("Keys").withGear(List.of(gear)).withPages(List.of(Page.empty("p", "P")));
        board = Edits.addButton(board, "p", button("key", 0, "press-keys", Map.of("keys", Value.of("F9"))));
        board = Edits.addButton(board, "p", button("text", 1, "type-text", Map.of("text", Value.of("x".repeat(LETTERS)),
                "pace", Value.of(PACE))));
        return Rig.of(board, CardLibrary.shipped());
    }

    private static Button button(String id, int column, String command, Map<String, Value> with) {
        return new Button(id, id, column, 0, 1, 1, Button.Busy.OVERLAP, List.of(new State("s", "s", Face.PLAIN,
                State.STAY, null, Map.of(Gesture.PRESS, Chain.of(new GearStep.Do("pc", command, with))), Map.of())),
                Map.of());
    }

    public static void main(String[] args) throws Exception {
        Focus focus = Native.load("X11", Focus.class);
        focus.XInitThreads();
        Hears hears = new Hears(focus);
        Rig rig = rig();
        Links[] links = new Links[1];
        LinkedBlockingQueue<Object> bare = new LinkedBlockingQueue<>();
        Thread.ofPlatform().daemon().start(() -> bare(bare));
        try (Conductor conductor = new Conductor(new MachineClock(), new SplittableRandom(1), post -> {
            links[0] = new Links(new MachineClock(), post);
            return links[0];
        }, _ -> {
        })) {
            conductor.post(new Event.Load(rig));
            links[0].connect(rig, Map.of());
            LockSupport.parkNanos(1_500_000_000L);
            Event press = new Event.Perform("key", Gesture.PRESS, "bench");
            for (int i = 0; i < WARM_UP; i++) {
                once(hears, "Rombix", () -> conductor.post(press));
                once(hears, "the bare client", () -> bare.add(press));
            }
            List<Long> ours = new ArrayList<>();
            List<Long> theirs = new ArrayList<>();
            for (int round = 0; round < ROUNDS; round++) {
                for (int i = 0; i < EACH; i++) {
                    ours.add(once(hears, "Rombix", () -> conductor.post(press)));
                    theirs.add(once(hears, "the bare client", () -> bare.add(press)));
                }
            }
            System.out.printf("key-p50 %.1f %.1f µs 3%n", Figure.percentile(ours, 0.5) / 1e3, Figure.percentile(theirs,
                    0.5) / 1e3);
            System.out.printf("key-p99 %.1f %.1f µs 3%n", Figure.percentile(ours, 0.99) / 1e3, Figure.percentile(theirs,
                    0.99) / 1e3);
            hears.count.set(0);
            long start = System.nanoTime();
            conductor.post(new Event.Perform("text", Gesture.PRESS, "bench"));
            while (hears.count.get() < LETTERS && System.nanoTime() - start < 20_000_000_000L) {
                LockSupport.parkNanos(1_000_000);
            }
            System.out.printf("typed-ms %.1f %d ms 2%n", (System.nanoTime() - start) / 1e6, LETTERS * PACE);
            System.out.printf("typed-letters %d %d of 1%n", hears.count.get(), LETTERS);
            links[0].close();
        }
        System.exit(0);
    }

    private static void bare(LinkedBlockingQueue<Object> handed) {
        X11.Display display = X11.INSTANCE.XOpenDisplay(null);
        NativeLong now = new NativeLong(0);
        try {
            while (true) {
                handed.take();
                X11.XTest.INSTANCE.XTestFakeKeyEvent(display, F9, true, now);
                X11.INSTANCE.XFlush(display);
                LockSupport.parkNanos(10_000_000);
                X11.XTest.INSTANCE.XTestFakeKeyEvent(display, F9, false, now);
                X11.INSTANCE.XFlush(display);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Presses a key and waits until it is seen; one that is lost is said and pressed again. */
    private static long once(Hears hears, String who, Runnable way) throws InterruptedException {
        for (int lost = 0; lost < MOST_LOST; lost++) {
            hears.one.drainPermits();
            long start = System.nanoTime();
            way.run();
            if (hears.one.tryAcquire(PATIENCE_MILLIS, TimeUnit.MILLISECONDS)) {
                long took = hears.at.get() - start;
                LockSupport.parkNanos(APART_NANOS);
                return took;
            }
            System.out.printf("A key of %s was not seen within %d ms, after %d keys.%n", who, PATIENCE_MILLIS,
                    hears.count.get());
        }
        System.out.printf("No key of %s is seen any more.%n", who);
        System.exit(1);
        throw new IllegalStateException();
    }
}
