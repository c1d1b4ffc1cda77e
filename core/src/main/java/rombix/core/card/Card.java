package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonFormat;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.WireValue;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Ids;
import rombix.core.value.InOrder;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.core.value.Visible;

/**
 * A kind of gear as data.
 *
 * @param card the version of the card format
 * @param id what boards name it by
 * @param title what people call it
 * @param icon the icon's literal
 * @param lists things of which the gear has several (channels, lamps), by the name of the place that stands for one
 * @param readings what it reports
 * @param commands what it can be told
 * @param hotkeys keys that it listens to itself on this machine, whatever is in front
 * @param greeting what to send at connection, so that it tells its readings
 * @param polls what to ask it again and again
 * @param settings what is set for such a gear beside its address; its commands have them as {@code {gear.ID}}
 * @param channels what the slots of such a fixture mean, one after the other: its personality
 * @param patch where the fixtures of a patch stand in its lists: LIST.FIELD for each thing that they can do
 * @param age for how long an order may wait until it can be sent, in milliseconds; 2,000 when absent
 * @param window how many orders may be unanswered at once; as many as there are where their replies say what they
 *            belong to, else one
 * @param expired which message says that a login has run out, by protocol
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Card(int card, String id, String title, String icon, Map<String, List<Item>> lists,
        List<ReadingSpec> readings, List<Command> commands, List<String> hotkeys,
        Map<Protocol, List<Packet>> greeting, Map<Protocol, List<Poll>> polls, List<Setting> settings,
        List<Channel> channels, Map<String, String> patch, @Nullable Long age, @Nullable Integer window,
        Map<Protocol, Arrival> expired) implements CardBuilder.With {
    /** The card format that this version of Rombix writes. */
    public static final int FORMAT = 3;
    private static final long USUAL_AGE = 2000;
    private static final long SHORTEST_AGE = 100;
    private static final long LONGEST_AGE = 600_000;
    private static final int WIDEST = 1000;

    public Card {
        id = Ids.checked(Objects.requireNonNull(id, "a card needs an \"id\""));
        title = Visible.text(Objects.requireNonNull(title, "a card needs a \"title\""));
        icon = Objects.requireNonNullElse(icon, "mdi2c-chip");
        lists = InOrder.of(lists);
        readings = List.copyOf(Objects.requireNonNullElse(readings, List.of()));
        commands = List.copyOf(Objects.requireNonNullElse(commands, List.of()));
        hotkeys = List.copyOf(Objects.requireNonNullElse(hotkeys, List.of()));
        greeting = InOrder.of(greeting);
        polls = InOrder.of(polls);
        settings = List.copyOf(Objects.requireNonNullElse(settings, List.of()));
        channels = List.copyOf(Objects.requireNonNullElse(channels, List.of()));
        patch = InOrder.of(patch);
        expired = InOrder.of(expired);
        if (window != null && (window < 1 || window > WIDEST)) {
            throw new IllegalArgumentException("\"window\" is a number from 1 to " + WIDEST);
        }
        if (age != null && (age < SHORTEST_AGE || age > LONGEST_AGE)) {
            throw new IllegalArgumentException("\"age\" is a time from %d to %d ms".formatted(SHORTEST_AGE,
                    LONGEST_AGE));
        }
    }

    /** What the slots of a fixture mean, as a card. */
    public static Card personality(String id, String title, List<Channel> channels) {
        return new Card(FORMAT, id, title, "mdi2l-lightbulb-outline", Map.of(), List.of(), List.of(), List.of(), Map
                .of(), Map.of(), List.of(), channels, Map.of(), null, null, Map.of());
    }

    /** For how long an order may wait until it can be sent, in milliseconds: what was right then may be wrong later. */
    public long ageMillis() {
        return age == null ? USUAL_AGE : age;
    }

    /** The command with this id. */
    public Optional<Command> command(String commandId) {
        return commands.stream().filter(c -> c.id().equals(commandId)).findFirst();
    }

    /** The protocols in which gear of this card can be told something or tells something; the usual one first. */
    public Set<Protocol> protocols() {
        Set<Protocol> all = new LinkedHashSet<>();
        commands.forEach(c -> all.addAll(c.send().keySet()));
        readings.forEach(r -> all.addAll(r.arrives().keySet()));
        return all;
    }

    /** What the addresses of this card want to know of each item of a list, beside its id and its name, in a protocol. */
    public Set<String> fields(String list, Protocol protocol) {
        return places(list, protocol).keySet();
    }

    /** The addresses that each of those fields stands in, with the place that it takes there. */
    public Map<String, Map<Template, String>> places(String list, Protocol protocol) {
        Map<String, Map<Template, String>> places = new TreeMap<>();
        for (Command command : commands) {
            Set<String> of = command.params().stream()
                    .filter(p -> p.type() == ValueType.CHOICE && p.list().equals(list))
                    .map(Param::id).collect(Collectors.toSet());
            command.send().getOrDefault(protocol, List.of()).forEach(packet -> {
                places(packet.to(), of, true, places);
                packet.places().forEach(place -> places(new Template("{" + place + "}"), of, false, places));
            });
        }
        for (ReadingSpec reading : readings) {
            reading.arrives().getOrDefault(protocol, List.of()).forEach(arrival -> {
                places(arrival.address(), Set.of(list), true, places);
                arrival.places().forEach(place -> places(new Template("{" + place + "}"), Set.of(list), false, places));
            });
        }
        places.keySet().removeAll(Set.of("id", "name"));
        return places;
    }

    private static void places(Template text, Set<String> items, boolean address,
            Map<String, Map<Template, String>> to) {
        for (String place : text.places()) {
            int dot = place.indexOf('.');
            if (dot > 0 && items.contains(place.substring(0, dot))) {
                Map<Template, String> of = to.computeIfAbsent(place.substring(dot + 1), _ -> new LinkedHashMap<>());
                if (address) {
                    of.put(text, place);
                }
            }
        }
    }

    /** One of several: an id, a name for people, and any further fields that addresses use. */
    public record Item(String id, String name, @JsonAnySetter @JsonAnyGetter Map<String, Object> fields) {
        public Item {
            Objects.requireNonNull(id, "an item needs an \"id\"");
            name = Objects.requireNonNullElse(name, id);
            fields = InOrder.of(fields);
        }

        /** The value of a field: the id, the name, or one of the further ones. */
        public @Nullable Value field(String field) {
            Object v = switch (field) {
                case "id" -> id;
                case "name" -> name;
                default -> fields.get(field);
            };
            return v == null ? null : v instanceof Value known ? known : Value.fromJson(v);
        }
    }

    /** How alarming a value is, told on faces with its word. */
    public enum Tone {
        @JsonProperty("air")
        AIR, @JsonProperty("ready")
        READY, @JsonProperty("quiet")
        QUIET
    }

    /** What a flag's value is called. */
    public record Word(String word, Tone tone) {
        public Word {
            Objects.requireNonNull(word, "a word needs a \"word\"");
            tone = Objects.requireNonNullElse(tone, Tone.QUIET);
        }
    }

    /**
     * A reading, or a family of them: {@code muted/{channel}} stands for one reading a channel.
     *
     * @param arrives how it comes in, by protocol, in one way or several; where none is given it is taken to be as last sent
     * @param yes the word for yes, and {@code no} for no, on a flag
     * @param min the least value, in {@code unit}
     * @param step how finely it is shown, and moved by a hand, in {@code unit}; a tenth where nothing is said
     * @param indicator whether it is worth an indicator that is always in sight; in a family, of the items with a field
     *            {@code lamp} if there are any
     * @param moment whether it tells that something happens, not how something is: each arrival counts, the same again too
     */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    public record ReadingSpec(Template id, Template title, ValueType type, @Nullable String unit, @Nullable Double min,
            @Nullable Double max, @Nullable Double step, @Nullable String choices, @Nullable Word yes,
            @Nullable Word no,
            @JsonProperty("lamp") boolean indicator,
            @JsonFormat(with = JsonFormat.Feature.ACCEPT_SINGLE_VALUE_AS_ARRAY) Map<Protocol, List<Arrival>> arrives,
            @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean moment) {
        /** One that tells how something is. */
        public ReadingSpec(Template id, Template title, ValueType type, @Nullable String unit, @Nullable Double min,
                @Nullable Double max, @Nullable Double step, @Nullable String choices, @Nullable Word yes,
                @Nullable Word no, boolean indicator, Map<Protocol, List<Arrival>> arrives) {
            this(id, title, type, unit, min, max, step, choices, yes, no, indicator, arrives, false);
        }

        public ReadingSpec {
            Objects.requireNonNull(id, "a reading needs an \"id\"");
            title = Objects.requireNonNullElse(title, id);
            Objects.requireNonNull(type, "a reading needs a \"type\"");
            arrives = InOrder.of(arrives);
            if (arrives.values().stream().flatMap(List::stream).anyMatch(a -> a.from() == null)) {
                throw new IllegalArgumentException("an arrival needs \"from\"");
            }
            positive(step);
        }
    }

    private static void lasting(@Nullable String lasts) {
        try {
            if (lasts != null) {
                var readable = new Formula(lasts);
                Objects.requireNonNull(readable);
            }
        } catch (FormulaFault e) {
            throw new IllegalArgumentException("\"lasts\" isn't a formula: " + e.getMessage(), e);
        }
    }

    private static void positive(@Nullable Double step) {
        if (step != null && !(step > 0)) {
            throw new IllegalArgumentException("a \"step\" is greater than 0, not " + step);
        }
    }

    /** A parameter of a command. For a choice, {@code choices} names the list; its own id when absent. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Param(String id, @Nullable String title, ValueType type, @Nullable String unit, @Nullable Double min,
            @Nullable Double max, @Nullable Double step, @JsonProperty("default") @Nullable Value preset,
            @Nullable String choices) {
        public Param {
            Objects.requireNonNull(id, "a parameter needs an \"id\"");
            Objects.requireNonNull(type, "a parameter needs a \"type\"");
            positive(step);
        }

        /** The name of the list that a choice is made from. */
        public String list() {
            return choices == null ? id : choices;
        }

        /** What people call it. */
        public String label() {
            return title == null ? id : title;
        }
    }

    /** A reading that a command changes, and the value it gets. */
    public record Change(Template reading, WireValue to) {
        public Change {
            Objects.requireNonNull(reading, "a change needs a \"reading\"");
            Objects.requireNonNull(to, "a change needs a \"to\"");
        }
    }

    /** What undoes a command: another, with arguments; {@code before} is the value that the reading had before. */
    public record Undo(String command, Map<String, WireValue> with) {
        public Undo {
            Objects.requireNonNull(command, "an undo needs a \"command\"");
            with = InOrder.of(with);
        }
    }

    /**
     * Something the gear can be told.
     *
     * @param title its name, with places for the arguments: {@code Mute {channel}}
     * @param words more words to find it by
     * @param send what goes out, by protocol
     * @param takes how long it usually takes to have its effect, in milliseconds
     * @param waits whether a chain goes on only when it is done, or has failed; may stand for a parameter
     * @param lasts a formula of how long it goes on, in milliseconds, over its parameters and the fields of what they
     *            choose; 0 where it goes on until it is stopped
     * @param after what changes when that is over
     * @param urgent whether it goes out before all that waits: what stops a movement is such a command
     */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    public record Command(String id, Template title, List<String> words, List<Param> params,
            Map<Protocol, List<Packet>> send, List<Change> changes, @Nullable Undo undo, @Nullable Long takes,
            @Nullable WireValue waits, @Nullable String lasts, List<Change> after,
            @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean urgent) {
        /** One that waits for its turn. */
        public Command(String id, Template title, List<String> words, List<Param> params,
                Map<Protocol, List<Packet>> send, List<Change> changes, @Nullable Undo undo, @Nullable Long takes,
                @Nullable WireValue waits, @Nullable String lasts, List<Change> after) {
            this(id, title, words, params, send, changes, undo, takes, waits, lasts, after, false);
        }

        public Command {
            Objects.requireNonNull(id, "a command needs an \"id\"");
            title = Objects.requireNonNullElse(title, new Template(id));
            words = List.copyOf(Objects.requireNonNullElse(words, List.of()));
            params = List.copyOf(Objects.requireNonNullElse(params, List.of()));
            send = InOrder.of(send);
            changes = List.copyOf(Objects.requireNonNullElse(changes, List.of()));
            after = List.copyOf(Objects.requireNonNullElse(after, List.of()));
            lasting(lasts);
        }

        /** The parameter with this id. */
        public Optional<Param> param(String paramId) {
            return params.stream().filter(p -> p.id().equals(paramId)).findFirst();
        }
    }
}
