package rombix.links.desktop.machine;

/** A computer cannot do what it is asked, and why, in plain words. */
public final class Unable extends Exception {
    private static final long serialVersionUID = 1L;

    public Unable(String message) {
        super(message);
    }
}
