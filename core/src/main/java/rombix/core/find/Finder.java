package rombix.core.find;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Figures;
import rombix.core.card.Twin;
import rombix.core.card.Twin.Readings;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.value.Kind;
import rombix.core.value.Value;

/**
 * Finds steps from a few typed words, among what the present gear can really do. Words may come in any order and be a
 * little misspelt; numbers among them become arguments.
 */
public final class Finder {
    private static final Pattern NUMBER = Pattern.compile("([-\u2212]?\\d+(?:[.,]\\d+)?)([a-z%°]*)");
    private static final int MOST_SPREAD = 400;

    private Finder() {
    }

    /**
     * A step that could be meant.
     *
     * @param title what it does, in words
     * @param where whose it is
     */
    public record Found(String title, String where, Step step, double score) {
    }

    private record Candidate(String title, String where, List<String> words, Command command, Twin twin,
            Map<String, Value> args) {
    }

    private record Number(double value, String unit) {
    }

    /** The likeliest steps, best first. */
    public static List<Found> find(String query, Rig rig, Function<String, Readings> readings, int most) {
        List<String> words = new ArrayList<>();
        List<Number> numbers = new ArrayList<>();
        for (String token : words(query)) {
            Matcher m = NUMBER.matcher(token);
            if (m.matches()) {
                numbers.add(new Number(Double.parseDouble(m.group(1).replace('\u2212', '-').replace(',', '.')),
                        m.group(2)));
            } else {
                words.add(token);
            }
        }
        List<Found> found = new ArrayList<>(general(words, numbers));
        for (Twin twin : rig.twins().values()) {
            Readings now = readings.apply(twin.gear());
            for (Candidate c : candidates(twin, now)) {
                double score = score(words, c.words());
                if (score >= 0) {
                    found.add(found(c, numbers, now, score));
                }
            }
        }
        found.sort(Comparator.comparingDouble(Found::score).reversed());
        return found.subList(0, Math.min(most, found.size()));
    }

    private static Found found(Candidate c, List<Number> numbers, Readings now, double score) {
        Map<String, Value> args = new LinkedHashMap<>(c.args());
        List<Number> left = new ArrayList<>(numbers);
        for (Param p : c.command().params()) {
            if (p.type() == Kind.NUMBER) {
                Number given = take(left, p.unit());
                if (given != null) {
                    args.put(p.id(), Value.of(given.value()));
                }
            }
        }
        double fit = score - 0.4 * left.size() + (numbers.size() > left.size() ? 0.3 : 0);
        return new Found(c.twin().spokenTitle(c.command(), args, now), c.where(),
                new Step.Do(c.twin().gear(), c.command().id(), args), fit);
    }

    private static @Nullable Number take(List<Number> numbers, @Nullable String unit) {
        for (Number n : numbers) {
            if (unit != null && !n.unit().isEmpty() && unit.toLowerCase(Locale.ROOT).startsWith(n.unit())) {
                numbers.remove(n);
                return n;
            }
        }
        for (Number n : numbers) {
            if (n.unit().isEmpty()) {
                numbers.remove(n);
                return n;
            }
        }
        return null;
    }

    private static List<Found> general(List<String> words, List<Number> numbers) {
        List<Found> found = new ArrayList<>();
        double wait = score(words, List.of("wait", "pause", "delay", "s", "ms", "min", "seconds", "minutes"));
        if (wait >= 0 && !(words.isEmpty() && numbers.isEmpty())) {
            OptionalDouble ms = numbers.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(millis(words, numbers));
            long length = Math.max(0, Math.round(ms.orElse(1000)));
            found.add(new Found("Wait " + Figures.span(length), "time", new Step.Wait(length),
                    words.isEmpty() ? 0.05 : wait));
        }
        double together = score(words, List.of("together", "parallel", "at", "once", "side", "by"));
        if (together >= 0 && !words.isEmpty()) {
            found.add(new Found("Together", "chains side by side",
                    new Step.Together(List.of(Chain.EMPTY, Chain.EMPTY)), together));
        }
        return found;
    }

