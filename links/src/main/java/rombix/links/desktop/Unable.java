package rombix.links.desktop;

/** A computer cannot do what it is asked, and why, in plain words. */
final class Unable extends Exception {
    private static final long serialVersionUID = 1L;

    Unable(String message) {
        super(message);
    }
}
