package rombix.core.store;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import com.fasterxml.jackson.annotation.Nulls;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.StreamWriteConstraints;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.core.exc.InputCoercionException;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.core.util.Separators;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.ObjectReader;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.InvalidNullException;
import tools.jackson.databind.exc.InvalidTypeIdException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.exc.ValueInstantiationException;
import tools.jackson.databind.json.JsonMapper;

/** JSON with errors that a person can act on. */
final class Json {
    private static final int DEEPEST = 20_000;
    private static final long STACK_BYTES = 256L << 20;
    /** What is nested no deeper than this is read on the stack that any thread has. */
    private static final int FLAT = 48;

    /** One thing a line, so that programs that compare lines tell what has changed. */
    private static final DefaultPrettyPrinter LINES = lines();

    /** Reads and writes boards and cards. */
    static final JsonMapper MAPPER = JsonMapper.builder(JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder().maxNestingDepth(DEEPEST).build())
            .streamWriteConstraints(StreamWriteConstraints.builder().maxNestingDepth(DEEPEST).build())
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .enable(StreamReadFeature.INCLUDE_SOURCE_IN_LOCATION).build())
            .addModule(new Records())
            .enable(SerializationFeature.INDENT_OUTPUT)
            .defaultPrettyPrinter(LINES)
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .changeDefaultNullHandling(n -> n.withContentNulls(Nulls.FAIL))
            .changeDefaultPropertyInclusion(i -> i.withValueInclusion(JsonInclude.Include.NON_NULL))
            .build();

    private Json() {
    }

    /** Reads a value, or says in one sentence why not and where. */
    static <T> T read(Path file, String text, Class<T> type, boolean strict) throws BadFile {
        ObjectReader reader = MAPPER.readerFor(type);
        if (strict) {
            reader = reader.with(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);
        } else {
            reader = reader.without(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);
        }
        ObjectReader configured = reader;
        try {
            T read = nesting(text) <= FLAT ? configured.readValue(text) : deep(() -> configured.readValue(text));
            if (read == null) {
                throw new BadFile(file, 1, 1, "expected " + kind(type) + ", not null");
            }
            return read;
        } catch (JacksonException e) {
            throw explained(file, text, e);
        }
    }

    /** The value as text. */
    static String write(Object value) {
        return deep(() -> MAPPER.writeValueAsString(value));
    }

    /** The value as text that is the same for all that are equal, whatever order their maps came in. */
    static String ordered(Object value) {
        return deep(() -> MAPPER.writer().with(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS).writeValueAsString(
                value));
    }

    /** The same in the form whose fingerprints this computer keeps: it never changes. */
    static String fingerprinted(Object value) {
        return deep(() -> MAPPER.writer().with(new DefaultPrettyPrinter()).with(
                SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS).writeValueAsString(value));
    }

    private static DefaultPrettyPrinter lines() {
        DefaultIndenter indenter = new DefaultIndenter("  ", "\n");
        return new DefaultPrettyPrinter(Separators.createDefaultInstance().withObjectNameValueSpacing(
                Separators.Spacing.AFTER).withObjectEmptySeparator("").withArrayEmptySeparator(""))
                .withObjectIndenter(indenter).withArrayIndenter(indenter);
    }

    /** How deep lists and objects stand within each other at most, however the text is damaged. */
    private static int nesting(String text) {
        int deepest = 0;
        int depth = 0;
        boolean quoted = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '"') {
                quoted = !quoted;
            } else if (quoted) {
                i += c == '\\' ? 1 : 0;
            } else if (c == '{' || c == '[') {
                deepest = Math.max(deepest, ++depth);
            } else if (c == '}' || c == ']') {
                depth--;
            }
        }
        return deepest;
    }

    /** Runs something on a stack that is deep enough for steps nested hundreds of times, and waits for it. */
    private static <T> T deep(Supplier<T> what) {
        FutureTask<T> task = new FutureTask<>(what::get);
        Thread thread = new Thread(null, task, "json", STACK_BYTES);
        thread.start();
        try {
            return task.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException cause) {
                throw cause;
            }
            throw new IllegalStateException("a file is nested too deeply", e.getCause());
        }
    }

    private static BadFile explained(Path file, String text, JacksonException e) {
        Place place = place(text, e);
        return new BadFile(file, place.line(), place.column(), words(e));
    }

    private static String words(JacksonException e) {
        return switch (e) {
            case InvalidTypeIdException t -> unknownKind(t);
            case InvalidNullException n -> "null isn't allowed here" + field(n) + ": set a value or remove the field";
            case UnrecognizedPropertyException u -> "unknown field “" + u.getPropertyName() + "”; expected one of "
                    + known(u);
            case InvalidFormatException f when f.getTargetType() != null && f.getTargetType().isEnum() ->
                "“" + f.getValue() + "” is not one of " + names(f.getTargetType());
            case ValueInstantiationException v when v.getCause() != null && v.getCause().getMessage() != null ->
                String.valueOf(v.getCause().getMessage());
            case MismatchedInputException m -> "expected " + kind(m.getTargetType()) + field(m);
            case StreamConstraintsException c when isNesting(c) ->
                "steps are nested too deeply here: at most %d levels"
                        .formatted(DEEPEST / 2);
            case StreamConstraintsException c -> "this " + (c.getOriginalMessage().startsWith("Number")
                    ? "number"
                    : "text") + " is too long";
            case InputCoercionException c -> "this number is out of range: expected a whole number "
                    + (c.getTargetType() == int.class
                            ? "from −2147483648 to 2147483647"
                            : "of up to 18 digits");
            case StreamReadException s when s.getOriginalMessage().startsWith("Duplicate Object property") ->
                "the field “" + s.getOriginalMessage().replaceAll("(?s)^[^\"]*\"|\".*", "") + "” is given twice";
            case StreamReadException s -> "not JSON here: " + firstLine(s.getOriginalMessage());
            case DatabindException d when d.getCause() != null && d.getCause().getMessage() != null ->
                String.valueOf(d.getCause().getMessage());
            default -> firstLine(e.getOriginalMessage());
        };
    }

    private static boolean isNesting(StreamConstraintsException e) {
        return e.getOriginalMessage().contains("nesting");
    }

    /** The names of all kinds of something, in files. */
    private static Stream<String> kinds(Class<?> of) {
        JsonTypeName name = of.getAnnotation(JsonTypeName.class);
        return name != null
                ? Stream.of(name.value())
                : of.isSealed() ? Arrays.stream(of.getPermittedSubclasses()).flatMap(Json::kinds) : Stream.empty();
    }

    /** That a step, a trigger or a control is of no kind that is known, or of none at all. */
    private static String unknownKind(InvalidTypeIdException e) {
        Class<?> base = e.getBaseType().getRawClass();
        JsonTypeInfo info = base.getAnnotation(JsonTypeInfo.class);
        String kind = info == null ? "kind" : info.property();
        String known = kinds(base).collect(Collectors.joining(", "));
        return e.getTypeId() == null
                ? "“%s” is missing: expected one of %s".formatted(kind, known)
                : "unknown %s “%s”; expected one of %s. A newer Rombix may know it.".formatted(kind, e.getTypeId(),
                        known);
    }

    private static String field(DatabindException e) {
        List<JacksonException.Reference> path = e.getPath();
        for (int i = path.size() - 1; i >= 0; i--) {
            if (path.get(i).getPropertyName() != null) {
                return " for “" + path.get(i).getPropertyName() + "”";
            }
        }
        return "";
    }

    private static String kind(@org.jspecify.annotations.Nullable Class<?> type) {
        if (type == null) {
            return "something else";
        }
        if (type == int.class || type == long.class || type == Integer.class || type == Long.class) {
            return "a whole number";
        }
        if (type == double.class || type == Double.class) {
            return "a number";
        }
        if (type == boolean.class || type == Boolean.class) {
            return "true or false";
        }
        if (type == String.class || type.isEnum()) {
            return "a text in quotes";
        }
        if (Iterable.class.isAssignableFrom(type)) {
            return "a list in [ ]";
        }
        return type.isRecord() || java.util.Map.class.isAssignableFrom(type) || type.isInterface()
                ? "an object in { }"
                : "a value";
    }

    private static String names(Class<?> type) {
        List<String> names = new ArrayList<>();
        for (Object constant : type.getEnumConstants()) {
            names.add(MAPPER.convertValue(constant, String.class));
        }
        return String.join(", ", names);
    }

    private static String known(UnrecognizedPropertyException u) {
        return u.getKnownPropertyIds() == null
                ? "none"
                : String.join(", ", u.getKnownPropertyIds().stream().map(String::valueOf).sorted().toList());
    }

    private static String firstLine(String message) {
        return message.lines().findFirst().orElse("the text ends too early").replaceAll(" \\(.*", "");
    }

    /** A place in a text; lines and columns count from 1. */
    record Place(int line, int column) {
    }

    private static Place place(String text, JacksonException e) {
        if (e instanceof StreamConstraintsException c && isNesting(c)) {
            return tooDeep(text);
        }
        TokenStreamLocation at = e.getLocation();
        if (!(e instanceof StreamReadException) && e.getPath() != null && !e.getPath().isEmpty()) {
            StringBuilder pointer = new StringBuilder();
            for (JacksonException.Reference r : e.getPath()) {
                pointer.append('/').append(r.getPropertyName() == null
                        ? String.valueOf(r.getIndex())
                        : r.getPropertyName().replace("~", "~0").replace("/", "~1"));
            }
            Place exact = find(text, pointer.toString());
            if (exact.line() > 0) {
                return exact;
            }
        }
        return at == null ? new Place(0, 0) : new Place(at.getLineNr(), Math.max(1, at.getColumnNr()));
    }

    /** Where a text is nested more deeply than it may. */
    private static Place tooDeep(String text) {
        try (JsonParser parser = MAPPER.createParser(text)) {
            TokenStreamLocation last = parser.currentLocation();
            try {
                while (parser.nextToken() != null) {
                    last = parser.currentLocation();
                }
            } catch (JacksonException e) {
                // Here it is.
            }
            return new Place(last.getLineNr(), last.getColumnNr());
        }
    }

    /** Where the value at a JSON pointer begins; line 0 if there is no such value. Goes only where the pointer leads. */
    static Place find(String text, String pointer) {
        String[] way = pointer.isEmpty() ? new String[0] : pointer.substring(1).split("/", -1);
        try (JsonParser parser = MAPPER.createParser(text)) {
            parser.nextToken();
            for (String part : way) {
                if (!enter(parser, part.replace("~1", "/").replace("~0", "~"))) {
                    return new Place(0, 0);
                }
            }
            TokenStreamLocation at = parser.currentTokenLocation();
            return new Place(at.getLineNr(), at.getColumnNr());
        } catch (JacksonException e) {
            return new Place(0, 0);
        }
    }

    /** Goes from an object or a list to a value in it; false where it has no such. */
    private static boolean enter(JsonParser parser, String part) {
        boolean list = parser.currentToken() == JsonToken.START_ARRAY;
        if (!list && parser.currentToken() != JsonToken.START_OBJECT) {
            return false;
        }
        int index = 0;
        for (JsonToken token = parser.nextToken(); token != null && token != JsonToken.END_ARRAY
                && token != JsonToken.END_OBJECT; token = parser.nextToken()) {
            boolean here = list ? part.equals(String.valueOf(index)) : parser.currentName().equals(part);
            if (!list) {
                parser.nextToken();
            }
            if (here) {
                return true;
            }
            parser.skipChildren();
            index++;
        }
        return false;
    }
}
