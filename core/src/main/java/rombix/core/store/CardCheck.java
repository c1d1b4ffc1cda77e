package rombix.core.store;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.Poll;
import rombix.core.card.Protocol;
import rombix.core.card.Setting;
import rombix.core.card.value.Computed;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.WireValue;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** What is wrong with a card, each with the place of its JSON and what was expected there. */
final class CardCheck {
    /** @param pointer the place as a JSON pointer */
    record Flaw(String pointer, String message) {
    }

    /** What a place finds under {@code gear} whatever its card. */
    private static final Set<String> OF_EVERY_GEAR = Set.of("user", "secret", "request", "time", "host");

    private static final int LENIENT = 2;

    private final Card card;
    private final Set<String> known;
    /** Whether what can never work is a flaw, too: older cards are read as they always were. */
    private final boolean strict;
    private final List<Flaw> flaws = new ArrayList<>();

    private CardCheck(Card card) {
        this.card = card;
        this.known = known(card);
        this.strict = card.card() > LENIENT;
    }

    /** All that is wrong with a card, in the order in which it stands there. */
    static List<Flaw> of(Card card) {
        CardCheck check = new CardCheck(card);
        check.settings();
        check.readings();
        check.commands();
        check.greetings();
        ChannelCheck.of(card, (pointer, message) -> check.flaw(pointer, "%s", message));
        return check.flaws;
    }

    private void flaw(String pointer, String message, Object... of) {
        flaws.add(new Flaw(pointer, message.formatted(of)));
    }

    private void readings() {
        Set<String> ids = new HashSet<>();
        Set<String> arrivals = new HashSet<>();
        for (int i = 0; i < card.readings().size(); i++) {
            ReadingSpec r = card.readings().get(i);
            String at = "/readings/" + i;
            if (!ids.add(r.id().toString())) {
                flaw(at + "/id", "two readings have the id “%s”; change one, as ids must be unique", r.id());
            }
            range(r.min(), r.max(), at);
            if ((r.yes() == null) != (r.no() == null)) {
                flaw(at + (r.yes() == null ? "/no" : "/yes"), "“yes” and “no” belong together: add the missing one");
            }
            places(r.title(), at + "/title", Set.copyOf(r.id().places()), "the reading's id");
            String choices = r.choices();
            if (r.type() == ValueType.CHOICE && choices != null) {
                list(choices, at + "/choices");
            }
            r.id().places().forEach(place -> list(place, at + "/id"));
            r.arrives().forEach((protocol, all) -> {
                for (int n = 0; n < all.size(); n++) {
                    arrival(r, protocol, all.get(n),
                            at + "/arrives/" + protocol.id() + (all.size() == 1 ? "" : "/" + n),
                            arrivals);
                }
            });
        }
    }

    private void arrival(ReadingSpec r, Protocol protocol, Arrival arrival, String at, Set<String> arrivals) {
        Template from = arrival.from();
        if (from == null) {
            return; // Refused on reading.
        }
        address(protocol, from, at + "/from");
        for (String place : arrival.places()) {
            if (!r.id().places().contains(base(place)) && !(r.type() == ValueType.LIST && place.equals(r.id()
                    .toString()))) {
                flaw(at + "/from", "“{%s}” is undefined: the reading's id has %s", place, r.id().places());
            }
        }
        for (String family : r.id().places()) {
            if (strict && arrival.places().stream().map(CardCheck::base).noneMatch(family::equals)) {
                flaw(at, "nothing determines “{%s}”: put it into “from”, “where”, “each” or “pattern”", family);
            }
        }
        arrival.places().forEach(place -> field(place, at + "/from"));
        if (arrival.list() != null && r.type() != ValueType.LIST) {
            flaw(at + "/list", "“list” needs a reading of type list; this one is a %s", word(r.type()));
        }
        if (!arrivals.add(protocol.id() + " " + arrival)) {
            flaw(at + "/from",
                    "another reading comes from “%s” with the same argument, so the two can't be distinguished; give one a different “arg”, “where”, “at”, “pattern” or “value”",
                    from);
        }
    }

    private static String word(ValueType type) {
        return type.name().toLowerCase(java.util.Locale.ROOT);
    }

    private void commands() {
        Set<String> ids = new HashSet<>();
        for (int i = 0; i < card.commands().size(); i++) {
            Command c = card.commands().get(i);
            String at = "/commands/" + i;
            if (!ids.add(c.id())) {
                flaw(at + "/id", "two commands have the id “%s”; change one, as ids must be unique", c.id());
            }
            Set<String> params = new HashSet<>();
            for (int p = 0; p < c.params().size(); p++) {
                param(c.params().get(p), params, at + "/params/" + p);
            }
            places(c.title(), at + "/title", params, "the parameters");
            for (Map.Entry<Protocol, List<Packet>> e : c.send().entrySet()) {
                for (int n = 0; n < e.getValue().size(); n++) {
                    String place = at + "/send/" + e.getKey().id() + "/" + n;
                    packet(e.getKey(), e.getValue().get(n), params, place, "the command “" + c.id() + "”");
                    if (e.getValue().get(n).each() != null) {
                        flaw(place + "/each",
                                "“each” is only allowed in greetings and polls, as a command is sent once");
                    }
                }
            }
            changes(c, params, at);
        }
    }

