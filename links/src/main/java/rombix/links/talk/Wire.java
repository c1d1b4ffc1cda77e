package rombix.links.talk;

import java.io.IOException;
import java.net.SocketTimeoutException;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.wire.Malformed;

/** A connection. {@code write} and {@code read} are called on one thread at a time each. */
public interface Wire extends AutoCloseable {
    /**
     * @throws IOException where the connection is of no more use
     * @throws IllegalArgumentException in plain words, where the packet is at fault
     */
    void write(Order.Outgoing packet) throws IOException;

    /**
     * The next message; null at the end of the connection.
     *
     * @throws SocketTimeoutException where none came for a while; the connection is as it was
     * @throws Malformed where one could not be read; the next one can
     */
    @Nullable
    Message read() throws IOException, Malformed;

    /** Whether the last message that was read is all of one: it may be the begin of a line. */
    default boolean whole() {
        return true;
    }

    /** The last message that was read meant something: what looked like the begin of a line was all of it. */
    default void meant() {
        // Where messages come as such, nothing can be in doubt.
    }

    @Override
    void close();
}
