package rombix.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;

/**
 * A regular expression of a card, a trigger or a board: searching takes time in proportion to the text, whatever both
 * say. There are no look-arounds and no back-references. Immutable; safe to use from any thread.
 */
public final class TextPattern {
    private static final long TOO_MUCH = 1L << 40;

    private final String source;
    private final Pattern pattern;

    /** @throws IllegalArgumentException in plain words, where it is none or needs what can't be had */
    public TextPattern(String regex) {
        source = regex;
        Pattern read;
        large(size(regex)); // Compiling it would write all repeats out.
        try {
            read = Pattern.compile(regex.replaceAll("\\(\\?<(?=[A-Za-z])", "(?P<"), Pattern.DOTALL);
        } catch (PatternSyntaxException | StackOverflowError e) {
            throw new IllegalArgumentException(
                    "\"pattern\" can't be used: %s in “%s”. Look-ahead, look-behind, back-references and possessive repeats aren't supported, because they can take for ever."
                            .formatted(e instanceof PatternSyntaxException s ? s.getDescription() : "too deep",
                                    Limits.quoted(regex)),
                    e);
        }
        large(read.programSize());
        pattern = read;
    }

    private static void large(long size) {
        if (size > Limits.PATTERN) {
            throw new IllegalArgumentException("\"pattern\" is too large: it has %d parts with its repeats, %d at most"
                    .formatted(size, Limits.PATTERN));
        }
    }

    /** How many parts a pattern has, about, with its repeats written out. */
    private static long size(String regex) {
        Deque<Long> groups = new ArrayDeque<>(); // What stood before each group that is open.
        long all = 0;
        long last = 0;
        for (int i = 0; i < regex.length(); i++) {
            switch (regex.charAt(i)) {
                case '(' -> {
                    groups.push(all);
                    all = 0;
                    last = 0;
                }
                case ')' -> {
                    last = all + 1;
                    all = last + (groups.isEmpty() ? 0 : groups.pop());
                }
                case '[' -> {
                    int end = regex.indexOf(']', i + 2);
                    i = end < 0 ? regex.length() : end;
                    last = 1;
                    all++;
                }
                case '{' -> {
                    int end = regex.indexOf('}', i);
                    long times = end < 0 ? 1 : times(regex.substring(i + 1, end));
                    all = Math.min(TOO_MUCH, all + last * (times - 1));
                    last = Math.min(TOO_MUCH, last * times);
                    i = end < 0 ? regex.length() : end;
                }
                case '\\' -> {
                    i++;
                    last = 1;
                    all++;
                }
                default -> {
                    last = 1;
                    all++;
                }
            }
        }
        return all;
    }

    /** The most that a repeat such as {@code 2,5} asks for; 1 where it is none. */
    private static long times(String repeat) {
        long most = 1;
        for (String part : repeat.split(",", -1)) {
            if (part.matches("\\d{1,9}")) {
                most = Math.max(most, Long.parseLong(part));
            }
        }
        return most;
    }

    /** A text that is to stand for itself in a pattern. */
    public static String quote(String text) {
        return Pattern.quote(text);
    }

    /** Looks for it in a text, of which only the beginning counts where it is very long. */
    public Matcher in(String text) {
        return pattern.matcher(text.length() > Limits.SEARCHED_TEXT ? text.substring(0, Limits.SEARCHED_TEXT) : text);
    }

    /** The numbers of the groups that have names. */
    public Map<String, Integer> groups() {
        return pattern.namedGroups();
    }

    /** As it was written. */
    @JsonValue
    @Override
    public String toString() {
        return source;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof TextPattern t && t.source.equals(source);
    }

    @Override
    public int hashCode() {
        return source.hashCode();
    }
}