    private void param(Param p, Set<String> params, String at) {
        if (!params.add(p.id())) {
            flaw(at + "/id", "two parameters have the id “%s”; change one, as ids must be unique", p.id());
        }
        range(p.min(), p.max(), at);
        if (p.type() == ValueType.CHOICE) {
            list(p.list(), at + (p.choices() == null ? "/id" : "/choices"));
        } else if (p.type() == ValueType.LIST) {
            flaw(at + "/type",
                    "a parameter takes one value, so its type is number, text, flag, choice, colour, keys, place or path");
        }
        Value preset = p.preset();
        if (preset != null && !fits(p.type(), preset)) {
            flaw(at + "/default", "“%s” isn't a %s, which is the type of this parameter", preset, word(p.type()));
        }
    }

    private static boolean fits(ValueType type, Value value) {
        return switch (type) {
            case NUMBER -> value instanceof Value.Num;
            case FLAG -> value instanceof Value.Flag;
            case COLOUR -> value.toString().matches("#[0-9A-Fa-f]{6}");
            case TEXT, CHOICE, KEYS, PLACE, PATH, SECRET -> value instanceof Value.Text;
            case LIST -> false;
        };
    }

    /** A field of an item has to be one that an item of the card has; a gear's own list may have others. */
    private void field(String place, String at) {
        int dot = place.indexOf('.');
        List<Card.Item> items = dot < 0 ? List.of() : card.lists().getOrDefault(place.substring(0, dot), List.of());
        String field = place.substring(dot + 1);
        if (strict && !items.isEmpty() && items.stream().allMatch(i -> i.field(field) == null)) {
            flaw(at, "no %s has a field “%s”: there are %s", place.substring(0, dot), field,
                    Stream.concat(Stream.of("id",
                            "name"), items.stream().flatMap(i -> i.fields().keySet().stream())).distinct().sorted()
                            .toList());
        }
    }

    private void packet(Protocol protocol, Packet packet, Set<String> params, String at, String of) {
        address(protocol, packet.to(), at + "/to");
        packet.places().forEach(place -> field(place, at));
        if (strict) {
            PacketCheck.of(packet).forEach(wrong -> flaw(at + wrong.pointer(), "%s", wrong.message()));
        }
        for (String place : packet.to().places()) {
            if (!params.contains(base(place)) && !packet.with().containsKey(place)) {
                gears(place, at + "/to", "no parameter “%s” on %s".formatted(base(place), of));
            }
        }
        Set<String> made = new HashSet<>(params);
        packet.with().forEach((name, carry) -> {
            carry(carry, made, at + "/with/" + name);
            made.add(name);
        });
        for (int a = 0; a < packet.args().size(); a++) {
            carry(packet.args().get(a), made, at + "/args/" + a);
        }
        packet.head().forEach((name, carry) -> carry(carry, made, at + "/head/" + name));
        for (String place : packet.places()) {
            if (!made.contains(base(place)) && !place.startsWith(Packet.GEAR + ".")
                    && !packet.to().places().contains(place) && packet.args().stream().noneMatch(a -> a.places()
                            .contains(place))) {
                flaw(at + (packet.json() != null ? "/json" : "/reply"), "“{%s}” is undefined: there are %s",
                        place, made.stream().sorted().toList());
            }
        }
    }

    /** A place may stand for what belongs to the gear: a setting of the card, or what every gear has. */
    private void gears(String place, String at, String otherwise) {
        if (!place.startsWith(Packet.GEAR + ".")) {
            flaw(at, "%s", otherwise);
            return;
        }
        String name = place.substring(Packet.GEAR.length() + 1);
        if (!known.contains(name)) {
            flaw(at, "the gear has no “%s”: there are %s", name, known.stream().sorted().toList());
        }
    }

    /** What the link knows of every gear, what the card's settings and the protocols' are, and what replies leave. */
    private static Set<String> known(Card card) {
        Set<String> known = new HashSet<>(OF_EVERY_GEAR);
        card.settings().forEach(s -> known.add(s.id()));
        card.protocols().forEach(p -> p.descriptor().settings().forEach(s -> known.add(s.id())));
        Stream.of(card.greeting().values().stream().flatMap(List::stream), card.polls().values().stream().flatMap(
                List::stream).map(Poll::ask), card.commands().stream().flatMap(
                        c -> c.send().values().stream().flatMap(
                                List::stream)))
                .flatMap(p -> p).map(Packet::reply).filter(Objects::nonNull).forEach(r -> known
                        .addAll(r.keep().keySet()));
        return known;
    }

