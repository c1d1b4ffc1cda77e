package rombix.links.osc;

import java.time.Instant;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import rombix.core.value.Limits;
import rombix.wire.osc.OscPacket;

/**
 * OSC bundles that wait until their time tag comes. Any program of this computer may send some to the trigger port, so
 * all that wait have one bound together. Safe to use from any thread.
 */
final class TimedBundles {
    /** What is dated further ahead than this is taken for a clock that is wrong, and dropped. */
    private static final long LATEST_MILLIS = 3_600_000;
    /** Of this process. */
    static final TimedBundles ALL = new TimedBundles();

    private int bundles;
    private int values;

    /**
     * Hands on what a bundle holds when its time tag says, and at once where that has gone by.
     *
     * @return whether it is handed on; what is dated too far ahead, or comes on top of too many, is dropped
     */
    boolean whenDue(OscPacket.Bundle bundle, Consumer<OscPacket> to) {
        long millis = bundle.time().millisFrom(Instant.now());
        if (millis == 0) {
            bundle.packets().forEach(to);
            return true;
        }
        int size = size(bundle);
        if (millis > LATEST_MILLIS || !take(size)) {
            return false;
        }
        CompletableFuture.delayedExecutor(millis, TimeUnit.MILLISECONDS).execute(() -> {
            release(size);
            bundle.packets().forEach(to);
        });
        return true;
    }

    private static int size(OscPacket packet) {
        return switch (packet) {
            case OscPacket.Message m -> size(m.args()) + m.address().length() / Long.BYTES;
            case OscPacket.Bundle b -> 1 + b.packets().stream().mapToInt(TimedBundles::size).sum();
        };
    }

    /** In values of eight bytes, about. */
    private static int size(List<?> args) {
        return 1 + args.stream().mapToInt(a -> switch (a) {
            case List<?> inner -> size(inner);
            case String s -> 1 + s.length() / Long.BYTES;
            case OscPacket.Symbol s -> 1 + s.text().length() / Long.BYTES;
            case byte[] blob -> 1 + blob.length / Long.BYTES;
            default -> 1;
        }).sum();
    }

    private synchronized boolean take(int size) {
        if (bundles >= Limits.BUNDLES_AHEAD || values + size > Limits.VALUES_AHEAD) {
            return false;
        }
        bundles++;
        values += size;
        return true;
    }

    private synchronized void release(int size) {
        bundles--;
        values -= size;
    }
}
