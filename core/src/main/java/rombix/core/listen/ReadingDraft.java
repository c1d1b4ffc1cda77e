package rombix.core.listen;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rombix.core.listen.HeardValue.Kind;
import rombix.core.value.Value;

/**
 * The reading to be made of a heard value. Immutable.
 *
 * @param title what people call it
 * @param yes what stands on the wire for yes, and {@code no} for no
 * @param wireLow what stands there at the low end of a level, and {@code wireHigh} at the high end
 * @param low what people read at the low end, and {@code high} at the high end, in {@code unit}
 * @param choices what it may be, for one of several
 * @param toldAt the address at which the gear is told the same; empty where it is not
 * @param points of a level that goes unevenly: pairs of what people read and what stands on the wire; empty where it
 *            goes evenly
 * @param moment whether it tells that something happens
 */
@RecordBuilder
public record ReadingDraft(Kind kind, String title, Value yes, Value no, double wireLow, double wireHigh, double low,
        double high, String unit, List<String> choices, String toldAt, List<List<Double>> points,
        boolean moment) implements ReadingDraftBuilder.With {
    public ReadingDraft {
        choices = List.copyOf(choices);
        points = List.copyOf(points);
    }

    private static final int MIDI_MOST = 127;
    private static final int DMX_MOST = 255;
    private static final int WORD_MOST = 65_535;

    /**
     * What is proposed for a voice.
     *
     * @param bothWays whether its wire is told as it tells
     */
    public static ReadingDraft of(HeardValue voice, Kind kind, String title, boolean bothWays) {
        List<Value> seen = voice.seen();
        double least = seen.stream().mapToDouble(Value::asNumber).filter(Double::isFinite).min().orElse(0);
        double most = seen.stream().mapToDouble(Value::asNumber).filter(Double::isFinite).max().orElse(1);
        double high = usualHigh(voice, least, most);
        double[] range = high > 0
                ? new double[]{0, high}
                : new double[]{Math.floor(least), Math.ceil(Math.max(most, least + 1))};
        boolean share = high > 0;
        return new ReadingDraft(kind, title, yes(voice), no(voice), range[0], range[1], share ? 0 : range[0],
                share ? 100 : range[1], share ? "%" : "", seen.stream().map(Value::toString).distinct().sorted()
                        .toList(),
                bothWays ? voice.address() : "", List.of(), false);
    }

    /** Up to where a level goes that begins at 0, as it is usual where it stands; 0 where it is another one. */
    private static double usualHigh(HeardValue voice, double least, double most) {
        boolean slot = voice.address().matches("\\d+ \\d+");
        double[] usual = slot
                ? new double[]{voice.arg() == 0 ? DMX_MOST : WORD_MOST}
                : voice.address().matches("(control|note|pressure) .*")
                        ? new double[]{MIDI_MOST}
                        : new double[]{1, 100, MIDI_MOST, DMX_MOST};
        return least < 0 ? 0 : Arrays.stream(usual).filter(high -> most <= high).findFirst().orElse(0);
    }

    private static Value yes(HeardValue voice) {
        return voice.seen().stream().filter(ReadingDraft::means).findFirst().orElseGet(() -> other(voice.last(), true));
    }

    private static Value no(HeardValue voice) {
        return voice.seen().stream().filter(v -> !means(v)).findFirst().orElseGet(() -> other(voice.last(), false));
    }

    /** What stands for the other where only one was heard. */
    private static Value other(Value heard, boolean yes) {
        String said = heard.toString();
        if (heard instanceof Value.Flag) {
            return Value.of(yes);
        }
        for (List<String> pair : List.of(List.of("ON", "OFF"), List.of("on", "off"), List.of("true", "false"), List.of(
                "yes", "no"), List.of("OPEN", "CLOSED"), List.of("open", "closed"))) {
            if (pair.contains(said)) {
                return Value.of(yes ? pair.getFirst() : pair.getLast());
            }
        }
        return Value.of(yes ? 1 : 0);
    }

    private static boolean means(Value v) {
        return switch (v) {
            case Value.Flag f -> f.on();
            case Value.Num n -> n.number() > 0;
            default -> HeardValue.numeric(v)
                    ? v.asNumber() > 0
                    : !v.toString().toLowerCase(Locale.ROOT).matches(
                            "off|false|no|closed|unmuted|unlocked|stopped|idle|-|0");
        };
    }

    public ReadingDraft withYesNo(Value nextYes, Value nextNo) {
        return with(w -> w.yes(nextYes).no(nextNo));
    }

    public ReadingDraft withWire(double nextLow, double nextHigh) {
        return with(w -> w.wireLow(nextLow).wireHigh(nextHigh));
    }

    public ReadingDraft withRange(double nextLow, double nextHigh, String nextUnit) {
        return with(w -> w.low(nextLow).high(nextHigh).unit(nextUnit));
    }

    /** What people read at the low end: of a curve by points that of its lowest point. */
    double least() {
        return points.isEmpty() ? low : points.stream().mapToDouble(List::getFirst).min().orElse(low);
    }

    /** What people read at the high end. */
    double greatest() {
        return points.isEmpty() ? high : points.stream().mapToDouble(List::getFirst).max().orElse(high);
    }

    @Nullable
    Double step() {
        return greatest() - least() >= 10 && points.isEmpty() ? 1.0 : null;
    }
}
