package rombix.core.find;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.chain.Step;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;

/**
 * Finds steps from a few typed words, among what the present gear and board can really do. Words may come in any order
 * and be a little misspelt; numbers among them, with their units, become arguments.
 */
public final class Finder {
    private static final Pattern NUMBER = Pattern.compile("([-\u2212]?\\d+(?:[.,]\\d+)?)([a-z%°]*)");

    /** How much likelier a step is that was added lately: more than a little better words, less than a better word. */
    private static final double RECENT = 0.15;

    /** How many of the best are looked at for being recent. */
    private static final int CLOSE = 60;
    private static final Comparator<Fitting> BEST = Comparator.comparingDouble(Fitting::fit).reversed();

    private final StepWords speech;
    private final List<Offer> offers = new ArrayList<>();

    private record Fitting(Offer offer, Step step, double fit) {
    }

    /** Gathers what the gear and the board can do now; it may be searched until one of them changes. */
    public Finder(Rig rig, Function<String, Readings> readings) {
        speech = new StepWords(rig, readings);
        offers.addAll(DeckOffers.of(rig));
        for (Twin twin : rig.twins().values()) {
            offers.addAll(GearOffers.of(twin, readings.apply(twin.gear())));
        }
    }

    /** The likeliest steps, best first. */
    public List<Found> find(String query, int max) {
        return find(query, max, List.of());
    }

    /**
     * The likeliest steps, best first.
     *
     * @param recent steps that were added lately, which come before others that fit as well
     */
    public List<Found> find(String query, int max, List<Step> recent) {
        Set<String> lately = recent.stream().map(s -> Likely.key(speech, s)).collect(Collectors.toSet());
        List<String> words = new ArrayList<>();
        List<Figure> figures = new ArrayList<>();
        for (String token : Offer.words(query)) {
            Matcher m = NUMBER.matcher(token);
            if (m.matches()) {
                figures.add(new Figure(Double.parseDouble(m.group(1).replace('\u2212', '-').replace(',', '.')),
                        m.group(2)));
            } else if (!figures.isEmpty() && figures.getLast().unit().isEmpty() && Figure.isUnit(token)) {
                figures.add(new Figure(figures.removeLast().value(), token));
            } else {
                words.add(token);
            }
        }
        List<Fitting> fitting = new ArrayList<>();
        for (List<Offer> some : List.of(DeckOffers.typed(query), offers)) {
            for (Offer offer : some) {
                double score = score(words, offer.words());
                if (score >= 0 && (offer.always() || !words.isEmpty() || !figures.isEmpty())) {
                    List<Figure> left = new ArrayList<>(figures);
                    Step step = offer.step().apply(left);
                    int used = figures.size() - left.size();
                    fitting.add(new Fitting(offer, step, score + offer.bonus() - 0.5 * left.size() + 0.35 * used));
                }
            }
        }
        return fitting.stream().sorted(BEST).limit(CLOSE)
                .map(f -> lately.isEmpty() || !lately.contains(Likely.key(speech, f
                        .step())) ? f : new Fitting(f.offer(), f.step(), f.fit() + RECENT))
                .sorted(BEST).limit(max).map(f -> new Found(speech.of(f.step()), f.offer().where(), f.step(), f
                        .fit()))
                .toList();
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
}
