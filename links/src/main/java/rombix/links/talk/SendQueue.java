package rombix.links.talk;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.Order;

/**
 * What a conversation has yet to say: urgent orders before others, and orders before questions, each first come first
 * served. Safe to use from any thread.
 */
final class SendQueue {
    private static final int MOST = 1000;

    /** What goes out before what, the first one first. */
    enum Rank {
        URGENT, ORDER, QUESTION
    }

    /** Packets that go out together. */
    static final class Job {
        private final List<Order.Outgoing> packets;
        private final Rank rank;
        private final String words;
        private final Done done;
        private final long atNanos = System.nanoTime();
        private volatile boolean again;

        /**
         * @param words what it is, for those that wait behind it
         * @param done takes the result
         */
        Job(List<Order.Outgoing> packets, Rank rank, String words, Done done) {
            this.packets = packets;
            this.rank = rank;
            this.words = words;
            this.done = done;
        }

        List<Order.Outgoing> packets() {
            return packets;
        }

        Rank rank() {
            return rank;
        }

        String words() {
            return words;
        }

        Done done() {
            return done;
        }

        long atNanos() {
            return atNanos;
        }

        /** Whether it may be said once more: it is, once. */
        synchronized boolean again() {
            boolean first = !again && rank != Rank.QUESTION;
            again = true;
            return first;
        }
    }

    /** Takes the result of a job. Called from any thread. */
    interface Done {
        /**
         * A packet is on the wire.
         *
         * @param number which of the job's it is, from 0
         * @param behind what the job waited behind for long, in words; empty where it did not
         */
        default void wired(int number, Order.Outgoing packet, String behind) {
        }

        /** @param fault null where it is done, else why not */
        void done(@Nullable String fault);
    }

    private final Map<Rank, Deque<Job>> jobs = new EnumMap<>(Rank.class);
    /** Done as soon as an order waits. */
    private CompletableFuture<Void> ordered = new CompletableFuture<>();
    /** Done as soon as an urgent order waits. */
    private CompletableFuture<Void> urgent = new CompletableFuture<>();

    SendQueue() {
        for (Rank rank : Rank.values()) {
            jobs.put(rank, new ArrayDeque<>());
        }
    }

    private Deque<Job> of(Rank rank) {
        return jobs.getOrDefault(rank, new ArrayDeque<>());
    }

    /** Adds a job; false where too many wait already. */
    synchronized boolean offer(Job job) {
        Deque<Job> to = of(job.rank());
        if (to.size() >= MOST) {
            return false;
        }
        to.add(job);
        added(job);
        return true;
    }

    /** Gives the one who takes jobs something to do, though there is nothing to say. */
    synchronized void wake() {
        again(new Job(List.of(), Rank.URGENT, "the login", _ -> {
        }));
    }

    /** Puts a job back that is to be said once more, before all others of its rank. */
    synchronized void again(Job job) {
        of(job.rank()).addFirst(job);
        added(job);
    }

    private void added(Job job) {
        if (job.rank() != Rank.QUESTION) {
            ordered.complete(null);
        }
        if (job.rank() == Rank.URGENT) {
            urgent.complete(null);
        }
        notifyAll();
    }

    /** Takes the next job; waits until there is one. */
    synchronized Job take() throws InterruptedException {
        while (isEmpty()) {
            wait();
        }
        Job next = null;
        for (Rank rank : Rank.values()) {
            next = next == null ? of(rank).poll() : next;
        }
        if (of(Rank.URGENT).isEmpty() && of(Rank.ORDER).isEmpty() && ordered.isDone()) {
            ordered = new CompletableFuture<>();
        }
        if (of(Rank.URGENT).isEmpty() && urgent.isDone()) {
            urgent = new CompletableFuture<>();
        }
        return java.util.Objects.requireNonNull(next);
    }

    /** Done as soon as an order waits; never fails. */
    synchronized CompletableFuture<Void> ordered() {
        return ordered;
    }

    /** Done as soon as an urgent order waits; never fails. */
    synchronized CompletableFuture<Void> urgent() {
        return urgent;
    }

    synchronized boolean isEmpty() {
        return jobs.values().stream().allMatch(Deque::isEmpty);
    }

    /** Takes all jobs away. */
    synchronized List<Job> drain() {
        List<Job> all = new ArrayList<>();
        jobs.values().forEach(of -> {
            all.addAll(of);
            of.clear();
        });
        return all;
    }
}
