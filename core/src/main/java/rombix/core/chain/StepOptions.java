package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;

/**
 * How a step is run, whatever it does.
 *
 * @param off switched off: it is passed over
 * @param note for people
 * @param condition it is passed over unless this holds when it is due
 * @param fail what happens when it fails
 * @param tries how often a step that fails is tried again
 * @param backOff how long before the first retry, in milliseconds; doubled each time
 * @param instead what runs in its place when it fails
 * @param times formulas that give times of the step in seconds when it is due, by the names of the fields they replace:
 *            {@code ms}, {@code most}, {@code timeout}, {@code every}, {@code answer}; {@code clock} gives a time of day
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_DEFAULT)
public record StepOptions(boolean off, @Nullable String note, @Nullable Condition condition, Fail fail, int tries,
        long backOff, @Nullable Chain instead, @JsonInclude(JsonInclude.Include.NON_EMPTY) Map<String, String> times,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements StepOptionsBuilder.With {
    /** Run as it stands; a failure is shown and the chain goes on. */
    public static final StepOptions PLAIN = new StepOptions(false, null, null, Fail.GO_ON, 0, 0, null);

    /** What a failure does. */
    public enum Fail {
        @JsonProperty("go-on")
        GO_ON, @JsonProperty("stop")
        STOP, @JsonProperty("retry")
        RETRY, @JsonProperty("instead")
        INSTEAD
    }

    /** A manner that may not be given. */
    static StepOptions orPlain(@Nullable StepOptions how) {
        return Objects.requireNonNullElse(how, PLAIN);
    }

    public StepOptions {
        fail = Objects.requireNonNullElse(fail, Fail.GO_ON);
        tries = fail == Fail.RETRY && tries == 0 ? 3 : tries;
        backOff = fail == Fail.RETRY && backOff == 0 ? 500 : backOff;
        times = times == null || times.isEmpty() ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(times));
        extra = Extra.kept(extra);
    }

    public StepOptions(boolean off, @Nullable String note, @Nullable Condition condition, Fail fail, int tries,
            long backOff, @Nullable Chain instead) {
        this(off, note, condition, fail, tries, backOff, instead, Map.of(), Map.of());
    }

}
