package rombix.core.find;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/** The names that come nearest to one that is not there, for a message that is to be of use. */
public final class Nearest {
    private static final int MAX = 3;

    private Nearest() {
    }

    /** All names where they are few; else the nearest three, as {@code the nearest are a, b, c}. */
    public static String words(String wanted, Collection<String> names) {
        if (names.size() <= MAX * 2) {
            return "it has " + String.join(", ", names);
        }
        return "the nearest are " + String.join(", ", of(wanted, names));
    }

    static List<String> of(String wanted, Collection<String> names) {
        return names.stream().sorted(Comparator.comparingInt((String n) -> distance(wanted.toLowerCase(Locale.ROOT), n
                .toLowerCase(Locale.ROOT))).thenComparing(Comparator.naturalOrder())).limit(MAX).toList();
    }

    /** How many letters have to be put in, taken out, changed or swapped (Damerau and Levenshtein); parts count half. */
    private static int distance(String a, String b) {
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                if (i == 0 || j == 0) {
                    d[i][j] = i + j;
                    continue;
                }
                int change = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                d[i][j] = Math.min(Math.min(d[i - 1][j], d[i][j - 1]) + 1, d[i - 1][j - 1] + change);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
                }
            }
        }
        int whole = d[a.length()][b.length()];
        return b.contains(a) || a.contains(b) ? whole / 2 : whole;
    }
}
