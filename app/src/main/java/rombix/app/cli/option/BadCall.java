package rombix.app.cli.option;

/** A call that cannot be carried out; the message says why. */
public final class BadCall extends Exception {
    private static final long serialVersionUID = 1L;

    public BadCall(String message) {
        super(message);
    }
}
