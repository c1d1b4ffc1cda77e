package rombix.app.edit;

import com.google.re2j.Matcher;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.found.Proposal;
import rombix.core.listen.CardMaking;
import rombix.core.store.BadFile;
import rombix.core.store.CardExchange.Exchanged;
import rombix.core.store.CardExchange;
import rombix.core.store.CardLibrary;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.twin.Order;
import rombix.core.value.Template;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;

/**
 * Edits of the cards of a board's gear: each is an edit of the board, and can be undone like any other. A card that
 * ships is not changed: its gear gets one of its own, which is kept beside the board.
 */
@OwnedBy(Owner.INTERFACE)
public final class CardEdits {
    /** A word, or several between quotes. */
    private static final TextPattern WORD = new TextPattern("\"((?:[^\"\\\\]|\\\\.)*)\"|(\\S+)");
    private static final Protocol FIRST = Protocol.of("osc");

    private final Workbench bench;

    public CardEdits(Workbench bench) {
        this.bench = bench;
    }

    /** Adds gear whose card says nothing yet; the gear's id. */
    public String add() {
        String title = "New gear";
        bench.editRig("add custom gear", rig -> {
            Card card = CardMaking.empty(Edits.freshId(title, "gear", rig.cards()::containsKey), title);
            Rig with = rig.withCard(card);
            return with.with(GearEdits.add(rig.board(), card, FIRST));
        });
        return bench.board().gear().getLast().id();
    }

    /** Whether gear that speaks it can have a card of its own. */
    public static boolean ownable(Protocol protocol) {
        return protocol.descriptor().reach() != Reach.HERE && !protocol.id().equals("sound");
    }

    /** Adds gear that was found, described by a card, with all that is known of it. */
    public void add(Proposal of, Card card) {
        bench.edit("add “" + of.name() + "” (discovered)", b -> found(GearEdits.add(b, card, of.found().protocol()),
                of, card.equals(of.fits()) ? of.lists() : Map.of()));
    }

    /** Adds gear that was found, whose card says nothing yet; the gear's id. */
    public String addOwn(Proposal of) {
        bench.editRig("add “" + of.name() + "” (discovered)", rig -> {
            Card card = CardMaking.empty(Edits.freshId("own " + of.name(), "own", rig.cards()::containsKey), of
                    .name());
            return rig.withCard(card).with(found(GearEdits.add(rig.board(), card, of.found().protocol()), of, Map
                    .of()));
        });
        return bench.board().gear().getLast().id();
    }

    /** The last gear of a board, reached as it was found, and called as it calls itself where nothing else is. */
    private static Board found(Board board, Proposal of, Map<String, List<Card.Item>> lists) {
        Gear last = board.gear().getLast();
        boolean free = board.gear().stream().noneMatch(g -> g.name().equals(of.name()));
        Gear.Link link = board.gear().stream().filter(g -> g != last && of.found().at(g.link().protocol(), g.link()
                .address())).map(Gear::link).findFirst().orElse(of.found().link()); // A login that is known is the same.
        Gear named = last.withLink(link).withName(free ? of.name() : last.name()).withLists(lists);
        return GearEdits.change(board, last.id(), _ -> named);
    }

    /** Names a gear, and its card with it where that is of its own. */
    public void name(String gear, String name) {
        if (!name.isBlank()) {
            bench.editRig("name “" + name.strip() + "”", rig -> {
                Rig named = rig.with(GearEdits.change(rig.board(), gear, g -> g.withName(name.strip())));
                Card card = card(named, gear);
                return ships(card) ? named : named.withCard(CardMaking.titled(card, name.strip()));
            });
        }
    }

    /** The card as it is kept, without what the gear's patch adds to it. */
    private static Card card(Rig rig, String gear) {
        return Objects.requireNonNull(rig.cards().get(rig.board().gear(gear).orElseThrow().card()));
    }

    private static boolean ships(Card card) {
        return CardLibrary.shipped().containsKey(card.id());
    }

