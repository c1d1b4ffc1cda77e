package rombix.core.bundle;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.edit.GearEdits;
import rombix.core.store.CardExchange;

/**
 * The gear of a board from elsewhere beside the gear here: what is the same, by card and then by what it can do, and
 * what would be lost. One thread's.
 */
public final class Matching {
    /** Gear that has less in common than this is no match. */
    private static final double LEAST = 0.5;

    private final Rig theirs;
    private final Rig mine;
    private final Map<String, List<Candidate>> candidates = new HashMap<>();

    /** @param mine a board whose gear is here */
    public Matching(Rig theirs, Rig mine) {
        this.theirs = theirs;
        this.mine = mine;
    }

    /** What is done about one gear of theirs. */
    public sealed interface Choice {
        /** It is reached as gear that is here already. */
        record Mine(String gear) implements Choice {
        }

        /** It stays as it is. */
        record New() implements Choice {
        }

        /** It is reached at the address of a stand-in for now. */
        record StandIn(String address) implements Choice {
        }
    }

    /**
     * Gear here that may take the place of theirs.
     *
     * @param fit how much of what theirs can do it can do, from 0 to 1; 1 where it has the same card
     * @param lost what has no counterpart there, in words, each with its button
     */
    public record Candidate(Gear gear, double fit, List<String> lost) {
    }

    /** All gear here that may take the place of theirs, the best first. */
    public List<Candidate> of(String gear) {
        return candidates.computeIfAbsent(gear, this::candidates);
    }

    private List<Candidate> candidates(String gear) {
        Gear their = theirs.board().gear(gear).orElseThrow();
        List<Candidate> all = new ArrayList<>();
        for (Gear own : mine.board().gear()) {
            double fit = fit(their, own);
            if (fit >= LEAST) {
                all.add(new Candidate(own, fit, swapped(theirs, gear, own).lost()));
            }
        }
        all.sort(Comparator.comparing((Candidate c) -> c.lost().size()).thenComparing(c -> -c.fit()).thenComparing(
                c -> c.gear().id().equals(gear) ? 0 : 1));
        return List.copyOf(all);
    }

    private double fit(Gear their, Gear own) {
        if (their.card().equals(own.card())) {
            return 1;
        }
        Card wanted = theirs.cards().get(their.card());
        Card there = mine.cards().get(own.card());
        if (wanted == null || there == null || wanted.commands().isEmpty()) {
            return 0;
        }
        long same = wanted.commands().stream().filter(c -> there.commands().stream().anyMatch(t -> t.id().equals(c
                .id()) || t.title().toString().equalsIgnoreCase(c.title().toString()))).count();
        return same * 0.99 / wanted.commands().size();
    }

    /** What is likely meant: for each gear the best that is here, each once; else it is new. */
    public Map<String, Choice> proposed() {
        Map<String, Choice> choices = new LinkedHashMap<>();
        Map<String, String> taken = new HashMap<>();
        for (Gear g : theirs.board().gear()) {
            Optional<Candidate> best = of(g.id()).stream().filter(c -> !taken.containsKey(c.gear().id())).findFirst();
            best.ifPresent(c -> taken.put(c.gear().id(), g.id()));
            choices.put(g.id(), best.<Choice>map(c -> new Choice.Mine(c.gear().id())).orElseGet(Choice.New::new));
        }
        return choices;
    }

    /** Their board with its gear reached as chosen; and what has no counterpart, in words. */
    public CardExchange.Exchanged applied(Map<String, Choice> choices) {
        Rig now = theirs;
        List<String> lost = new ArrayList<>();
        for (Map.Entry<String, Choice> e : choices.entrySet()) {
            switch (e.getValue()) {
                case Choice.Mine m -> {
                    CardExchange.Exchanged swapped = swapped(now, e.getKey(), mine.board().gear(m.gear())
                            .orElseThrow());
                    now = swapped.rig();
                    lost.addAll(swapped.lost());
                }
                case Choice.StandIn s -> {
                    Board board = now.board();
                    now = now.with(GearEdits.change(board, e.getKey(), g -> g.withLink(g.link().reached(g.link()
                            .protocol(), s.address()))));
                }
                case Choice.New _ -> {
                    // It stays as it is.
                }
            }
        }
        return new CardExchange.Exchanged(now, List.copyOf(lost));
    }

    private CardExchange.Exchanged swapped(Rig rig, String gear, Gear own) {
        Gear their = rig.board().gear(gear).orElseThrow();
        Card card = Objects.requireNonNull(mine.cards().get(own.card()));
        CardExchange.Exchanged other = their.card().equals(own.card())
                ? new CardExchange.Exchanged(rig.withCard(card), List.of())
                : CardExchange.to(rig, gear, card);
        Board reached = GearEdits.change(other.rig().board(), gear, g -> {
            Gear as = g.withName(own.name()).withLink(own.link());
            Gear listed = own.lists().isEmpty() ? as : as.withLists(own.lists());
            return own.patch().isEmpty() ? listed : listed.withPatch(own.patch());
        });
        CardExchange.Exchanged fitted = CardExchange.fitted(other.rig().with(reached));
        List<String> lost = new ArrayList<>(other.lost());
        lost.addAll(fitted.lost());
        return new CardExchange.Exchanged(fitted.rig(), List.copyOf(lost));
    }
}
