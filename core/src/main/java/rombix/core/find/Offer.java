package rombix.core.find;

import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import rombix.core.chain.Step;

/**
 * A step that can be had, and the words to find it by.
 *
 * @param where whose it is, as people see it
 * @param step makes it from the typed figures, taking out those that it uses
 * @param bonus how much likelier it is than others that fit as well
 * @param always whether it is offered where nothing is typed
 * @param values what a number that is typed sets, in words; empty where it takes none
 */
record Offer(String where, List<String> words, Function<List<TypedNumber>, Step> step, double bonus, boolean always,
        String values) {
    Offer(String where, List<String> words, Function<List<TypedNumber>, Step> step, double bonus, boolean always) {
        this(where, words, step, bonus, always, "");
    }

    /** The words of a text, in small letters. */
    static List<String> words(String text) {
        return List.of(text.toLowerCase(Locale.ROOT).split("[\\s\u00a0,;“”\"()]+")).stream()
                .filter(w -> !w.isEmpty() && !w.equals("…") && !w.equals("→")).toList();
    }
}
