package rombix.links.desktop;

import com.google.re2j.Matcher;
import java.util.ArrayList;
import java.util.List;
import rombix.core.computer.Place;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;

/** What a message to this computer carries. */
record Args(List<Value> values) {
    private static final TextPattern WORD = new TextPattern("\"((?:[^\"\\\\]|\\\\.)*)\"|'([^']*)'|(\\S+)");

    String text(int i) {
        return i < values.size() ? values.get(i).toString() : "";
    }

    long number(int i) {
        double n = i < values.size() ? values.get(i).asNumber() : 0;
        return Double.isNaN(n) ? 0 : Math.round(n);
    }

    boolean flag(int i) {
        return i < values.size() && values.get(i).asFlag();
    }

    /** @throws IllegalArgumentException in plain words, where it is none */
    Place place(int i) {
        return Place.of(text(i));
    }

    /** Words with blanks between them; quotes keep together what has blanks of its own. */
    static List<String> words(String text) {
        List<String> words = new ArrayList<>();
        Matcher m = WORD.in(text);
        while (m.find()) {
            words.add(m.group(1) != null
                    ? m.group(1).replaceAll("\\\\(.)", "$1")
                    : m.group(2) != null
                            ? m.group(2)
                            : m.group(3));
        }
        return words;
    }
}