    private static double millis(List<String> words, List<Number> numbers) {
        Number n = numbers.getFirst();
        String unit = n.unit();
        if (unit.isEmpty()) {
            unit = words.contains("ms") ? "ms" : words.contains("min") || words.contains("minutes") ? "min" : "s";
        }
        return n.value() * (unit.equals("ms") ? 1 : unit.startsWith("m") ? 60_000 : 1000);
    }

    private static List<Candidate> candidates(Twin twin, Readings now) {
        List<Candidate> all = new ArrayList<>();
        for (Command command : twin.card().commands()) {
            List<Map<String, Value>> spread = new ArrayList<>();
            spread.add(new LinkedHashMap<>());
            for (Param p : command.params()) {
                spread = spreadOver(p, twin, now, spread);
            }
            for (Map<String, Value> args : spread) {
                String title = twin.spokenTitle(command, args, now);
                List<String> words = new ArrayList<>(words(title));
                words.addAll(words(twin.title()));
                command.words().forEach(w -> words.addAll(words(w)));
                all.add(new Candidate(title, twin.title(), words, command, twin, args));
            }
        }
        return all;
    }

    private static List<Map<String, Value>> spreadOver(Param p, Twin twin, Readings now,
            List<Map<String, Value>> before) {
        List<Value> values = p.type() == Kind.CHOICE
                ? twin.items(p.list(), now).stream().map(Item::id).map(Value::of).toList()
                : List.of(p.usual() != null ? p.usual() : start(p));
        List<Map<String, Value>> after = new ArrayList<>();
        for (Map<String, Value> args : before) {
            for (Value v : values) {
                if (after.size() < MOST_SPREAD) {
                    Map<String, Value> more = new LinkedHashMap<>(args);
                    more.put(p.id(), v);
                    after.add(more);
                }
            }
        }
        return after;
    }

    private static Value start(Param p) {
        return switch (p.type()) {
            case NUMBER -> Value.of(p.min() == null ? 0 : p.min());
            case FLAG -> Value.of(true);
            case COLOUR -> Value.of("#FFFFFF");
            case TEXT, CHOICE, LIST -> Value.of("");
        };
    }

    /** How well all of the words are met; negative if one is not. */
    private static double score(List<String> wanted, List<String> words) {
        double sum = 0;
        for (String w : wanted) {
            double best = -1;
            for (int i = 0; i < words.size(); i++) {
                best = Math.max(best, likeness(w, words.get(i)) - 0.02 * Math.min(i, 10));
            }
            if (best < 0) {
                return -1;
            }
            sum += best;
        }
        return sum - 0.01 * words.size();
    }

    private static double likeness(String typed, String word) {
        if (word.equals(typed)) {
            return 1.2;
        }
        if (word.startsWith(typed)) {
            return 0.6 + 0.4 * typed.length() / word.length();
        }
        if (typed.length() >= 3 && word.contains(typed)) {
            return 0.5;
        }
        return typed.length() >= 4 && oneSlip(typed, word) ? 0.5 : -1;
    }

    /** Whether one letter added, left out, changed or swapped with the next makes the typed word a beginning of it. */
    private static boolean oneSlip(String typed, String word) {
        int i = 0;
        while (i < typed.length() && i < word.length() && typed.charAt(i) == word.charAt(i)) {
            i++;
        }
        if (i >= typed.length() || i >= word.length()) {
            return false;
        }
        String t = typed.substring(i);
        String w = word.substring(i);
        boolean swapped = t.length() > 1 && w.length() > 1 && t.charAt(0) == w.charAt(1) && t.charAt(1) == w.charAt(0)
                && w.substring(2).startsWith(t.substring(2));
        return swapped || w.startsWith(t.substring(1)) || w.substring(1).startsWith(t)
                || w.substring(1).startsWith(t.substring(1));
    }

    private static List<String> words(String text) {
        return List.of(text.toLowerCase(Locale.ROOT).split("[\\s\u00a0,;:“”\"()]+")).stream()
                .filter(w -> !w.isEmpty() && !w.equals("…")).toList();
    }
}
