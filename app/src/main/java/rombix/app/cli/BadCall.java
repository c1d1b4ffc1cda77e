package rombix.app.cli;

/** A call that cannot be carried out; the message says why. */
final class BadCall extends Exception {
    private static final long serialVersionUID = 1L;

    BadCall(String message) {
        super(message);
    }
}
