package rombix.core.value;

/** What an id may be: a name, which may become part of a file's name, of a place in a file, and of a line of the log. */
public final class Ids {
    private static final int LONGEST = 200;

    private Ids() {
    }

    /**
     * An id, as it is.
     *
     * @throws IllegalArgumentException in plain words, where it is none
     */
    public static String checked(String id) {
        if (id.isBlank() || id.length() > LONGEST || id.startsWith(".") || !id.equals(Visible.line(id))
                || id.chars().anyMatch(c -> c == '/' || c == '\\')) {
            throw new IllegalArgumentException(
                    "“%s” can't be an \"id\": it is a name of up to %d characters, without slashes, and doesn't begin with a dot"
                            .formatted(Limits.quoted(Visible.line(id)), LONGEST));
        }
        return id;
    }
}
