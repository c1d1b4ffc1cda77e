package rombix.running.state;

/** Ends with its closing: what is on its way by then may still be told. */
public interface Subscription extends AutoCloseable {
    @Override
    void close();
}
