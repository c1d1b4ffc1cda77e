package rombix.core.value;

/**
 * Makes characters visible that would change what stands around them: control characters, which terminals obey, and
 * those that turn the direction of what follows. Marks that scripts written from right to left need stay.
 */
public final class Visible {
    private Visible() {
    }

    /** A text of one line: line ends are made visible, too. */
    public static String line(String text) {
        return of(text, false);
    }

    /** A text of several lines. */
    public static String text(String text) {
        return of(text, true);
    }

    private static String of(String text, boolean lines) {
        int i = 0;
        while (i < text.length() && !hidden(text, i, lines)) {
            i++;
        }
        if (i == text.length()) {
            return text;
        }
        StringBuilder out = new StringBuilder(text.length() + 16).append(text, 0, i);
        for (; i < text.length(); i++) {
            char c = text.charAt(i);
            if (hidden(text, i, lines)) {
                out.append("⟨U+%04X⟩".formatted((int) c));
            } else {
                out.append(c);
            }
        }
        return out.toString();
    }

    private static boolean hidden(String text, int at, boolean lines) {
        char c = text.charAt(at);
        if (lines && c == '\r' && at + 1 < text.length() && text.charAt(at + 1) == '\n') {
            return false;
        }
        return c < ' ' && !(lines && (c == '\n' || c == '\t')) || c >= 0x7F && c <= 0x9F || c >= 0x202A && c <= 0x202E
                || c >= 0x2066 && c <= 0x2069 || !lines && (c == 0x2028 || c == 0x2029);
    }
}
