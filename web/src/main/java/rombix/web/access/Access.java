package rombix.web.access;

import java.util.Objects;
import java.util.Set;

/**
 * A device that was let in, or a program that has a token.
 *
 * @param hash the SHA-256 of its token, in hex; the token itself is kept nowhere
 * @param pages ids of the pages that it sees and works; all where that is empty
 * @param sinceMillis when it was let in, in Unix time
 */
public record Access(String id, String name, Kind kind, String hash, Set<String> pages, Set<Right> rights,
        long sinceMillis) {
    /** The longest name, in characters. */
    public static final int MAX_NAME = 40;

    private static final String DEVICE = "device “";

    /** Who uses it. */
    public enum Kind {
        /** A browser that shows pages. */
        DEVICE,
        /** A program that calls the interface for programs. */
        PROGRAM,
        /** What pulls the triggers of one name, which is its name here, and can do nothing else. */
        HOOK
    }

    public Access {
        Objects.requireNonNull(id);
        Objects.requireNonNull(kind);
        Objects.requireNonNull(hash);
        name = name.strip();
        if (name.isEmpty() || name.codePointCount(0, name.length()) > MAX_NAME) {
            throw new IllegalArgumentException("a name has 1 to " + MAX_NAME + " characters");
        }
        pages = Set.copyOf(pages);
        rights = Set.copyOf(rights);
    }

    public boolean may(Right right) {
        return rights.contains(right);
    }

    /** Whether it sees a page. */
    public boolean sees(String page) {
        return pages.isEmpty() || pages.contains(page);
    }

    /** What the log calls it. */
    public String source() {
        return switch (kind) {
            case DEVICE -> DEVICE + name + "”";
            case PROGRAM -> "program “" + name + "”";
            case HOOK -> "HTTP /hook/" + name;
        };
    }

    /** Whether the log calls a device so: one that turns its own page. */
    public static boolean isSource(String source) {
        return source.startsWith(DEVICE);
    }

    /** The same with another name, other pages and other rights. */
    public Access with(String newName, Set<String> newPages, Set<Right> newRights) {
        return new Access(id, newName, kind, hash, newPages, newRights, sinceMillis);
    }
}