    /** What is sent without a command: at the start, and again and again. */
    private void greetings() {
        card.greeting().forEach((protocol, all) -> {
            for (int n = 0; n < all.size(); n++) {
                unasked(protocol, all.get(n), "/greeting/" + protocol.id() + "/" + n, "a greeting");
            }
        });
        card.polls().forEach((protocol, all) -> {
            for (int n = 0; n < all.size(); n++) {
                unasked(protocol, all.get(n).ask(), "/polls/" + protocol.id() + "/" + n + "/ask", "a poll");
            }
        });
    }

    /** What is said once, or for each item of a list. */
    private void unasked(Protocol protocol, Packet packet, String at, String of) {
        String each = packet.each();
        if (each != null) {
            list(each, at + "/each");
        }
        packet(protocol, packet, each == null ? Set.of() : Set.of(each), at, of);
    }

    private void settings() {
        Set<String> ids = new HashSet<>(OF_EVERY_GEAR);
        for (int i = 0; i < card.settings().size(); i++) {
            Setting s = card.settings().get(i);
            String at = "/settings/" + i;
            if (!ids.add(s.id())) {
                flaw(at + "/id", "“%s” is reserved; give the setting another id", s.id());
            }
            range(s.min(), s.max(), at);
            if (!Set.of(ValueType.NUMBER, ValueType.TEXT, ValueType.FLAG, ValueType.CHOICE).contains(s.type())) {
                flaw(at + "/type", "a setting is a number, a text, a flag or a choice, not a %s", word(s.type()));
            }
            if (s.type() == ValueType.CHOICE && s.choices().isEmpty()) {
                flaw(at, "a choice needs “choices”");
            }
            String wrong = s.preset() == null ? null : s.wrong(s.preset());
            if (wrong != null) {
                flaw(at + "/default", "%s", wrong);
            }
        }
    }

    private void changes(Command c, Set<String> params, String at) {
        for (int i = 0; i < c.changes().size(); i++) {
            String changed = c.changes().get(i).reading().toString();
            if (card.readings().stream().map(ReadingSpec::id).noneMatch(id -> id.toString().equals(changed))) {
                flaw(at + "/changes/" + i + "/reading", "no reading “%s” on this card; it has %s", changed, card
                        .readings().stream().map(r -> r.id().toString()).toList());
            }
            carry(c.changes().get(i).to(), params, at + "/changes/" + i + "/to");
        }
        Card.Undo undo = c.undo();
        if (undo == null) {
            return;
        }
        Command by = card.command(undo.command()).orElse(null);
        if (by == null) {
            flaw(at + "/undo/command", "no command “%s” on this card", undo.command());
            return;
        }
        undo.with().forEach((param, value) -> {
            if (by.param(param).isEmpty()) {
                flaw(at + "/undo/with/" + param, "the command “%s” has no parameter “%s”", by.id(), param);
            }
            if (!(value instanceof WireValue.Fixed)) {
                carry(value, params, at + "/undo/with/" + param);
            }
        });
    }

    /** What a value travels as names parameters that there are. */
    private void carry(WireValue value, Set<String> params, String at) {
        switch (value) {
            case WireValue.Fixed _ -> {
            }
            case WireValue.Filled f -> places(f.template(), at, params, "the parameters");
            case Mapped m -> {
                String of = m.of();
                if (of != null && !params.contains(base(of))) {
                    gears(of, at + "/of", "no parameter “%s” here; there are %s".formatted(base(of), params.stream()
                            .sorted().toList()));
                }
                if ((m.yes() == null) != (m.no() == null)) {
                    flaw(at, "“yes” and “no” belong together: add the missing one");
                }
            }
            case WireValue.Group g -> g.items().forEach(item -> carry(item, params, at));
            case Computed c ->
                c.places().stream().filter(place -> !params.contains(base(place))).forEach(place -> gears(
                        place, at, "“{%s}” is undefined".formatted(place)));
        }
    }

    private void places(Template template, String at, Set<String> there, String of) {
        for (String place : template.places()) {
            if (!there.contains(base(place))) {
                gears(place, at, "“{%s}” is undefined: %s are %s".formatted(place, of, there.stream().sorted()
                        .toList()));
            }
        }
    }

    private void list(String list, String at) {
        boolean listed = card.lists().containsKey(list) || card.readings().stream().anyMatch(r -> r
                .type() == ValueType.LIST && r.id().toString().equals(list));
        if (!listed) {
            flaw(at, "no list “%s”: the card's “lists” have %s, and no reading of type list has that id", list, card
                    .lists().keySet().stream().sorted().toList());
        }
    }

    private void range(@Nullable Double min, @Nullable Double max, String at) {
        if (min != null && max != null && min >= max) {
            flaw(at + "/min", "the minimum, %s, isn't below the maximum, %s", min, max);
        }
    }

    private void address(Protocol protocol, Template address, String at) {
        if (!protocol.descriptor().takes(address.toString())) {
            flaw(at, "“%s” isn't a valid %s address; expected %s", address, protocol.title(),
                    protocol.descriptor().expected());
        }
    }

    private static String base(String place) {
        int dot = place.indexOf('.');
        return dot < 0 ? place : place.substring(0, dot);
    }
}
