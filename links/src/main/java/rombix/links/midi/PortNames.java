package rombix.links.midi;

/** How ports of this computer are told apart that have one name. */
final class PortNames {
    private PortNames() {
    }

    /** The name of the second port that is called so has a number behind it, and so on. */
    static String numbered(String name, int count) {
        return count == 1 ? name : name + " (" + count + ")";
    }
}
