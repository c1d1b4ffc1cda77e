package rombix.links.desktop;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Keys;
import rombix.core.event.Cause;
import rombix.core.event.Gears;
import rombix.core.event.Status.Phase;
import rombix.core.sight.Pixels;
import rombix.core.sight.Sights;
import rombix.core.thread.Bounded;
import rombix.core.trust.Grants;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.PlayingApplication;
import rombix.links.desktop.machine.Stopped;
import rombix.links.desktop.machine.Unable;
import rombix.links.link.GearReport;
import rombix.links.link.Keyring;
import rombix.links.link.Link;
import rombix.links.link.Loop;

/**
 * This computer as gear. One thread works it, order after order, as hands do; another looks four times a second at what is
 * in front; programs have threads of their own.
 */
final class DesktopLink implements Link {
    private static final long LOOK_MILLIS = 250;
    /** Where windows and screens are is looked at each fourth time: no chain waits for it. */
    private static final int SELDOM = 4;
    private static final long CLOSE_MILLIS = 1500;
    /** Behind what takes longer than that, an order is too old all the same. */
    private static final long LONGEST_WAIT_NANOS = 20_000_000_000L;

    /** Opens the computer that is worked. */
    interface Opening {
        Machine open() throws Unable;
    }

    private record Task(long ticket, Order order, long atNanos) {
    }

    private final GearReport report;
    private final Opening opening;
    private final java.nio.file.@Nullable Path kept;
    private final Keyring keyring;
    /** Applications that were seen; the watching loop's. */
    private final Set<String> seen = new TreeSet<>();
    private final Map<String, String> told = new ConcurrentHashMap<>();
    private static final int MOST_WAITING = 1000;
    private final Bounded<Task> tasks = new Bounded<>(MOST_WAITING, Bounded.Full.REFUSE);
    /** Programs that are waited for. */
    private final Set<Machine.Program> running = ConcurrentHashMap.newKeySet();
    private final CountDownLatch ended = new CountDownLatch(1);
    private final Loop watching;
    /** The second that was last told; the watching loop's. */
    private int second = -1;
    private final Loop working;
    private volatile @Nullable InputDriver hands;
    private volatile Supplier<Sights> wanted = () -> Sights.NONE;
    private volatile Grants grants = Grants.NONE;
    private @Nullable Supplier<Sights> reckoned;
    private Sights sights = Sights.NONE;
    /** When the hands had done what they did last; theirs. */
    private long freeNanos = System.nanoTime() - LONGEST_WAIT_NANOS;
    /** Not asked of the loops, which begin before this is made. */
    private volatile boolean closed;

    DesktopLink(GearReport report, Opening opening, java.nio.file.@Nullable Path kept, Keyring keyring) {
        this.report = report;
        this.opening = opening;
        this.kept = kept;
        this.keyring = keyring;
        watching = Loop.startOften("desktop", this::watch, report::troubled);
        working = Loop.startOften("hands", this::work, report::troubled);
    }

    private void watch() throws InterruptedException {
        try (Machine machine = opening.open()) {
            Eyes eyes = new Eyes(machine);
            Map<String, String> unable = machine.unable();
            List<Value> pairs = new ArrayList<>();
            unable.forEach((group, why) -> pairs.addAll(List.of(Value.of(group), Value.of(why))));
            report.landed("unable", pairs);
            String keys = unable.get("keys");
            if (keys != null) {
                report.status(Phase.READY, Cause.KEYS_NOT_PERMITTED, keys);
            } else {
                report.ready();
            }
            for (int turn = 0; !closed; turn++) {
                look(machine, turn % SELDOM == 0);
                eyes.sights(sights());
                eyes.watched().forEach((id, seen) -> tell("seen/" + id, seen.toString()));
                Thread.sleep(LOOK_MILLIS);
            }
        } catch (Unable e) {
            report.off(e);
            Thread.sleep(LOOK_MILLIS * 4);
        }
    }

    /** @param all whether it looks for all windows and screens, too */
    private void look(Machine machine, boolean all) {
        machine.ready();
        Set<String> now = new TreeSet<>(seen);
        List<Machine.Window> windows = all ? machine.windows() : List.of();
        windows.forEach(w -> now.add(w.application()));
        Optional<Machine.Window> window = machine.front();
        window.ifPresent(w -> now.add(w.application()));
        if (seen.addAll(now) || !told.containsKey("applications")) {
            told.put("applications", "");
            List<Value> pairs = new ArrayList<>();
            seen.forEach(a -> pairs.addAll(List.of(Value.of(a), Value.of(a))));
            report.landed("applications", pairs);
        }
        window.ifPresent(w -> {
            tell("front", w.application());
            tell("window", w.title());
        });
        held(machine);
        clock(LocalDateTime.now(ZoneId.systemDefault()));
        if (all) {
            places(machine, windows);
        }
        system(machine, window);
    }

