package rombix.core.chain;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.exc.MismatchedInputException;

/** A chain in a file: the list of its steps, or an object with {@code steps}, {@code always} and {@code putBack}. */
final class ChainJson {
    private ChainJson() {
    }

    /** Writes the short form where there is no always part. */
    static final class Writer extends ValueSerializer<Chain> {
        @Override
        public void serialize(Chain chain, JsonGenerator out, SerializationContext context) {
            if (chain.always().isEmpty() && !chain.putBack() && chain.extra().isEmpty()) {
                list(chain.steps(), out, context);
            } else {
                out.writeStartObject();
                out.writeName("steps");
                list(chain.steps(), out, context);
                if (!chain.always().isEmpty()) {
                    out.writeName("always");
                    list(chain.always(), out, context);
                }
                if (chain.putBack()) {
                    out.writeName("putBack");
                    out.writeBoolean(true);
                }
                chain.extra().forEach((name, value) -> context.defaultSerializeProperty(name, value, out));
                out.writeEndObject();
            }
        }

        private static void list(List<Step> steps, JsonGenerator out, SerializationContext context) {
            out.writeStartArray();
            for (Step step : steps) {
                context.findTypedValueSerializer(step.getClass(), true).serialize(step, out, context);
            }
            out.writeEndArray();
        }

        @Override
        public boolean isEmpty(SerializationContext context, Chain chain) {
            return chain.isEmpty();
        }
    }

    /** Reads both forms. */
    static final class Reader extends ValueDeserializer<Chain> {
        /** Reads a step; found once, when the first is read: finding it costs more than the step. */
        private volatile @Nullable ValueDeserializer<Object> step;

        @Override
        public Chain deserialize(JsonParser in, DeserializationContext context) {
            if (in.currentToken() == JsonToken.START_ARRAY) {
                return new Chain(list(in, context));
            }
            if (in.currentToken() != JsonToken.START_OBJECT) {
                throw MismatchedInputException.from(in, List.class, "a chain is a list of steps");
            }
            List<Step> steps = List.of();
            List<Step> always = List.of();
            boolean putBack = false;
            Map<String, Object> extra = new LinkedHashMap<>();

            while (in.nextToken() == JsonToken.PROPERTY_NAME) {
                String name = in.currentName();
                in.nextToken();
                switch (name) {
                    case "steps" -> steps = list(in, context);
                    case "always" -> always = list(in, context);
                    case "putBack" -> putBack = in.getBooleanValue();
                    default -> extra.put(name, context.readValue(in, Object.class));
                }
            }
            return new Chain(steps, always, putBack, extra);
        }

        private ValueDeserializer<Object> step(DeserializationContext context) {
            ValueDeserializer<Object> found = step;
            if (found == null) {
                found = context.findRootValueDeserializer(context.constructType(Step.class));
                step = found;
            }
            return found;
        }

        private List<Step> list(JsonParser in, DeserializationContext context) {
            if (in.currentToken() != JsonToken.START_ARRAY) {
                throw MismatchedInputException.from(in, List.class, "a chain is a list of steps");
            }
            List<Step> steps = new ArrayList<>();
            ValueDeserializer<Object> reader = step(context);
            while (in.nextToken() != JsonToken.END_ARRAY) {
                try {
                    if (in.currentToken() == JsonToken.VALUE_NULL) {
                        throw MismatchedInputException.from(in, Step.class, "a step is an object");
                    }
                    steps.add((Step) reader.deserialize(in, context));
                } catch (tools.jackson.core.JacksonException e) {
                    throw tools.jackson.databind.DatabindException.wrapWithPath(e, steps, steps.size());
                }
            }
            return steps;
        }
    }
}
