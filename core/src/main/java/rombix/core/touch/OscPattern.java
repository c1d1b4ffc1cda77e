package rombix.core.touch;

import com.google.re2j.Pattern;

/** An OSC address pattern (OSC 1.0): {@code ?}, {@code *}, {@code [a-z]}, {@code [!a-z]} and {@code {this,that}}, none of them over a slash. */
final class OscPattern {
    private final Pattern regex;

    OscPattern(String address) {
        StringBuilder out = new StringBuilder();
        boolean choice = false;
        for (int i = 0; i < address.length(); i++) {
            char c = address.charAt(i);
            int end = address.indexOf(']', i);
            switch (c) {
                case '?' -> out.append("[^/]");
                case '*' -> out.append("[^/]*");
                case '{' -> {
                    choice = true;
                    out.append("(?:");
                }
                case '}' -> {
                    out.append(choice ? ")" : "\\}");
                    choice = false;
                }
                case ',' -> out.append(choice ? "|" : ",");
                case '[' -> {
                    if (end > i + 1) {
                        out.append(letters(address.substring(i + 1, end)));
                        i = end;
                    } else {
                        out.append("\\[");
                    }
                }
                default -> out.append(Pattern.quote(String.valueOf(c)));
            }
        }
        regex = Pattern.compile(choice ? Pattern.quote(address) : out.toString()); // One that never ends is none.
    }

    private static String letters(String set) {
        boolean not = set.startsWith("!") && set.length() > 1;
        StringBuilder out = new StringBuilder(not ? "[^/" : "[");
        String of = not ? set.substring(1) : set;
        for (int i = 0; i < of.length(); i++) {
            char c = of.charAt(i);
            boolean range = c == '-' && i > 0 && i < of.length() - 1 && of.charAt(i - 1) < of.charAt(i + 1);
            out.append(range || Character.isLetterOrDigit(c) ? String.valueOf(c) : "\\" + c);
        }
        return out.append(']').toString();
    }

    /** Whether an address is a pattern. */
    static boolean isOne(String address) {
        return address.chars().anyMatch(c -> "?*[{".indexOf(c) >= 0);
    }

    boolean matches(String address) {
        return regex.matcher(address).matches();
    }
}
