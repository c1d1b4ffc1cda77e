package rombix.core.thread;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

/** Executors for work that is rare: their thread ends when it has been idle, and a new one starts when it is needed. */
public final class Idle {
    private static final long KEEP_SECONDS = 5;

    private Idle() {
    }

    /** Runs one task after the other, on one daemon thread of this name at a time. */
    public static ExecutorService executor(String name) {
        return executor(Thread.ofPlatform().daemon().name(name).factory());
    }

    /** Runs one task after the other, on one thread at a time. */
    public static ExecutorService executor(ThreadFactory threads) {
        ThreadPoolExecutor one = new ThreadPoolExecutor(1, 1, KEEP_SECONDS, TimeUnit.SECONDS,
                new LinkedBlockingQueue<>(), threads);
        one.allowCoreThreadTimeOut(true);
        return one;
    }
}
