package rombix.core.find;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.board.State;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.value.Value;

/** What the deck itself can do: waits, choices, repeats, other chains, values, pages, messages. */
final class DeckOffers {
    private static final Pattern CLOCK = Pattern.compile("\\b([01]?\\d|2[0-3]):[0-5]\\d(:[0-5]\\d)?\\b");
    private static final Pattern SAY = Pattern.compile("(?i)^\\s*(say|message|tell)\\b[:\\s]*(.*)$");
    private static final Pattern NOTE = Pattern.compile("(?i)^\\s*(note|log|write)\\b[:\\s]*(.*)$");
    private static final Pattern ASK = Pattern.compile("(?i)^\\s*ask\\b[:\\s]*(.*)$");
    private static final String DECK = "deck";

    private final List<Offer> offers = new ArrayList<>();

    private DeckOffers() {
    }

    /** What can be had whatever is typed. */
    static List<Offer> of(Rig rig) {
        DeckOffers all = new DeckOffers();
        all.time();
        all.choices();
        all.board(rig.board());
        return all.offers;
    }

    /** What is made from the very words that are typed: a time of day, a message, a question. */
    static List<Offer> typed(String query) {
        DeckOffers all = new DeckOffers();
        all.clock(query);
        all.talk(query);
        return all.offers;
    }

    private void add(String where, String words, double bonus, Function<List<TypedNumber>, Step> step) {
        offers.add(new Offer(where, Offer.words(words), step, bonus, false));
    }

    private void clock(String query) {
        Matcher clock = CLOCK.matcher(query);
        if (clock.find()) {
            String time = clock.group();
            add("time", "wait until clock " + time, 0.5, figures -> {
                figures.clear();
                return new Step.Wait(0, null, time, null, null, StepOptions.PLAIN, Map.of());
            });
        }
    }

    private void time() {
        add("time", "wait pause delay", 0.05, figures -> {
            long least = TypedNumber.takeMillis(figures, true, 1000);
            return new Step.Wait(least);
        });
        add("time", "wait to random between pause", -0.1, figures -> {
            long least = TypedNumber.takeMillis(figures, true, 1000);
            long most = TypedNumber.takeMillis(figures, true, least * 2);
            return new Step.Wait(Math.min(least, most), Math.max(least, most), null, null, null, StepOptions.PLAIN,
                    Map.of());
        });
        add("time", "for a while", 0.1, figures -> new Step.ForAWhile(Chain.EMPTY,
                TypedNumber.takeMillis(figures, true, 60_000), StepOptions.PLAIN, Map.of()));
        add("time", "repeat again times loop", 0.1, figures -> {
            Long every = figures.stream().anyMatch(TypedNumber::isTime)
                    ? (Long) TypedNumber.takeMillis(figures, false, 1000)
                    : null;
            TypedNumber times = TypedNumber.take(figures, null);
            return new Step.Repeat(times == null && every != null ? null : Arg.of(times == null ? 3 : times.value()),
                    null, every, "count", Chain.EMPTY, StepOptions.PLAIN, Map.of());
        });
    }

    private void choices() {
        add("chains", "together parallel at once side by side", 0, _ -> new Step.Together(List.of(Chain.EMPTY,
                Chain.EMPTY)));
        pick("one of pick random any", Step.Pick.Way.RANDOM, 0.05);
        pick("one of pick shuffled shuffle", Step.Pick.Way.SHUFFLED, 0);
        pick("one of pick in turn next cycle", Step.Pick.Way.IN_TURN, 0);
        pick("one of pick never twice running random", Step.Pick.Way.NO_REPEAT, -0.05);
    }

    private void pick(String words, Step.Pick.Way way, double bonus) {
        add("chains", words, bonus, figures -> {
            TypedNumber count = TypedNumber.take(figures, null);
            int n = count == null ? 2 : (int) Math.clamp(count.value(), 1, 20);
            List<Step.Choice> choices = new ArrayList<>();
            for (int i = 0; i < n; i++) {
                choices.add(new Step.Choice(null, 1, Chain.EMPTY));
            }
            return new Step.Pick(way, choices, StepOptions.PLAIN, Map.of());
        });
    }

    private void talk(String query) {
        written(query, SAY, List.of("say", "message", "tell"), text -> new DeckStep.Say(text, StepOptions.PLAIN, Map
                .of()));
        written(query, NOTE, List.of("note", "log", "write"), text -> new DeckStep.Note(text, StepOptions.PLAIN, Map
                .of()));
        Matcher ask = ASK.matcher(query);
        String question = ask.matches() && !ask.group(1).isBlank() ? ask.group(1).strip() : "Which one?";
        offers.add(new Offer(DECK, ask.matches() ? Offer.words(query) : List.of("ask", "question", "choice"),
                figures -> {
                    figures.clear();
                    return new DeckStep.Ask(question, DeckStep.Ask.AnswerType.CHOICE,
                            List.of(new Step.Choice("Yes", 1, Chain.EMPTY),
                                    new Step.Choice("No", 1, Chain.EMPTY)),
                            null, null, null, StepOptions.PLAIN, Map.of());
                }, 0.3, false));
    }

