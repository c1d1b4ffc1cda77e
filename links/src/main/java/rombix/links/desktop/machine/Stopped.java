package rombix.links.desktop.machine;

/** What is being done was stopped. */
public final class Stopped extends Exception {
    private static final long serialVersionUID = 1L;
}
