package rombix.core.listen;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Packet;
import rombix.core.card.Reply;
import rombix.core.card.value.Computed;
import rombix.core.card.value.Computed.Form;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.Meaning;
import rombix.core.card.value.WireValue;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * One message of a login as people type it, and the packet of a card that it stands for. Immutable.
 *
 * <p>A part of an answer is written as a JSON pointer ({@code /salt}), or as the words before it in a line
 * ({@code SALT }). A condition is a pointer with a value ({@code /welcome = true}), or several with commas between,
 * or the words that a line begins with.
 *
 * @param to where it goes; {@link #WAIT} where nothing is sent
 * @param text what it carries: JSON or a text, with places such as <code>{gear.secret}</code>
 * @param computed values that stand in {@code text}, each computed from those before it
 * @param accepted the condition of an answer that lets the login go on; blank for any answer
 * @param refused the condition of an answer that refuses it; blank where there is none
 * @param reason the part of that answer that says why; blank for all of it
 * @param kept parts of the answer for later messages
 * @param answered whether an answer is awaited at all
 */
@RecordBuilder
public record LoginMessage(String to, String text, List<Calculation> computed, String accepted, String refused,
        String reason, List<Kept> kept, boolean answered) implements LoginMessageBuilder.With {
    /** The address of a message that only waits for what the device sends. */
    public static final String WAIT = "wait";
    private static final String REST = "\\(\\.\\+\\)$";

    /**
     * A value that is computed.
     *
     * @param over what it is computed over, with places
     * @param key the key of an HMAC, with places; blank for other functions
     */
    @RecordBuilder
    public record Calculation(String name, Computed.Way way, String over, String key,
            Form form) implements LoginMessageCalculationBuilder.With {
    }

    /** A part of an answer that is kept under a name: {@code salt} is <code>{gear.salt}</code> from then on. */
    @RecordBuilder
    public record Kept(String part, String name) implements LoginMessageKeptBuilder.With {
    }

    public LoginMessage {
        computed = List.copyOf(computed);
        kept = List.copyOf(kept);
    }

    /** One that waits for what the device sends when it is connected. */
    public static LoginMessage waiting() {
        return new LoginMessage(WAIT, "", List.of(), "", "", "", List.of(), true);
    }

    /** The message that a packet of a card stands for; empty where the card says more than can be typed here. */
    public static Optional<LoginMessage> of(Packet packet) {
        Reply reply = packet.reply();
        LoginMessage like = new LoginMessage(packet.to().toString(), text(packet), packet.with().entrySet().stream()
                .flatMap(e -> calculation(e.getKey(), e.getValue()).stream()).toList(),
                reply == null ? "" : condition(reply.is()), reply == null ? "" : condition(reply.error()),
                reply == null || reply.error() == null ? "" : part(reply.error()),
                reply == null
                        ? List.of()
                        : reply.keep().entrySet().stream().sorted(Map.Entry.comparingByKey())
                                .map(e -> new Kept(part(e.getValue()), e.getKey())).toList(),
                reply != null);
        try {
            return like.packet().equals(packet) ? Optional.of(like) : Optional.empty();
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static String text(Packet packet) {
        return packet.json() != null
                ? packet.json().toString()
                : packet.args().size() == 1 && packet.args().getFirst() instanceof WireValue.Filled(Template filled)
                        ? filled.toString()
                        : packet.args().size() == 1 && packet.args().getFirst() instanceof WireValue.Fixed(Value fixed)
                                ? fixed.toString()
                                : "";
    }

    private static Optional<Calculation> calculation(String name, WireValue value) {
        return value instanceof Computed c && c.over() instanceof WireValue.Filled(Template over)
                && (c.key() == null || c.key() instanceof WireValue.Filled)
                        ? Optional.of(new Calculation(name, c.compute(), over.toString(),
                                c.key() instanceof WireValue.Filled(Template key) ? key.toString() : "",
                                c.written() == null ? Form.HEX : c.written()))
                        : Optional.empty();
    }

    private static String condition(@Nullable Arrival which) {
        if (which == null) {
            return "";
        }
        if (!which.where().isEmpty()) {
            return which.where().entrySet().stream().filter(e -> !e.getValue().any().isEmpty()).map(e -> condition(e
                    .getKey(), e.getValue().any().getFirst())).collect(Collectors.joining(", "));
        }
        return which.pattern() == null
                ? ""
                : plain(which.pattern().toString().replaceFirst("^\\^", "").replaceFirst(REST, "")).strip();
    }

    /** The condition that a value stands at a JSON pointer. */
    public static String condition(String pointer, Value value) {
        return pointer + " = " + (value instanceof Value.Flag(boolean on) ? on : value);
    }

    private static String part(Arrival where) {
        return where.at() != null
                ? where.at().toString()
                : where.pattern() != null && where.pattern().toString().endsWith("(.+)")
                        ? plain(where.pattern().toString().replaceFirst("^\\^", "").replaceFirst(REST, ""))
                        : "";
    }

    private static String plain(String pattern) {
        return pattern.replaceAll("\\\\(\\W)", "$1");
    }

    /**
     * The packet of a card.
     *
     * @throws IllegalArgumentException in plain words, where something of it can't be
     */
    public Packet packet() {
        Map<String, WireValue> with = new LinkedHashMap<>();
        for (Calculation c : computed) {
            if (c.name().isBlank()) {
                throw new IllegalArgumentException("Name each computed value.");
            }
            boolean keyed = c.way().keyed();
            with.put(c.name().strip(), new Computed(c.way(), new WireValue.Filled(new Template(c.over())),
                    keyed ? new WireValue.Filled(new Template(c.key())) : null, c.form() == Form.HEX ? null : c.form(),
                    null));
        }
        JsonNode tree = to.equals(WAIT) ? null : JsonTree.read(text);
        boolean json = tree != null && tree.isContainer();
        List<WireValue> args = json || text.isEmpty() || to.equals(WAIT)
                ? List.of()
                : List.of(new Template(text).places().isEmpty()
                        ? new WireValue.Fixed(Value.of(text))
                        : new WireValue.Filled(new Template(text)));
        return new Packet(new Template(to.strip()), args, json ? tree : null, Map.of(), with, null, reply());
    }

    private @Nullable Reply reply() {
        if (!answered) {
            return null;
        }
        Map<String, Arrival> keep = new LinkedHashMap<>();
        for (Kept k : kept) {
            if (k.name().isBlank()) {
                throw new IllegalArgumentException("Name each part that is kept.");
            }
            keep.put(k.name().strip(), arrival("", k.part()));
        }
        return new Reply(accepted.isBlank() ? null : arrival(accepted, ""), refused.isBlank()
                ? null
                : arrival(refused, reason), null, keep, null, Map.of());
    }

    /** A message that is as a condition says, and the part of it that counts. */
    private static Arrival arrival(String condition, String part) {
        Map<String, Meaning> where = new LinkedHashMap<>();
        String pattern = null;
        if (condition.startsWith("/")) {
            for (String one : condition.split(",\\s*(?=/)")) {
                int equals = one.indexOf('=');
                if (equals < 0) {
                    throw new IllegalArgumentException("“" + one + "” needs a value, such as " + one.strip()
                            + " = true.");
                }
                where.put(one.substring(0, equals).strip(), Meaning.of(value(one.substring(equals + 1).strip())));
            }
        } else if (!condition.isBlank()) {
            pattern = "^" + HeardValue.literal(condition.strip());
        }
        if (!part.isBlank() && !part.startsWith("/")) {
            pattern = "^" + HeardValue.literal(part) + "(.+)";
        }
        return new Arrival(null, 0, where, part.startsWith("/") ? new Template(part.strip()) : null, pattern == null
                ? null
                : new Template(pattern), null, null, null, null, null, null);
    }

    private static Value value(String text) {
        return text.matches("true|false")
                ? Value.of(text.equals("true"))
                : text.matches("-?\\d+(\\.\\d+)?") ? Value.of(Double.parseDouble(text)) : Value.of(text);
    }
}
