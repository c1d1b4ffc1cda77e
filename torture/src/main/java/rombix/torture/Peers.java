package rombix.torture;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import rombix.core.board.Rig;
import rombix.core.event.Event;
import rombix.core.event.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.standins.set.StandIns;

/**
 * Links whose gear is killed, frozen, slow, half-open, or has a name that nobody answers for: no order blocks whoever
 * sends it, each is answered in time, the trouble is said, and the link is back by itself when the gear is.
 */
final class Peers implements Trial {
    private static final long SENDING_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final long ANSWER_NANOS = TimeUnit.SECONDS.toNanos(25);
    private static final long BACK_NANOS = TimeUnit.SECONDS.toNanos(60);
    private static final int ORDERS = 20;
    private static final int SILENT_ROUNDS = 5;

    @Override
    public String name() {
        return "peers-in-trouble";
    }

    @Override
    public long whole() {
        return 100;
    }

    @Override
    public double share() {
        return 4;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Rig rig = BoardFile.read(Path.of("demo/star-night.json"));
        List<String> done = new ArrayList<>();
        try (StandIns gear = StandIns.onFreePorts()) {
            while (budget.take()) { // At least once, whatever time it takes.
                List<Thread> at = new ArrayList<>();
                for (Between.How how : Between.How.values()) {
                    if (how != Between.How.WELL) {
                        at.add(start(budget, () -> suffer(budget, rig, "house", gear.house().port(), how)));
                        at.add(start(budget, () -> suffer(budget, rig, "chat", gear.chat().port(), how)));
                    }
                }
                at.add(start(budget, () -> silent(budget, rig)));
                for (Thread t : at) {
                    t.join();
                }
                done.add("round");
            }
        }
        return budget
                .outcome(done.size() + " rounds of 9: broker and chat killed, frozen, slow, half-open; silent names");
    }

    private interface Part {
        void run() throws Exception;
    }

    private static Thread start(Budget budget, Part part) {
        return Thread.ofVirtual().start(() -> {
            try {
                part.run();
            } catch (Exception e) {
                budget.breach("the trial itself: " + e);
            }
        });
    }

    /** Links with what they say. */
    private static final class Bench implements AutoCloseable {
        private final Rig rig;
        private final Map<String, Phase> phases = new ConcurrentHashMap<>();
        private final Map<Long, String> answers = new ConcurrentHashMap<>();
        private final AtomicLong tickets = new AtomicLong();
        private final Links links = new Links(new MachineClock(), this::take);

        Bench(Rig rig, Map<String, String> addresses) {
            this.rig = rig;
            links.connect(rig, addresses);
        }

        private void take(Event event) {
            if (event instanceof Event.Linked l) {
                phases.put(l.gear(), l.status().phase());
            } else if (event instanceof Event.OrderDone d) {
                answers.put(d.ticket(), d.fault() == null ? "sent" : d.fault());
            }
        }

        /** Sends an order; how many nanoseconds that took. */
        long send(String gear) {
            Twin twin = rig.twin(gear).orElseThrow();
            String command = gear.equals("house") ? "unlock" : gear.equals("chat") ? "slow-on" : "level";
            Map<String, Value> args = switch (gear) {
                case "house" -> Map.of("lock", Value.of("gate"));
                case "chat" -> Map.of("room", Value.of("star-night"));
                case "lamps" -> Map.of("lamp", Value.of("desk-key"), "level", Value.of(tickets.get() % 100));
                default -> Map.of();
            };
            String of = gear.equals("studio") ? "start-stream" : gear.equals("cues") ? "go" : command;
            var order = twin.order(twin.card().command(of).orElseThrow(() -> new IllegalStateException(of)), args,
                    _ -> null);
            long start = System.nanoTime();
            links.send(tickets.incrementAndGet(), order);
            return System.nanoTime() - start;
        }

        boolean waitUntil(long nanos, BooleanSupplier so) {
            long until = System.nanoTime() + nanos;
            while (!so.getAsBoolean()) {
                if (System.nanoTime() - until > 0) {
                    return false;
                }
                LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
            }
            return true;
        }

        @Override
        public void close() {
            links.close();
        }
    }

    private static Map<String, String> only(String gear, String address) {
        Map<String, String> all = new HashMap<>();
        for (String id : new String[]{"studio", "desk", "lamps", "cues", "house", "chat"}) {
            all.put(id, "127.0.0.1:9");
        }
        all.put(gear, address);
        return all;
    }

    private static void suffer(Budget budget, Rig rig, String gear, int port, Between.How how) throws Exception {
        String what = gear + " " + how.name().toLowerCase(java.util.Locale.ROOT);
        try (Between between = new Between(port); Bench bench = new Bench(rig, only(gear, between.address()))) {
            if (!bench.waitUntil(BACK_NANOS, () -> bench.phases.get(gear) == Phase.READY)) {
                budget.breach(what + ": was never ready");
                return;
            }
            between.become(how);
            for (int i = 0; i < ORDERS; i++) {
                long took = bench.send(gear);
                if (took > SENDING_NANOS) {
                    budget.breach("%s: an order blocked for %d ms".formatted(what, took / 1_000_000));
                }
                LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(100));
            }
            if (!bench.waitUntil(ANSWER_NANOS, () -> bench.answers.size() == ORDERS)) {
                budget.breach("%s: %d of %d orders were answered".formatted(what, bench.answers.size(), ORDERS));
            }
            if (how != Between.How.SLOW
                    && !bench.waitUntil(ANSWER_NANOS, () -> bench.phases.get(gear) != Phase.READY)) {
                budget.breach(what + ": still said to be ready");
            }
            between.become(Between.How.WELL);
            long before = bench.tickets.get();
            if (!bench.waitUntil(BACK_NANOS, () -> {
                bench.send(gear);
                LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(200));
                return bench.answers.entrySet().stream().anyMatch(a -> a.getKey() > before && a.getValue().equals(
                        "sent"));
            })) {
                budget.breach(what + ": did not come back");
            }
        }
    }

    /** Every gear has a name of which nobody says anything. */
    private static void silent(Budget budget, Rig rig) {
        Map<String, String> addresses = new HashMap<>();
        rig.board().gear().forEach(g -> addresses.put(g.id(), g.id() + SilentNames.END + ":9000"));
        long start = System.nanoTime();
        try (Bench bench = new Bench(rig, addresses)) {
            within(budget, "connecting to silent names", start);
            for (int i = 0; i < SILENT_ROUNDS; i++) {
                for (String gear : new String[]{"studio", "lamps", "house", "chat"}) {
                    long took = bench.send(gear);
                    if (took > SENDING_NANOS) {
                        budget.breach("%s, a silent name: an order blocked for %d ms".formatted(gear, took
                                / 1_000_000));
                    }
                }
            }
            if (!bench.waitUntil(ANSWER_NANOS, () -> bench.answers.size() == bench.tickets.get())) {
                budget.breach("silent names: %d of %d orders were answered".formatted(bench.answers.size(),
                        bench.tickets.get()));
            }
            start = System.nanoTime();
        }
        within(budget, "closing links to silent names", start);
    }

    private static void within(Budget budget, String what, long start) {
        long took = System.nanoTime() - start;
        if (took > TimeUnit.SECONDS.toNanos(5)) {
            budget.breach("%s took %d ms".formatted(what, took / 1_000_000));
        }
    }
}
