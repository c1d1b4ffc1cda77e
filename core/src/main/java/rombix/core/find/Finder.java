package rombix.core.find;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.card.Card;
import rombix.core.chain.Step;
import rombix.core.edit.GearEdits;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;

/**
 * Finds steps from a few typed words, among what the present gear and board can really do. Words may come in any order
 * and be a little misspelt; numbers among them, with their units, become arguments.
 */
public final class Finder {
    /** How well a word is met by the same word. */
    static final double WHOLE = 1.2;
    private static final String COMPUTER = "desktop";
    private static final Pattern NUMBER = Pattern.compile("([-\u2212]?\\d+(?:[.,]\\d+)?)([a-z%°×]*)");

    /** How much likelier a step is that was added lately: more than a little better words, less than a better word. */
    private static final double RECENT = 0.15;

    /** How many of the best are looked at for being recent. */
    private static final int CLOSE = 60;
    private static final Comparator<Fitting> BEST = Comparator.comparingDouble(Fitting::fit).reversed();

    private final StepWords speech;
    private final List<Offer> offers = new ArrayList<>();
    private final Rig rig;
    private final Function<String, Readings> readings;
    /** This computer as it would be added; null where the board has it, or no card describes it. */
    private final @Nullable Twin computer;
    /** Words for steps of a board that has it. */
    private final StepWords with;

    /** How much less a step fits whose value comes before a number of its name. */
    private static final double BACKWARDS = 0.6;

    /** How much less a step fits that takes a number which was not typed. */
    private static final double UNSAID = 0.03;

    /** How much less text that is typed freely fits where all of it are names of something. */
    private static final double NAMED = 3;

    /** @param adds whether this computer is added with it */
    private record Fitting(Offer offer, Step step, double fit, boolean adds) {
    }

    /** Gathers what the gear and the board can do now; it may be searched until one of them changes. */
    public Finder(Rig rig, Function<String, Readings> readings) {
        this.rig = rig;
        this.readings = readings;
        speech = new StepWords(rig, readings);
        offers.addAll(DeckOffers.of(rig));
        for (Twin twin : rig.twins().values()) {
            offers.addAll(GearOffers.of(twin, readings.apply(twin.gear())));
        }
        Card here = rig.cards().get(COMPUTER);
        boolean has = rig.board().gear().stream().anyMatch(g -> g.card().equals(COMPUTER));
        Rig added = here == null || has
                ? rig
                : rig.with(GearEdits.add(rig.board(), here, here.protocols().iterator().next()));
        computer = added == rig ? null : added.twin(added.board().gear().getLast().id()).orElse(null);
        with = added == rig ? speech : new StepWords(added, readings);
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
        List<Token> tokens = tokens(query);
        List<Offer> typed = new ArrayList<>(DeckOffers.typed(query));
        rig.twins().values().forEach(t -> typed.addAll(FreeText.of(t, readings.apply(t.gear()), query)));
        List<Offer> adding = computer == null ? List.of() : FreeText.of(computer, Readings.NONE, query);
        double named = offers.stream().anyMatch(o -> named(tokens, o)) ? NAMED : 0;
        List<Fitting> fitting = new ArrayList<>();
        for (List<Offer> some : List.of(typed, offers, adding)) {
            for (Offer offer : some) {
                List<TypedNumber> figures = new ArrayList<>();
                List<String> words = new ArrayList<>();
                double late = sort(tokens, offer.words(), words, figures);
                double score = score(words, offer.words());
                if (score >= 0 && (offer.always() || !tokens.isEmpty())) {
                    int given = figures.size();
                    Step step = offer.step().apply(figures);
                    if (figures.stream().anyMatch(TypedNumber::isColour)) {
                        continue; // It has no colour.
                    }
                    int used = given - figures.size();
                    double idle = used == 0 && !offer.values().isEmpty() ? UNSAID : 0;
                    fitting.add(
                            new Fitting(offer, step, score + offer.bonus() - idle - 0.5 * figures.size() + 0.35 * used
                                    - late - (some == typed ? named : 0), some == adding));
                }
            }
        }
        return fitting.stream().sorted(BEST).limit(CLOSE)
                .map(f -> lately.isEmpty() || !lately.contains(Likely.key(speech, f
                        .step())) ? f : new Fitting(f.offer(), f.step(), f.fit() + RECENT, f.adds()))
                .sorted(BEST).limit(max).map(f -> f.adds() && computer != null
                        ? new Found(with.of(f.step()), "adds “" + computer.title() + "”", f.step(), f.fit(), computer
                                .card())
                        : new Found(speech.of(f.step()), f.offer().where(), f.step(), f.fit()))
                .toList();
    }