    private void clock(LocalDateTime clock) {
        if (clock.getSecond() == second) {
            return;
        }
        second = clock.getSecond();
        tell("time", "%02d:%02d".formatted(clock.getHour(), clock.getMinute()));
        tell("seconds", "%02d:%02d:%02d".formatted(clock.getHour(), clock.getMinute(), clock.getSecond()));
        tell("date", clock.toLocalDate().toString());
    }

    private void system(Machine machine, Optional<Machine.Window> window) {
        new TreeMap<>(machine.system()).forEach(this::tell);
        List<PlayingApplication> sounding = machine.sounding();
        List<Value> programs = Programs.list(sounding);
        if (!programs.toString().equals(told.put("programs", programs.toString()))) {
            report.landed("programs", programs);
        }
        Programs.tell(sounding, window, this::tell);
    }

    /** Where screens and windows are, the foremost first: so that a place can be shown. */
    private void places(Machine machine, List<Machine.Window> there) {
        List<Value> windows = new ArrayList<>();
        there.forEach(w -> windows.addAll(List.of(Value.of(words(w.box()) + " " + w.application()), Value
                .of(w.title()))));
        List<Value> screens = new ArrayList<>();
        try {
            machine.screens().forEach(
                    b -> screens.addAll(List.of(Value.of(words(b)), Value.of((machine.shown() ? "screen " : "outline ")
                            + (screens.size() / 2 + 1)))));
        } catch (Unable e) {
            // Then there is none to show a place on.
        }
        if (!windows.toString().equals(told.put("windows", windows.toString()))) {
            report.landed("windows", windows);
        }
        if (!screens.toString().equals(told.put("screens", screens.toString()))) {
            report.landed("screens", screens);
        }
    }

    private static String words(Machine.Box box) {
        return "%d %d %d %d".formatted(box.x(), box.y(), box.width(), box.height());
    }

    private void held(Machine machine) {
        Set<String> down = machine.down();
        Keys.MODIFIERS.forEach(m -> tell("held/" + id(m), String.valueOf(down.contains(m))));
    }

    static String id(String modifier) {
        return modifier.toLowerCase(java.util.Locale.ROOT).replace(' ', '-');
    }

    private void tell(String reading, String now) {
        if (!now.equals(told.put(reading, now))) {
            boolean flag = now.equals("true") || now.equals("false");
            report.landed(reading, List.of(flag ? Value.of(now.equals("true")) : Value.of(now)));
        }
    }

    private void work() throws InterruptedException {
        try (Machine machine = opening.open()) {
            Eyes eyes = new Eyes(machine);
            InputDriver own = new InputDriver(machine, eyes, kept, keyring);
            hands = own;
            try {
                while (!closed) {
                    long wait = own.watching();
                    Task task = wait < 0 ? tasks.take() : tasks.poll(wait, TimeUnit.MILLISECONDS);
                    eyes.sights(sights());
                    if (task != null) {
                        work(task, machine, own);
                    } else {
                        own.watch();
                    }
                    held(machine);
                }
            } finally {
                own.close();
                if (closed) {
                    ended.countDown();
                }
            }
        } catch (Unable e) {
            Task task = tasks.poll(LOOK_MILLIS * 4, TimeUnit.MILLISECONDS);
            if (task != null) {
                report.failed(task.ticket(), String.valueOf(e.getMessage()));
            }
        }
    }

