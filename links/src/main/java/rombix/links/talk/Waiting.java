package rombix.links.talk;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.Order;

/** What a conversation has yet to say: orders before questions, each first come first served. Safe to use from any thread. */
final class Waiting {
    private static final int MOST = 1000;

    /**
     * Packets that go out together.
     *
     * @param question whether it is a poll, which an order overtakes
     * @param done takes the result: null where it is done, else why not
     */
    record Job(List<Order.Outgoing> packets, boolean question, long atNanos, Consumer<@Nullable String> done) {
    }

    private final Deque<Job> orders = new ArrayDeque<>();
    private final Deque<Job> questions = new ArrayDeque<>();
    /** Done as soon as an order waits. */
    private CompletableFuture<Void> ordered = new CompletableFuture<>();

    /** Adds a job; false where too many wait already. */
    synchronized boolean offer(Job job) {
        Deque<Job> to = job.question() ? questions : orders;
        if (to.size() >= MOST) {
            return false;
        }
        to.add(job);
        if (!job.question()) {
            ordered.complete(null);
        }
        notifyAll();
        return true;
    }

    /** Takes the next job; waits until there is one. */
    synchronized Job take() throws InterruptedException {
        while (isEmpty()) {
            wait();
        }
        Job next = orders.isEmpty() ? questions.remove() : orders.remove();
        if (orders.isEmpty() && ordered.isDone()) {
            ordered = new CompletableFuture<>();
        }
        return next;
    }

    /** Done as soon as an order waits; never fails. */
    synchronized CompletableFuture<Void> ordered() {
        return ordered;
    }

    synchronized boolean isEmpty() {
        return orders.isEmpty() && questions.isEmpty();
    }

    /** Takes all jobs away. */
    synchronized List<Job> drain() {
        List<Job> all = new ArrayList<>(orders);
        all.addAll(questions);
        orders.clear();
        questions.clear();
        return all;
    }
}
