package rombix.torture;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.net.spi.InetAddressResolver;
import java.net.spi.InetAddressResolverProvider;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;

/** Looks names up as the system does, but for those that end with {@code .silent}: of them nobody says anything for long. */
public final class SilentNames extends InetAddressResolverProvider {
    static final String END = ".silent";
    private static final long SILENCE_NANOS = TimeUnit.SECONDS.toNanos(30);

    @Override
    public InetAddressResolver get(Configuration configuration) {
        InetAddressResolver usual = configuration.builtinResolver();
        return new InetAddressResolver() {
            @Override
            public Stream<InetAddress> lookupByName(String host, LookupPolicy policy) throws UnknownHostException {
                if (host.endsWith(END)) {
                    long until = System.nanoTime() + SILENCE_NANOS;
                    boolean interrupted = false;
                    while (System.nanoTime() - until < 0) { // No interruption ends what the system does, either.
                        LockSupport.parkNanos(until - System.nanoTime());
                        interrupted |= Thread.interrupted();
                    }
                    if (interrupted) {
                        Thread.currentThread().interrupt();
                    }
                    throw new UnknownHostException(host);
                }
                return usual.lookupByName(host, policy);
            }

            @Override
            public String lookupByAddress(byte[] address) throws UnknownHostException {
                return usual.lookupByAddress(address);
            }
        };
    }

    @Override
    public String name() {
        return "silent names";
    }
}