    /** Changes the card of a gear; what the board names of it and does not fit any more, each in words. */
    public List<String> change(String name, String gear, UnaryOperator<Card> change) {
        List<String> lost = new ArrayList<>();
        bench.editRig(name, rig -> {
            Rig own = owned(rig, gear);
            Exchanged changed = CardExchange.changed(own, change.apply(card(own, gear)));
            lost.addAll(changed.lost());
            return changed.rig();
        });
        return lost;
    }

    /** What is wrong with a gear's card after a change, in words; empty where nothing is. */
    public Optional<String> wrong(String gear, UnaryOperator<Card> change) {
        try {
            return Optional.ofNullable(wrong(CardLibrary.format(change.apply(card(bench.rig(), gear)))));
        } catch (IllegalArgumentException e) {
            return Optional.of(String.valueOf(e.getMessage()));
        }
    }

    /** What a change of a gear's card would take away, each in words. */
    public List<String> lost(String gear, UnaryOperator<Card> change) {
        Rig own = owned(bench.rig(), gear);
        return CardExchange.changed(own, change.apply(card(own, gear))).lost();
    }

    /** What taking another card for a gear would take away, each in words. */
    public List<String> lost(String gear, Card next) {
        return CardExchange.to(bench.rig(), gear, next).lost();
    }

    /** Has another card describe a gear. */
    public void exchange(String gear, Card next) {
        bench.editRig("use the card “" + next.title() + "”", rig -> CardExchange.to(rig, gear, next).rig());
    }

    /** The board with a card of the gear's own, which is a copy where the present one ships. */
    private static Rig owned(Rig rig, String gear) {
        Card card = card(rig, gear);
        if (!ships(card)) {
            return rig;
        }
        Gear of = rig.board().gear(gear).orElseThrow();
        String id = Edits.freshId("own " + of.name(), "own", rig.cards()::containsKey);
        return CardExchange.to(rig, gear, copy(card, id, of.name())).rig();
    }

    private static Card copy(Card c, String id, String title) {
        return c.with(b -> b.card(Card.FORMAT).id(id).title(title));
    }

    /** What is wrong with a card as text, in words; null where nothing is. */
    public static @Nullable String wrong(String text) {
        List<BadFile> wrong = CardLibrary.check(Path.of("card.json"), text);
        return wrong.isEmpty() ? null : wrong.getFirst().reason();
    }

    /**
     * What was typed to be sent, as it goes out.
     *
     * @throws IllegalArgumentException in plain words, where it is no message
     */
    public static Order.Outgoing typed(Protocol protocol, String address, String text) {
        if (!protocol.descriptor().takes(address.strip())) {
            throw new IllegalArgumentException("“" + address + "” is not " + protocol.descriptor().expected());
        }
        List<Value> args = new ArrayList<>();
        List<As> forms = new ArrayList<>();
        if (!protocol.descriptor().bothWays()) {
            if (!text.isEmpty()) {
                args.add(Value.of(text));
                forms.add(As.TEXT);
            }
            return new Order.Outgoing(address.strip(), args, forms);
        }
        for (Matcher m = WORD.in(text); m.find();) {
            String quoted = m.group(1);
            String word = Objects.requireNonNullElse(quoted, m.group());
            boolean number = quoted == null && word.matches("-?\\d+(\\.\\d+)?");
            args.add(number ? Value.of(Double.parseDouble(word)) : Value.of(word.replaceAll("\\\\(.)", "$1")));
            forms.add(!number ? As.TEXT : word.contains(".") ? As.PLAIN : As.INT);
        }
        return new Order.Outgoing(address.strip(), args, forms);
    }

    /** The same as an order to a gear. */
    public static Order order(String gear, Order.Outgoing packet) {
        Card.Command byHand = new Card.Command("by-hand", new Template("by hand"), List.of(), List
                .of(), Map.of(), List.of(), null, null, null, null, List.of());
        return new Order(gear, byHand, Map.of(), "by hand", List.of(packet), Map.of(), Set.of());
    }
}