    private void work(Task task, Machine machine, InputDriver own) {
        if (task.order() == LET_GO) { // It was stopped: what was asked for before that is over.
            own.letGo();
            own.begin();
            return;
        }
        // What waited for these hands, and not for a computer that could not be worked, is not too old: of a hundred keys
        // of one chain none may be missing in the middle.
        long since = System.nanoTime() - task.atNanos() < LONGEST_WAIT_NANOS
                ? Math.max(task.atNanos(), freeNanos)
                : task
                        .atNanos();
        if (report.stale(task.ticket(), since)) {
            return;
        }
        machine.ready();
        try {
            boolean runs = false;
            for (Order.Outgoing packet : task.order().packets()) {
                if (packet.address().equals("programs run")) {
                    program(task.ticket(), new Args(packet.args()), machine, own);
                    runs = true;
                } else {
                    Doings.of(packet.address()).now(new Args(packet.args()), machine, own, this::tell);
                }
            }
            if (!runs) { // A program is answered for when it runs, or has ended.
                report.sent(task.ticket());
            }
        } catch (Unable | IllegalArgumentException e) {
            report.failed(task.ticket(), String.valueOf(e.getMessage()));
        } catch (Stopped e) {
            report.failed(task.ticket(), "stopped");
        } catch (RuntimeException | Error e) {
            report.broke(task.ticket(), e);
        } finally {
            freeNanos = System.nanoTime();
        }
    }

    private void program(long ticket, Args args, Machine machine, InputDriver own) throws Unable {
        List<String> command = new ArrayList<>(List.of(args.text(0)));
        command.addAll(Args.words(args.text(1)));
        Machine.Program program = machine.run(command, args.text(2));
        if (!args.flag(3)) {
            report.sent(ticket);
            return;
        }
        running.add(program);
        if (own.stopped() && running.remove(program)) { // It was stopped while it began.
            program.stop();
        }
        Thread.ofVirtual().name("program").start(() -> {
            try {
                Machine.Program.End end = program.end();
                boolean stopped = !running.remove(program);
                report.landed("exit", List.of(Value.of(end.code())));
                report.landed("answer", List.of(Value.of(end.line())));
                if (stopped) {
                    report.failed(ticket, "stopped");
                } else {
                    report.sent(ticket);
                }
            } catch (InterruptedException e) {
                report.failed(ticket, "stopped");
            }
        });
    }

    @Override
    public void send(long ticket, Order order) {
        if (closed) {
            report.failed(ticket, "is closing");
            return;
        }
        // Asked here and not when it is done: a release may wait while its board goes, and has to be done all the same.
        if (order.packets().stream().anyMatch(p -> !grants.allow(order.gear(), p))) {
            report.failed(ticket, "this board isn't allowed to do that. Open it and allow what it asks for.");
            return;
        }
        if (!tasks.offer(new Task(ticket, order, System.nanoTime()))) {
            report.failed(ticket, "has too many commands waiting");
        }
    }

    @Override
    public void granted(Grants now) {
        grants = now;
    }

    @Override
    public void sights(Supplier<Sights> now) {
        wanted = now;
    }

    /** What is to be looked for now, reckoned once for each board. */
    private synchronized Sights sights() {
        Supplier<Sights> now = wanted;
        if (now != reckoned) {
            reckoned = now;
            sights = now.get();
            List<Value> pairs = new ArrayList<>();
            sights.names().forEach((id, name) -> pairs.addAll(List.of(Value.of(id), Value.of(name))));
            if (!pairs.toString().equals(told.put("pictures", pairs.toString()))) {
                report.landed("pictures", pairs);
            }
        }
        return sights;
    }

    @Override
    public @Nullable Pixels look() {
        try (Machine machine = opening.open()) {
            return machine.picture(new Eyes(machine).everywhere());
        } catch (Unable e) {
            return null;
        }
    }

    @Override
    public void stop() {
        tasks.drain().stream().filter(t -> t.ticket() != Gears.NO_ANSWER)
                .forEach(t -> report.failed(t.ticket(), "stopped"));
        InputDriver own = hands;
        if (own != null) {
            own.stop();
        }
        new LinkedHashSet<>(running).forEach(program -> {
            running.remove(program);
            program.stop();
        });
        tasks.offer(new Task(Gears.NO_ANSWER, LET_GO, System.nanoTime())); // There is room now.
    }

    private static final Order LET_GO = new Order("", new rombix.core.card.Card.Command("let-go",
            new rombix.core.value.Template("let go"), List.of(), List.of(), Map.of(), List.of(), null, null, null, null,
            List.of()),
            Map.of(),
            "let go", List.of(), Map.of(), Set.of());

    @Override
    public void close() {
        watching.close();
        stop();
        closed = true;
        working.close();
        try { // What is held goes up before anything else ends.
            if (hands != null && !ended.await(CLOSE_MILLIS, TimeUnit.MILLISECONDS)) {
                report.troubled(new IllegalStateException("keys or buttons weren't released in time"));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
