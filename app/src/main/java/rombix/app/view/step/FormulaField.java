package rombix.app.view.step;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import rombix.app.edit.Conditions;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.StepWords;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.FormulaFunction;

/** A formula: readings and values are picked from a list into it, and below it stands what it means and gives now. */
final class FormulaField extends VBox {
    private final Desk desk;
    private final TextField field;
    private final Label meaning = Fields.read("");

    /** @param more names that are known in this place beside readings and values */
    FormulaField(Desk desk, String id, String formula, List<String> more, Consumer<String> changed) {
        super(Space.S4);
        this.desk = desk;
        field = Fields.text(id, formula, changed);
        field.setPromptText("such as 2 * {a reading} + 1");
        field.textProperty().addListener((_, _, _) -> explain());
        ComboBox<Conditions.Name> names = Fields.choice(id + "-insert",
                Conditions.names(desk.bench().rig(), g -> desk.model().state().readings(g), more), null,
                Conditions.Name::words,
                n -> {
                });
        names.setPromptText("Insert a reading or value");
        names.setAccessibleText("Insert a reading or a value into the formula");
        names.setOnAction(_ -> {
            if (names.getValue() != null) {
                String name = "{" + names.getValue().name() + "}";
                field.insertText(field.getCaretPosition(), name);
                changed.accept(field.getText());
            }
        });
        ComboBox<FormulaFunction> functions = Fields.choice(id + "-function", FormulaFunction.ALL, null,
                f -> f.call() + ": " + f.meaning(), f -> {
                });
        functions.setPromptText("Insert a function");
        functions.setAccessibleText("Insert a function into the formula");
        functions.setOnAction(_ -> {
            if (functions.getValue() != null) {
                field.insertText(field.getCaretPosition(), functions.getValue().call());
                changed.accept(field.getText());
            }
        });
        getChildren().addAll(field, names, functions, meaning);
        explain();
    }

    private void explain() {
        String text = field.getText();
        if (text.isBlank()) {
            meaning.setText("Numbers, + − * /, comparisons, texts in quotes, and functions.");
            return;
        }
        try {
            Formula formula = new Formula(text);
            String now;
            try {
                now = formula.value(n -> {
                    if (n.equals(Formula.CLOCK)) {
                        return Formula.clock(desk.words().wall());
                    }
                    int colon = n.indexOf(':');
                    return colon < 0
                            ? desk.bench().board().values().stream().filter(v -> v.id().equals(n)).findFirst()
                                    .map(v -> v.initial()).orElse(null)
                            : desk.model().state().reading(n.substring(0, colon), n.substring(colon + 1));
                }).toString();
            } catch (FormulaFault e) {
                now = "unknown";
            }
            meaning.setText(new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g))
                    .of(new rombix.core.chain.Condition.Computed(text)) + "  =  " + now);
            meaning.getStyleClass().remove("trouble");
        } catch (FormulaFault e) {
            meaning.setText((e.position() > 0 ? "At character " + e.position() + ": " : "") + e.getMessage());
            if (!meaning.getStyleClass().contains("trouble")) {
                meaning.getStyleClass().add("trouble");
            }
        }
    }
}
