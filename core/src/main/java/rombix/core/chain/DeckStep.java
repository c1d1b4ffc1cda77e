package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Value;

/** A step that works the deck itself: its questions, its chains, its values, its pages. All times are in milliseconds. */
public sealed interface DeckStep extends Step {

    /**
     * Asks on the deck.
     *
     * @param choices each with the chain that it runs, for a question with choices
     * @param into the board value that takes the answer, where wanted
     * @param preset the answer that a time-out takes: a choice's place from 0, a number or a text
     * @param timeout how long to wait for an answer; for ever when absent
     */
    @JsonTypeName("ask")
    record Ask(String question, AnswerType kind, List<Choice> choices, @Nullable String into,
            @JsonProperty("default") @Nullable Value preset, @Nullable Long timeout,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep {
        /** What kind of answer is wanted. */
        public enum AnswerType {
            @JsonProperty("choice")
            CHOICE, @JsonProperty("number")
            NUMBER, @JsonProperty("text")
            TEXT,
            /** A text that nobody shall read: the answer is a name that stands for it until it is used, once. */
            @JsonProperty("secret")
            SECRET
        }

        public Ask {
            Objects.requireNonNull(question, "an ask step needs a \"question\"");
            kind = Objects.requireNonNullElse(kind, AnswerType.CHOICE);
            choices = List.copyOf(Objects.requireNonNullElse(choices, List.of()));
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Runs another button's chain, or a named chain of the board, with arguments that its formulas know by name. */
    @JsonTypeName("use")
    record Use(@Nullable String button, @Nullable String state, Gesture gesture, @Nullable String chain,
            Map<String, Arg> with,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep {
        public Use {
            if ((button == null) == (chain == null)) {
                throw new IllegalArgumentException("a use step needs a \"button\" or a \"chain\"");
            }
            gesture = Objects.requireNonNullElse(gesture, Gesture.PRESS);
            with = Arg.ordered(with);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Sets a value of the board. */
    @JsonTypeName("set")
    record Set(String value, Arg to,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep {
        public Set {
            Objects.requireNonNull(value, "a set step needs a \"value\"");
            Objects.requireNonNull(to, "a set step needs a \"to\"");
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Shows a page, goes back to the one before, or shows another state of a button. */
    @JsonTypeName("show")
    record Show(@Nullable String page,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Turned.class) Way way,
            @Nullable String button, @Nullable String state,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep {
        /** How a page is shown. */
        public enum Way {
            @JsonProperty("turn")
            TURN,
            /** At the pointer, for one press. */
            @JsonProperty("pop-up")
            POP_UP,
            /** While the button is held. */
            @JsonProperty("while-held")
            WHILE_HELD,
            /** The one that was shown before. */
            @JsonProperty("back")
            BACK
        }

        /** A page, shown some way. */
        public static Show page(String page, Way way) {
            return new Show(page, way, null, null, StepOptions.PLAIN, Map.of());
        }

        /** The page that was shown before. */
        public static Show back() {
            return new Show(null, Way.BACK, null, null, StepOptions.PLAIN, Map.of());
        }

        /** Another state of a button. */
        public static Show state(String button, String state) {
            return new Show(null, Way.TURN, button, state, StepOptions.PLAIN, Map.of());
        }

        public Show {
            // A page that pops up was written so at first.
            if (extra != null && Boolean.TRUE.equals(extra.get("popUp"))) {
                way = Way.POP_UP;
                extra = new LinkedHashMap<>(extra);
                extra.remove("popUp");
            }
            way = Objects.requireNonNullElse(way, Way.TURN);
            if (way == Way.BACK
                    ? page != null || button != null
                    : (page == null) == (button == null || state == null)) {
                throw new IllegalArgumentException("a show step needs a \"page\", a \"way\" that is back, or a"
                        + " \"button\" and a \"state\"");
            }
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** A message on the deck, with readings in it: {@code It is {house:temperature} outside}. */
    @JsonTypeName("say")
    record Say(String text,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep {
        public Say {
            Objects.requireNonNull(text, "a say step needs a \"text\"");
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Stops this chain, those of a button or of all buttons with a tag, or everything. */
    @JsonTypeName("stop")
    record Stop(What what, @Nullable String button, @Nullable String tag,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep {
        /** What is stopped. */
        public enum What {
            @JsonProperty("this")
            THIS, @JsonProperty("button")
            BUTTON, @JsonProperty("tag")
            TAG, @JsonProperty("all")
            ALL
        }

        public Stop {
            what = Objects.requireNonNullElse(what, What.THIS);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Keeps the usual way to show a page out of files. */
    final class Turned {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == null || other == Show.Way.TURN;
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }
}