    /** Says of words that nothing was found for which of them are known, and which don't go with them. */
    public String misunderstood(String query) {
        List<Token> tokens = tokens(query);
        Offer nearest = null;
        List<String> known = List.of();
        for (Offer offer : offers) {
            List<String> met = tokens.stream().map(Token::text).filter(t -> score(List.of(t), offer.words()) >= 0)
                    .toList();
            if (met.size() > known.size() || met.size() == known.size() && nearest != null && nearest.values().isEmpty()
                    && !offer.values().isEmpty()) {
                known = met;
                nearest = offer;
            }
        }
        if (nearest == null) {
            return "";
        }
        List<String> met = known;
        String strange = tokens.stream().map(Token::text).filter(t -> !met.contains(t)).collect(Collectors.joining(
                " "));
        return "“" + String.join(" ", known) + "” found in " + nearest.where() + "; “" + strange + "” "
                + (nearest.values()
                        .isEmpty() ? "doesn't go with it." : "isn't a value of its " + nearest.values() + ".");
    }

    /** A typed word; a number may be a value, or part of a name. */
    private record Token(String text, @Nullable TypedNumber figure) {
    }

    private static List<Token> tokens(String query) {
        List<Token> tokens = new ArrayList<>();
        for (String token : Offer.words(query)) {
            Matcher m = NUMBER.matcher(token);
            TypedNumber last = tokens.isEmpty() ? null : tokens.getLast().figure();
            if (m.matches()) {
                tokens.add(new Token(token,
                        new TypedNumber(Double.parseDouble(m.group(1).replace('\u2212', '-').replace(',',
                                '.')), m.group(2))));
            } else if (last != null && last.unit().isEmpty() && TypedNumber.isUnit(token)) {
                tokens.set(tokens.size() - 1,
                        new Token(tokens.getLast().text() + token, new TypedNumber(last.value(), token)));
            } else {
                tokens.add(new Token(token, TypedNumber.colour(token)));
            }
        }
        return tokens;
    }

    /** Whether all that was typed are names of an offer, or values that it takes: names win over text that is typed freely. */
    private static boolean named(List<Token> tokens, Offer offer) {
        List<TypedNumber> figures = new ArrayList<>();
        List<String> words = new ArrayList<>();
        sort(tokens, offer.words(), words, figures);
        if (words.isEmpty() || !offer.words().containsAll(words)) {
            return false;
        }
        Step _ = offer.step().apply(figures);
        return figures.isEmpty();
    }

    /**
     * Parts typed words into words and figures, as an offer understands them: a bare number that is a word of its name is
     * that.
     *
     * @return how much less it fits as a value comes before a number of the name: values come last
     */
    private static double sort(List<Token> tokens, List<String> names, List<String> words, List<TypedNumber> figures) {
        double late = 0;
        for (Token t : tokens) {
            TypedNumber f = t.figure();
            if (f == null || (f.unit().isEmpty() || f.isColour()) && names.contains(t.text())) {
                late += f != null && figures.stream().anyMatch(v -> v.unit().isEmpty()) ? BACKWARDS : 0;
                words.add(t.text());
            } else {
                figures.add(f);
            }
        }
        return late;
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
            return WHOLE;
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
