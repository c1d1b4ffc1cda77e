package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonTypeName;
import io.soabase.recordbuilder.core.RecordBuilder;
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
    @RecordBuilder
    @JsonTypeName("ask")
    record Ask(String question, AnswerType kind, List<Choice> choices, @Nullable String into,
            @JsonProperty("default") @Nullable Value preset, @Nullable Long timeout,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep, DeckStepAskBuilder.With {
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

        @Override
        public List<Chain> inner() {
            return choices.stream().map(Choice::chain).toList();
        }

        @Override
        public Step withInner(List<Chain> chains) {
            return withChoices(Choice.with(choices, chains));
        }

        @Override
        public String text() {
            return question;
        }

        @Override
        public boolean takesTime() {
            return true;
        }

        @Override
        public Ask withHow(StepOptions other) {
            return DeckStepAskBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "it isn't known which chain ran";
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
    @RecordBuilder
    @JsonTypeName("use")
    record Use(@Nullable String button, @Nullable String state, Gesture gesture, @Nullable String chain,
            @JsonProperty("with") Map<String, Arg> args,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep, DeckStepUseBuilder.With {
        @Override
        public List<Arg> inputs() {
            return List.copyOf(args.values());
        }

        @Override
        public Use withHow(StepOptions other) {
            return DeckStepUseBuilder.With.super.withHow(other);
        }

        public Use {
            if ((button == null) == (chain == null)) {
                throw new IllegalArgumentException("a use step needs a \"button\" or a \"chain\"");
            }
            gesture = Objects.requireNonNullElse(gesture, Gesture.PRESS);
            args = Arg.ordered(args);
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Sets a value of the board. */
    @RecordBuilder
    @JsonTypeName("set")
    record Set(String value, Arg to,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep, DeckStepSetBuilder.With {
        @Override
        public List<Arg> inputs() {
            return List.of(to);
        }

        @Override
        public Set withHow(StepOptions other) {
            return DeckStepSetBuilder.With.super.withHow(other);
        }

        public Set {
            Objects.requireNonNull(value, "a set step needs a \"value\"");
            Objects.requireNonNull(to, "a set step needs a \"to\"");
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /**
     * Goes to an item of a run-down.
     *
     * @param to {@code next}, {@code back}, {@code first}, {@code last}, a number from 1, or an item's name; 0 is before
     *            the first
     */
    @RecordBuilder
    @JsonTypeName("go")
    record Go(String list, Arg to,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep, DeckStepGoBuilder.With {
        @Override
        public List<Arg> inputs() {
            return List.of(to);
        }

        @Override
        public Go withHow(StepOptions other) {
            return DeckStepGoBuilder.With.super.withHow(other);
        }

        public Go {
            Objects.requireNonNull(list, "a go step needs a \"list\", a run-down's id");
            to = Objects.requireNonNullElse(to, Arg.of(Value.of("next")));
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Shows a page, goes back to the one before, or shows another state of a button. */
    @RecordBuilder
    @JsonTypeName("show")
    record Show(@Nullable String page,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Turned.class) Way way,
            @Nullable String button, @Nullable String state,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep, DeckStepShowBuilder.With {
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
            BACK,
            /** The one behind the present one, of those in the tabs; behind the last comes the first. */
            @JsonProperty("next")
            NEXT,
            /** The one before the present one. */
            @JsonProperty("previous")
            PREVIOUS;

            /** Whether it says by itself which page is shown. */
            public boolean alone() {
                return this == BACK || this == NEXT || this == PREVIOUS;
            }
        }

        /** A page, shown some way. */
        public static Show page(String page, Way way) {
            return new Show(page, way, null, null, StepOptions.PLAIN, Map.of());
        }

        /** A page that the way says by itself. */
        public static Show by(Way way) {
            return new Show(null, way, null, null, StepOptions.PLAIN, Map.of());
        }

        /** Another state of a button. */
        public static Show state(String button, String state) {
            return new Show(null, Way.TURN, button, state, StepOptions.PLAIN, Map.of());
        }

        @Override
        public Show withHow(StepOptions other) {
            return DeckStepShowBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "it isn't known what was shown before";
        }

        public Show {
            // A page that pops up was written so at first.
            if (extra != null && Boolean.TRUE.equals(extra.get("popUp"))) {
                way = Way.POP_UP;
                extra = new LinkedHashMap<>(extra);
                extra.remove("popUp");
            }
            way = Objects.requireNonNullElse(way, Way.TURN);
            if (way.alone()
                    ? page != null || button != null
                    : (page == null) == (button == null || state == null)) {
                throw new IllegalArgumentException(
                        "a show step needs a \"page\", a \"way\" that is back, next or previous, or a"
                                + " \"button\" and a \"state\"");
            }
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** A step that has nothing but a text, with readings and values in braces. */
    sealed interface Written extends DeckStep permits Say, Note {
        /** What is done with the text, in a word, and what the text is called where it is edited. */
        Verb verb();

        /** The same with another text. */
        Written withWords(String words);

        /** See {@link #verb}. */
        record Verb(String word, String text) {
        }
    }

    /** A message on the deck, with readings in it: {@code It is {house:temperature} outside}. */
    @RecordBuilder
    @JsonTypeName("say")
    record Say(String text,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Written, DeckStepSayBuilder.With {
        @Override
        public Say withHow(StepOptions other) {
            return DeckStepSayBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "a message can't be unsaid";
        }

        @Override
        public Verb verb() {
            return new Verb("Say", "Message");
        }

        @Override
        public Say withWords(String words) {
            return withText(words);
        }

        public Say {
            Objects.requireNonNull(text, "a say step needs a \"text\"");
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Writes a line into the as-run log, with readings in it; nothing else happens. */
    @RecordBuilder
    @JsonTypeName("note")
    record Note(String text,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements Written, DeckStepNoteBuilder.With {
        @Override
        public Note withHow(StepOptions other) {
            return DeckStepNoteBuilder.With.super.withHow(other);
        }

        @Override
        public Verb verb() {
            return new Verb("Note", "Line in the log");
        }

        @Override
        public Note withWords(String words) {
            return withText(words);
        }

        @Override
        public String stays() {
            return "a note can't be removed from the log";
        }

        public Note {
            Objects.requireNonNull(text, "a note step needs a \"text\"");
            how = StepOptions.orPlain(how);
            extra = Extra.kept(extra);
        }
    }

    /** Stops this chain, those of a button or of all buttons with a tag, or everything. */
    @RecordBuilder
    @JsonTypeName("stop")
    record Stop(What what, @Nullable String button, @Nullable String tag,
            @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Step.PlainOptions.class) StepOptions how,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements DeckStep, DeckStepStopBuilder.With {
        /** What is stopped. */
        public enum What {
            @JsonProperty("this")
            THIS, @JsonProperty("button")
            BUTTON, @JsonProperty("tag")
            TAG, @JsonProperty("all")
            ALL
        }

        @Override
        public Stop withHow(StepOptions other) {
            return DeckStepStopBuilder.With.super.withHow(other);
        }

        @Override
        public String stays() {
            return "it isn't known what was stopped";
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
