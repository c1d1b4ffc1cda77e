package rombix.wire;

/** A packet is not what its standard says. The message is one clause for a person. Carries no stack trace: they come in floods. */
public final class Malformed extends Exception {
    private static final long serialVersionUID = 1L;

    public Malformed(String message) {
        super(message, null, false, false);
    }
}
