package rombix.links.desktop.machine;

/** The running action was stopped. */
public final class Stopped extends Exception {
    private static final long serialVersionUID = 1L;
}