    private void written(String query, Pattern typed, List<String> names, Function<String, DeckStep> step) {
        Matcher words = typed.matcher(query);
        String text = words.matches() && !words.group(2).isBlank() ? words.group(2).strip() : "…";
        offers.add(new Offer(DECK, text.equals("…") ? names : Offer.words(query), figures -> {
            figures.clear();
            return step.apply(text);
        }, text.equals("…") ? 0 : 1.5 - Finder.WHOLE * Offer.words(text).size(), false)); // It fits anything.
    }

    private void board(Board board) {
        for (Board.BoardValue v : board.values()) {
            add("values", "set " + v.name() + " to value", 0.1, figures -> {
                TypedNumber to = TypedNumber.take(figures, null);
                return new DeckStep.Set(v.id(), Arg.of(to == null ? v.initial() : Value.of(to.value())),
                        StepOptions.PLAIN,
                        Map.of());
            });
        }
        for (Board.NamedChain c : board.chains()) {
            add("chains", "use chain " + c.name() + " " + String.join(" ", c.params()), 0.1, figures -> {
                Map<String, Arg> args = new LinkedHashMap<>();
                for (String param : c.params()) { // Numbers that are typed are its arguments, in order.
                    TypedNumber given = TypedNumber.take(figures, null);
                    args.put(param, Arg.of(given == null ? 0 : given.value()));
                }
                return new DeckStep.Use(null, null, Gesture.PRESS, c.id(), args, StepOptions.PLAIN, Map.of());
            });
        }
        for (RunDown list : board.runDowns()) {
            for (String to : List.of("next", "back", "first")) {
                add("run-downs", to + " in run-down " + list.name(), 0, _ -> go(list, to));
            }
            list.items().forEach(item -> add("run-downs", "go to " + item.name() + " in " + list.name(), -0.2, _ -> go(
                    list, item.name())));
        }
        for (Page page : board.pages()) {
            add("pages", "show go page " + page.name(), 0, _ -> DeckStep.Show.page(page.id(), Way.TURN));
            add("pages", "pop up page " + page.name(), -0.05, _ -> DeckStep.Show.page(page.id(), Way.POP_UP));
            add("pages", "show page while held " + page.name(), -0.05,
                    _ -> DeckStep.Show.page(page.id(), Way.WHILE_HELD));
            page.buttons().forEach(b -> button(page, b));
        }
        add("pages", "go back a page", 0, _ -> DeckStep.Show.by(Way.BACK));
        add("pages", "next page", 0, _ -> DeckStep.Show.by(Way.NEXT));
        add("pages", "previous page", 0, _ -> DeckStep.Show.by(Way.PREVIOUS));
        add(DECK, "stop all panic everything", 0.1, _ -> stop(DeckStep.Stop.What.ALL, null, null));
        add(DECK, "stop this chain end", 0, _ -> stop(DeckStep.Stop.What.THIS, null, null));
        board.buttons().map(Button::tag).filter(t -> t != null && !t.isBlank()).distinct()
                .forEach(t -> add(DECK, "stop tag " + t, 0, _ -> stop(DeckStep.Stop.What.TAG, null, t)));
    }

    private void button(Page page, Button b) {
        add(page.name(), "use press button " + b.name(), -0.1, _ -> new DeckStep.Use(b.id(), null, Gesture.PRESS, null,
                Map.of(), StepOptions.PLAIN, Map.of()));
        add(page.name(), "stop button " + b.name(), -0.1, _ -> stop(DeckStep.Stop.What.BUTTON, b.id(), null));
        if (b.states().size() > 1 && !b.follows()) {
            for (State s : b.states()) {
                add(page.name(), "show state " + b.name() + " as " + s.name(), -0.2,
                        _ -> DeckStep.Show.state(b.id(), s.id()));
            }
        }
    }

    private static Step go(RunDown list, String to) {
        return new DeckStep.Go(list.id(), Arg.of(Value.of(to)), StepOptions.PLAIN, Map.of());
    }

    private static Step stop(DeckStep.Stop.What what, @org.jspecify.annotations.Nullable String button,
            @org.jspecify.annotations.Nullable String tag) {
        return new DeckStep.Stop(what, button, tag, StepOptions.PLAIN, Map.of());
    }
}
