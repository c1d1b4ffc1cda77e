package rombix.app.view.rack;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.chain.Arg;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.value.Value;
import rombix.running.owner.Secrets;

/** The texts of a recording, any of which may be a password: each stays in the board, is kept here, or is asked for. */
final class TypedTexts extends VBox {
    private static final String ASKED = "asked";

    /** What becomes of a text. */
    private enum Becomes {
        BOARD("saved in the board"), SECRET("saved on this computer as a secret"), ASKED(
                "asked for at each press");

        private final String words;

        Becomes(String words) {
            this.words = words;
        }
    }

    private final Secrets secrets;
    private final List<ComboBox<Becomes>> choices = new ArrayList<>();

    /** @param steps what was recorded */
    TypedTexts(List<Step> steps, Secrets secrets) {
        super(Space.S4);
        this.secrets = secrets;
        List<String> texts = steps.stream().filter(TypedTexts::types).map(TypedTexts::text).toList();
        if (!texts.isEmpty()) {
            getChildren().add(Styles.label("Typed text", "field-name"));
        }
        for (String text : texts) {
            ComboBox<Becomes> choice = Fields.choice("typed-" + choices.size(), List.of(Becomes.values()),
                    Becomes.BOARD, b -> b.words, _ -> {
                    });
            choice.setAccessibleText("Use of " + masked(text));
            choices.add(choice);
            Label words = Fields.read(masked(text));
            HBox.setHgrow(words, Priority.ALWAYS);
            words.setMaxWidth(Double.MAX_VALUE);
            HBox row = new HBox(Space.S8, words, choice);
            row.setAlignment(Pos.CENTER_LEFT);
            getChildren().add(row);
        }
    }

    private static boolean types(Step step) {
        return step instanceof GearStep.Do d && d.command().equals("type-text");
    }

    private static String text(Step step) {
        return String.valueOf(((GearStep.Do) step).args().getOrDefault("text", Arg.of(Value.of(""))).shown());
    }

    /** So that its writer knows it, and nobody who sees the screen. */
    private static String masked(String text) {
        int letters = text.codePointCount(0, text.length());
        return "“%s%s”, %d letter%s".formatted(text.substring(0, text.offsetByCodePoints(0, 1)), "•".repeat(Math.min(
                letters - 1, 9)), letters, letters == 1 ? "" : "s");
    }

    /**
     * The steps, with their texts where they were chosen to be.
     *
     * @throws IOException where a secret cannot be kept
     */
    List<Step> as(List<Step> steps) throws IOException {
        List<Step> all = new ArrayList<>();
        int text = 0;
        for (Step step : steps) {
            switch (types(step) ? choices.get(text++).getValue() : Becomes.BOARD) {
                case BOARD -> all.add(step);
                case SECRET -> {
                    String name = fresh();
                    secrets.set(name, text(step));
                    all.add(secret(step, Arg.of(Value.of(name))));
                }
                case ASKED -> {
                    all.add(new DeckStep.Ask("What should be typed?", DeckStep.Ask.AnswerType.SECRET, List.of(), ASKED,
                            null, null, StepOptions.PLAIN, Map.of()));
                    all.add(secret(step, new Arg.Computed("{" + ASKED + "}")));
                }
            }
        }
        return all;
    }

    /** Whether a text is asked for at the press. */
    boolean asks() {
        return choices.stream().anyMatch(c -> c.getValue() == Becomes.ASKED);
    }

    /** A board with the value that such steps want. */
    static Board withValue(Board board) {
        return board.values().stream().anyMatch(v -> v.id().equals(ASKED))
                ? board
                : Edits.addValue(board, ASKED, Value.of(""));
    }

    private String fresh() {
        int n = 1;
        while (secrets.has("typed-" + n)) {
            n++;
        }
        return "typed-" + n;
    }

    private static Step secret(Step typed, Arg name) {
        Map<String, Arg> with = new TreeMap<>(((GearStep.Do) typed).args());
        with.remove("text");
        with.put("secret", name);
        return new GearStep.Do(((GearStep.Do) typed).gear(), "type-secret", with, null, StepOptions.PLAIN, Map.of());
    }
}
