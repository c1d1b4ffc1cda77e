package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonTypeName;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Ids;

/** Triggers that another program pulls by a message: they run the press chain, which knows what the message said. */
public sealed interface MessageTrigger extends Trigger {
    /**
     * A call of a program, {@code POST /hook/NAME}, with the token that was made for that name.
     *
     * @param values names of what may come with the call: the chain knows them in braces
     */
    @RecordBuilder
    @JsonTypeName("http")
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    record Http(String name, List<String> values,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra)
            implements
                MessageTrigger,
                MessageTriggerHttpBuilder.With {
        /** How many values may come with a call. */
        public static final int MOST_VALUES = 16;

        public Http {
            name = Ids.checked(Objects.requireNonNull(name, "an HTTP trigger needs a \"name\""));
            values = List.copyOf(Objects.requireNonNullElse(values, List.of()));
            values.forEach(Ids::checked);
            if (values.size() > MOST_VALUES) {
                throw new IllegalArgumentException("an HTTP trigger has at most " + MOST_VALUES + " \"values\"");
            }
            extra = Extra.kept(extra);
        }

        public Http(String name, List<String> values) {
            this(name, values, Map.of());
        }

        @Override
        public Http normal() {
            return new Http(name, List.of());
        }

        @Override
        public String words() {
            return "HTTP /hook/" + name;
        }
    }

    /**
     * An MQTT message that comes by a broker of the board. What a broker kept from before does not count.
     *
     * @param topic a topic, or a topic filter with {@code +} and {@code #}
     * @param text what the message has to say; null where anything does
     */
    @RecordBuilder
    @JsonTypeName("mqtt")
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record Mqtt(String gear, String topic, @Nullable String text,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra)
            implements
                MessageTrigger,
                MessageTriggerMqttBuilder.With {
        public Mqtt {
            Objects.requireNonNull(gear, "an MQTT trigger needs a \"gear\"");
            Objects.requireNonNull(topic, "an MQTT trigger needs a \"topic\"");
            if (!topic.matches("(?:[^+#\\x00/]*|\\+)(?:/(?:[^+#\\x00/]*|\\+))*(?:(?<=/)#)?|#") || topic.isEmpty()) {
                throw new IllegalArgumentException(
                        "+ stands for one whole level of a topic and # for the rest, as in house/+/door");
            }
            extra = Extra.kept(extra);
        }

        public Mqtt(String gear, String topic, @Nullable String text) {
            this(gear, topic, text, Map.of());
        }

        @Override
        public Mqtt normal() {
            return new Mqtt(gear, topic, text);
        }

        @Override
        public String words() {
            return "MQTT " + topic + (text == null ? "" : " " + text);
        }
    }
}
