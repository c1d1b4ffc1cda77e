package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.patch.Fixture;
import rombix.core.value.Extra;
import rombix.core.value.Ids;
import rombix.core.value.Value;
import rombix.core.value.Visible;

/**
 * Something outside that can be commanded.
 *
 * @param card the id of its card
 * @param link how it is reached
 * @param lists its own lists of channels, lamps and the like, in place of its card's
 * @param patch its fixtures, where it has universes of slots
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Gear(String id, String name, String card, Link link, Map<String, List<Item>> lists, List<Fixture> patch,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements GearBuilder.With {

    /**
     * How a gear is reached.
     *
     * @param address HOST:PORT; for MIDI the name of the port
     * @param user the name it knows us by; none where it asks for none
     * @param secret the name of the password or token that it wants, which is kept on this computer, never here
     * @param tls how the connection is kept from others; not at all when null
     * @param settings what else is set for it, by the ids of its card's and its protocol's settings
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Link(Protocol protocol, String address, @Nullable String user, @Nullable String secret,
            @Nullable Tls tls, @JsonInclude(JsonInclude.Include.NON_EMPTY) Map<String, Value> settings,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) {
        /** What the name of a secret may be made of. */
        public static final String SECRET_NAME = "[A-Za-z0-9][A-Za-z0-9._-]{0,63}";

        public Link {
            Objects.requireNonNull(protocol, "a link needs a \"protocol\"");
            Objects.requireNonNull(address, "a link needs an \"address\"");
            if (secret != null && !secret.matches(SECRET_NAME)) {
                throw new IllegalArgumentException(
                        "a \"secret\" is a name of letters, digits, dots and dashes; the secret itself isn't in the board");
            }
            settings = Map.copyOf(Objects.requireNonNullElse(settings, Map.of()));
            extra = Extra.kept(extra);
        }

        public Link(Protocol protocol, String address, Map<String, Object> extra) {
            this(protocol, address, null, null, null, Map.of(), extra);
        }

        /** Reached another way; who we are there stays, where the protocol does. */
        public Link reached(Protocol over, String at) {
            return over.equals(protocol)
                    ? new Link(over, at, user, secret, tls, settings, extra)
                    : new Link(over, at, extra);
        }

        public Link withUser(@Nullable String next) {
            return new Link(protocol, address, next, secret, tls, settings, extra);
        }

        public Link withSecret(@Nullable String next) {
            return new Link(protocol, address, user, next, tls, settings, extra);
        }

        /** The names of all that it is told of what this computer keeps: its password or token, and our certificate. */
        public List<String> secrets() {
            return Stream.of(secret, tls == null ? null : tls.client()).filter(Objects::nonNull).toList();
        }

        /** With something set; as where nothing is set when null. */
        public Link withSetting(String id, @Nullable Value next) {
            Map<String, Value> all = new HashMap<>(settings);
            if (next == null) {
                all.remove(id);
            } else {
                all.put(id, next);
            }
            return new Link(protocol, address, user, secret, tls, all, extra);
        }

        public Link withTls(@Nullable Tls next) {
            return new Link(protocol, address, user, secret, next, settings, extra);
        }
    }

    /**
     * A connection over TLS.
     *
     * @param trust whose certificate is taken
     * @param certificate the certificate of one's own that counts, as PEM; only with {@link Trust#OWN}
     * @param client the name of the certificate that we show, which is kept with its key on this computer, never here;
     *            null where we show none
     */
    @RecordBuilder
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Tls(Trust trust, @Nullable String certificate, @Nullable String client,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements GearTlsBuilder.With {
        /** Whose certificate is taken. */
        public enum Trust {
            /** One that an authority known to this computer vouches for. */
            @JsonProperty("roots")
            ROOTS,
            /** One of one's own, or one that it vouches for. */
            @JsonProperty("own")
            OWN,
            /** The one that was shown first, ever after. */
            @JsonProperty("first-seen")
            FIRST_SEEN
        }

        public Tls {
            Objects.requireNonNull(trust, "\"tls\" needs a \"trust\"");
            if (trust == Trust.OWN && certificate == null) {
                throw new IllegalArgumentException("\"tls\" with its own certificate needs the \"certificate\"");
            }
            if (client != null && !client.matches(Link.SECRET_NAME)) {
                throw new IllegalArgumentException(
                        "a \"client\" is a name of letters, digits, dots and dashes; the certificate and its key aren't in the board");
            }
            extra = Extra.kept(extra);
        }

        public Tls(Trust trust, @Nullable String certificate, @Nullable String client) {
            this(trust, certificate, client, Map.of());
        }

        public Tls(Trust trust, @Nullable String certificate) {
            this(trust, certificate, null);
        }

    }

    public Gear {
        id = Ids.checked(Objects.requireNonNull(id, "a gear needs an \"id\""));
        name = Visible.text(Objects.requireNonNullElse(name, id));
        Objects.requireNonNull(card, "a gear needs a \"card\"");
        Objects.requireNonNull(link, "a gear needs a \"link\"");
        lists = Map.copyOf(Objects.requireNonNullElse(lists, Map.of()));
        patch = List.copyOf(Objects.requireNonNullElse(patch, List.of()));
        extra = Extra.kept(extra);
    }

    public Gear(String id, String name, String card, Link link, Map<String, List<Item>> lists,
            Map<String, Object> extra) {
        this(id, name, card, link, lists, List.of(), extra);
    }
}
