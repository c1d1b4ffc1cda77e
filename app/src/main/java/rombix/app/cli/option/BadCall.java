package rombix.app.cli.option;

/** A command that can't be run; the message says why. */
public final class BadCall extends Exception {
    private static final long serialVersionUID = 1L;

    public BadCall(String message) {
        super(message);
    }
}
