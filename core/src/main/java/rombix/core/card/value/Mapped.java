package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/**
 * A value of the card mapped onto the wire: a range onto a range, or yes and no onto two wire values, and its form
 * there.
 *
 * @param of the place that the value comes from; a reading's own value when absent
 * @param value always this value, where no place is given
 * @param from the value's range, two numbers
 * @param to the wire's range, two numbers
 * @param curve how it goes from one end to the other; evenly when absent
 * @param yes the wire value for yes
 * @param no the wire value for no
 * @param format how a number is written, as by printf: {@code %03d}, {@code %+.1f}, {@code %02X}
 * @param points in place of the ranges: pairs of a value and its wire value, evenly between them, such as a fader's law
 * @param packed how a number stands in bytes
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Mapped(@Nullable String of, @Nullable Value value, @Nullable List<Double> from, @Nullable List<Double> to,
        @Nullable Curve curve, @Nullable Meaning yes, @Nullable Meaning no, @Nullable String format,
        @Nullable As as, @Nullable List<List<Double>> points, @Nullable Packed packed) implements WireValue {
    /** A width of a thousand million digits would fill the memory. */
    private static final Pattern WIDE = Pattern.compile("%[-+0 ]*(\\d*\\.)?\\d{3}");
    /** A shorter range of wire values, such as 0 to 1, is carried in fractions. */
    private static final double SHORTEST_OF_WHOLE = 2;
    private static final String FORMAT = "[^%]*%[-+0 ]*\\d*(\\.\\d+)?[dfxX][^%]*";

    /** How a range goes from one end to the other. */
    public enum Curve {
        @JsonProperty("linear")
        LINEAR,
        /** Slow at first: as much light as the eye takes for even. */
        @JsonProperty("square")
        SQUARE,
        /** Slow at both ends. */
        @JsonProperty("s-curve")
        S_CURVE;

        public double out(double x) {
            return switch (this) {
                case LINEAR -> x;
                case SQUARE -> x * x;
                case S_CURVE -> (1 - Math.cos(Math.PI * x)) / 2;
            };
        }

        public double in(double y) {
            return switch (this) {
                case LINEAR -> y;
                case SQUARE -> Math.sqrt(y);
                case S_CURVE -> Math.acos(1 - 2 * y) / Math.PI;
            };
        }
    }

    /** One without points and bytes. */
    public Mapped(@Nullable String of, @Nullable Value value, @Nullable List<Double> from, @Nullable List<Double> to,
            @Nullable Curve curve, @Nullable Meaning yes, @Nullable Meaning no, @Nullable String format,
            @Nullable As as) {
        this(of, value, from, to, curve, yes, no, format, as, null, null);
    }

    public Mapped {
        if (points != null) {
            points = Points.checked(points);
            if (from != null) {
                throw new IllegalArgumentException("use either \"points\" or \"from\" and \"to\"");
            }
        }
        if (packed != null && (format != null || yes != null)) {
            throw new IllegalArgumentException("\"packed\" writes a number, so it can't have \"format\" or \"yes\"");
        }
        if ((from == null) != (to == null)) {
            throw new IllegalArgumentException("\"from\" and \"to\" go together, two numbers each");
        }
        if (from != null && to != null && (from.size() != 2 || to.size() != 2 || from.get(0).equals(from.get(1))
                || to.get(0).equals(to.get(1)))) {
            throw new IllegalArgumentException("\"from\" and \"to\" take two different numbers each");
        }
        if (curve != null && from == null) {
            throw new IllegalArgumentException(
                    "a \"curve\" needs \"from\" and \"to\": it goes from one end to the other");
        }
        if (format != null && (!format.matches(FORMAT) || WIDE.matcher(format).find())) {
            throw new IllegalArgumentException("\"format\" is \"" + format
                    + "\"; expected one number as %d, %03d, %+.1f, %x or %02X, with other text around it");
        }
        if (value != null && of != null) {
            throw new IllegalArgumentException("use either \"value\" (constant) or \"of\" (from a parameter)");
        }
    }

    @Override
    public @Nullable Value out(Function<String, @Nullable Value> values) {
        if (as == As.NIL || as == As.IMPULSE) {
            return Value.of("");
        }
        Value v = value != null ? value : values.apply(of == null ? "value" : of);
        if (v == null) {
            return null;
        }
        if (yes != null && no != null) {
            return v.asFlag() ? yes.out() : no.out();
        }
        ColourPart part = form().part();
        if (part != null) {
            v = part(part, v);
            if (v == null) {
                return null;
            }
        }
        if (from != null && to != null) {
            v = Value.of(scale(v.asNumber(), from, to, true));
        } else if (points != null) {
            v = Value.of(Points.at(points, v.asNumber(), true));
        }
        if (packed != null) {
            return Value.of(packed.out(v.asNumber()));
        }
        if (format != null) {
            return Value.of(formatted(format, v.asNumber()));
        }
        return switch (form()) {
            case INT, LONG, WORD, COARSE, FINE -> Value.of(Math.rint(v.asNumber()));
            case RED, GREEN, BLUE, HUE, MIREDS -> Value.of(from == null && points == null
                    ? Math.rint(v.asNumber())
                    : v.asNumber());
            case TEXT, SYMBOL -> Value.of(v.toString());
            case FLAG -> Value.of(v.asFlag());
            default -> v;
        };
    }

    /** A part of a colour; what is already a number is one. */
    private static @Nullable Value part(ColourPart part, Value v) {
        double[] rgb = rgb(v.toString());
        return rgb == null ? Double.isNaN(v.asNumber()) ? null : v : Value.of(part.of(rgb));
    }

    private static double @Nullable [] rgb(String colour) {
        if (!colour.matches("#[0-9A-Fa-f]{6}")) {
            return null;
        }
        int bits = Integer.parseInt(colour, 1, 7, 16);
        return new double[]{(bits >> 16) / 255.0, (bits >> 8 & 0xFF) / 255.0, (bits & 0xFF) / 255.0};
    }

    /** The colour that its parts make, as {@code #RRGGBB}; empty where one of them is no number. */
    public static Optional<Value> colour(Map<ColourPart, Double> parts) {
        if (parts.values().stream().anyMatch(n -> !Double.isFinite(n))) {
            return Optional.empty();
        }
        double[] rgb = ColourPart.colour(parts);
        return Optional.of(Value.of("#%02X%02X%02X".formatted(Math.round(rgb[0] * 255), Math.round(rgb[1] * 255), Math
                .round(rgb[2] * 255))));
    }

    /** How far apart two values are that are next to each other on the wire; 0 where it carries fractions. */
    public double grain() {
        if (as == As.FLOAT || as == As.DOUBLE || format != null && !whole(format)) {
            return 0;
        }
        double least = 1.0 / (packed == null ? 1 : Math.pow(2, packed.fraction()));
        if (points != null) {
            return Points.grain(points, least);
        }
        if (from == null || to == null) {
            return format != null || packed != null || as == As.INT || as == As.LONG ? least : 0;
        }
        double wire = Math.abs(to.get(1) - to.get(0));
        return wire > SHORTEST_OF_WHOLE ? Math.abs(from.get(1) - from.get(0)) / wire * least : 0;
    }

    private static String formatted(String format, double number) {
        return String.format(Locale.ROOT, format, whole(format) ? (Object) Math.round(number) : (Object) number);
    }

    private static boolean whole(String format) {
        return format.matches("[^%]*%[-+0 ]*\\d*[dxX][^%]*");
    }

    @Override
    public Optional<Value> in(Value wire) {
        if (yes != null && no != null) {
            if (yes.is(wire)) {
                return Optional.of(Value.of(true));
            }
            return no.is(wire) ? Optional.of(Value.of(false)) : between(wire.asNumber(), yes.out(), no.out());
        }
        if (packed != null) {
            return packed.in(wire.toString()).map(n -> Value.of(scaledBack(n.asNumber())));
        }
        Value read = format == null ? wire : number(format, wire);
        if (points != null) {
            return Double.isNaN(read.asNumber())
                    ? Optional.empty()
                    : Optional.of(Value.of(scaledBack(read.asNumber())));
        }
        if (from != null && to != null) {
            double n = read.asNumber();
            return Double.isNaN(n) ? Optional.empty() : Optional.of(Value.of(scale(n, to, from, false)));
        }
        return Optional.of(read);
    }

    private double scaledBack(double n) {
        return points != null
                ? Points.at(points, n, false)
                : from != null && to != null ? scale(n, to, from, false) : n;
    }

    /** What was written in that form, as a number; as it is where it was not. */
    private static Value number(String format, Value wire) {
        int percent = format.indexOf('%');
        String before = format.substring(0, percent);
        String after = format.substring(percent).replaceFirst("%[-+0 ]*\\d*(\\.\\d+)?[dfxX]", "");
        String text = wire.toString();
        if (text.length() <= before.length() + after.length() || !text.startsWith(before) || !text.endsWith(after)) {
            return wire;
        }
        String digits = text.substring(before.length(), text.length() - after.length()).strip();
        try {
            return Value.of(format.matches("[^%]*%[-+0 ]*\\d*[xX][^%]*")
                    ? Long.parseLong(digits, 16)
                    : Double.parseDouble(digits));
        } catch (NumberFormatException e) {
            return wire;
        }
    }

    /** A number between those for yes and for no means the nearer one: not all that is pushed sends the same. */
    private static Optional<Value> between(double wire, @Nullable Value yes, @Nullable Value no) {
        double on = yes == null ? Double.NaN : yes.asNumber();
        double off = no == null ? Double.NaN : no.asNumber();
        return wire > Math.min(on, off) && wire < Math.max(on, off)
                ? Optional.of(Value.of(Math.abs(wire - on) <= Math.abs(wire - off)))
                : Optional.empty();
    }

    private double scale(double x, List<Double> over, List<Double> onto, boolean out) {
        double part = (x - over.get(0)) / (over.get(1) - over.get(0));
        if (curve != null) {
            part = out ? curve.out(Math.clamp(part, 0, 1)) : curve.in(Math.clamp(part, 0, 1));
        }
        double y = onto.get(0) + part * (onto.get(1) - onto.get(0));
        return Math.clamp(y, Math.min(onto.get(0), onto.get(1)), Math.max(onto.get(0), onto.get(1)));
    }

    @Override
    public Set<String> places() {
        return of == null ? Set.of() : Set.of(of);
    }

    @Override
    public As form() {
        return as == null ? As.PLAIN : as;
    }
}
