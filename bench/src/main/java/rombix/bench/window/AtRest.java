package rombix.bench.window;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import javafx.animation.AnimationTimer;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.scene.shape.Rectangle;
import javafx.stage.Stage;
import rombix.app.show.Session;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.standins.midi.CableProvider;

/**
 * A process with one window: an empty one, or the demo board in Build or in Live with its gear in another process, at
 * rest or with one chain running. Prints the CPU time it took in so many seconds, its resident memory in MB, and its
 * threads. The toolkit's log of pulses is between two marks on the error output.
 */
final class AtRest {
    static final String BEGIN = "=== measured from here";
    static final String END = "=== measured to here";
    /** A button of the demo whose chain runs longer than what is measured. */
    private static final String LONG = "lights-out";
    /** The port of the desk's cable among the addresses. */
    static final String CABLE = "cable";
    /** A show goes on for hours: until then the compilers are still at work, while pulses can be counted sooner. */
    private static final int SETTLE_SECONDS = System.getProperty("javafx.pulseLogger") == null ? 60 : 12;

    private static final int LARGE = 3168;
    private static final int PRESSES = 3600;
    private static final long PAUSE_NANOS = 40_000_000;

    private AtRest() {
    }

    /** @param args what is shown ({@code empty, build, live, running, bar, large, worked}), for how many seconds, whether offscreen, and where the gear is */
    public static void main(String[] args) throws Exception {
        boolean offscreen = Boolean.parseBoolean(args[2]);
        int seconds = Integer.parseInt(args[1]);
        Session.startToolkit(offscreen);
        if (args[0].equals("empty") || args[0].equals("bar")) {
            Session.onInterface(() -> bare(args[0].equals("bar")));
            measure(seconds);
            System.exit(0);
        }
        Path folder = Files.createTempDirectory("at-rest");
        Path board = Files.copy(Path.of("demo/star-night.json"), folder.resolve("b.json"));
        if (args[0].equals("large")) {
            large(board);
        }
        Map<String, String> addresses = new HashMap<>(Map.of(TriggerInputs.OSC, "0"));
        for (int i = 3; i < args.length; i++) { // GEAR=ADDRESS; the cable to the desk by the port that it leads to.
            String[] of = args[i].split("=", 2);
            addresses.put(of[0], of[1]);
        }
        CableProvider.plug(CableProvider.SOUND_DESK, new InetSocketAddress(InetAddress.getLoopbackAddress(), Integer
                .parseInt(addresses.remove(CABLE))));
        Session session = Session.open(board, addresses, LogStore.beside(board), s -> {
            s.setWidth(1280);
            s.setHeight(800);
        });
        Session.onInterface(() -> {
            session.window().bench().mode(args[0].equals("build") ? Mode.BUILD : Mode.LIVE);
            return true;
        });
        if (args[0].equals("running")) {
            LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(SETTLE_SECONDS / 2));
            session.deck().port("bench").perform(LONG, Gesture.PRESS, -1);
        }
        measure(seconds);
        if (args[0].equals("worked")) {
            work(session);
            measure(seconds);
        }
        System.exit(0);
    }

    /** As many presses as in a busy hour. */
    private static void work(Session session) {
        List<String> all = session.window().bench().board().buttons().map(b -> b.id()).toList();
        Random random = new Random(1);
        for (int i = 0; i < PRESSES; i++) {
            session.deck().port("bench").perform(all.get(random.nextInt(all.size())), Gesture.PRESS, -1);
            LockSupport.parkNanos(PAUSE_NANOS);
        }
        session.deck().port("bench").stopAll();
    }

    /** The demo board, its pages repeated until there are 3,168 buttons. */
    private static void large(Path board) throws Exception {
        Rig rig = BoardFile.read(board);
        List<Page> pages = new ArrayList<>(rig.board().pages());
        long buttons = rig.board().buttons().count();
        for (int copy = 1; buttons < LARGE; copy++) {
            for (Page page : rig.board().pages()) {
                String suffix = "-" + copy;
                pages.add(page.withId(page.id() + suffix).withButtons(page.buttons().stream().map(b -> b.withId(b.id()
                        + suffix).withTriggers(List.of())).toList()));
                buttons += page.buttons().size();
            }
        }
        BoardFile.save(board, rig.board().withPages(pages));
    }

    private static Stage bare(boolean bar) {
        Stage stage = new Stage();
        StackPane root = new StackPane(new Label("empty"));
        if (bar) {
            Rectangle moving = new Rectangle(0, 4);
            moving.setManaged(false);
            root.getChildren().add(moving);
            new AnimationTimer() {
                @Override
                public void handle(long now) {
                    moving.setWidth(now / 1e7 % 150);
                }
            }.start();
        }
        stage.setScene(new Scene(root, 1280, 800));
        stage.show();
        return stage;
    }

    private static void measure(int seconds) {
        LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(SETTLE_SECONDS));
        System.err.println(BEGIN);
        long before = cpuNanos();
        LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(seconds));
        long taken = cpuNanos() - before;
        System.err.println(END);
        Set<String> threads = new TreeSet<>(Thread.getAllStackTraces().keySet().stream().map(Thread::getName).toList());
        System.out.printf(Locale.ROOT, "cpu %.3f%nrss %.1f%nthreads %d%n%s%n", taken / 1e6, status("VmRSS") / 1024.0,
                status("Threads"), threads);
        System.out.flush();
    }

    /** A number from the kernel's status of this process; 0 where there is none. */
    private static long status(String field) {
        try (Stream<String> lines = Files.lines(Path.of("/proc/self/status"))) {
            return lines.filter(l -> l.startsWith(field + ":")).mapToLong(l -> Long.parseLong(l.replaceAll("\\D",
                    ""))).findFirst().orElse(0);
        } catch (IOException e) {
            return 0;
        }
    }

    private static long cpuNanos() {
        return ((com.sun.management.OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean())
                .getProcessCpuTime();
    }
}
