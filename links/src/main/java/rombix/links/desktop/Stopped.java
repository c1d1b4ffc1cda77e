package rombix.links.desktop;

/** What is being done was stopped. */
final class Stopped extends Exception {
    private static final long serialVersionUID = 1L;
}
