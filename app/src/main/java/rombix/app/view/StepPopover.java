package rombix.app.view;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ColorPicker;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Paths;
import rombix.app.edit.Score;
import rombix.core.board.Edits;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Figures;
import rombix.core.card.Twin;
import rombix.core.chain.Step;
import rombix.core.value.Value;

/** Edits a step in place: each argument with a control of its own kind. */
final class StepPopover {
    private final Desk desk;

    StepPopover(Desk desk) {
        this.desk = desk;
    }

    void open(List<Integer> path, Node by, Runnable delete) {
        Step step = Paths.step(desk.bench().chain(), path).orElse(null);
        if (step == null) {
            return;
        }
        VBox box = new VBox();
        box.setPrefWidth(300);
        box.setId("step-popover");
        switch (step) {
            case Step.Do d -> doStep(d, path, box);
            case Step.Wait w -> wait(w, path, box);
            case Step.Together t -> box.getChildren().add(new Label(t.chains().size() + " chains side by side"));
        }
        Button remove = FacePopover.plain("Delete step", "Delete");
        remove.setId("delete-step");
        remove.setOnAction(_ -> delete.run());
        Button earlier = FacePopover.plain("Earlier", "");
        earlier.setOnAction(_ -> move(path, -1));
        Button later = FacePopover.plain("Later", "");
        later.setOnAction(_ -> move(path, 1));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        box.getChildren().add(path.size() == 1 ? new HBox(6, remove, space, earlier, later) : new HBox(remove));
        desk.overlay().show(box, by, () -> desk.bench().selectStep(null));
    }

    private void move(List<Integer> path, int by) {
        int from = path.getFirst();
        int to = from + by;
        if (to >= 0 && to < desk.bench().chain().steps().size()) {
            desk.overlay().close();
            desk.bench().button().ifPresent(b -> desk.bench().edit("move a step", board -> Edits.chain(board, b.id(),
                    desk.bench().stateIndex(), desk.bench().gesture(), c -> c.moved(from, to))));
        }
    }

    private void change(List<Integer> path, Step next) {
        desk.bench().button().ifPresent(b -> desk.bench().edit("change a step", board -> Edits.chain(board, b.id(),
                desk.bench().stateIndex(), desk.bench().gesture(), c -> Paths.changed(c, path, _ -> next))));
    }

    private Step.Do now(List<Integer> path, Step.Do otherwise) {
        return Paths.step(desk.bench().chain(), path).orElse(otherwise) instanceof Step.Do d ? d : otherwise;
    }

    private void doStep(Step.Do d, List<Integer> path, VBox box) {
        Twin twin = desk.bench().rig().twin(d.gear()).orElse(null);
        Command command = twin == null ? null : twin.card().command(d.command()).orElse(null);
        Label title = new Label(Score.title(desk.bench().rig(), d, g -> desk.model().readings(g)));
        title.getStyleClass().add("gear-name");
        title.setWrapText(true);
        box.getChildren().add(title);
        if (twin == null || command == null) {
            return;
        }
        for (Param p : command.params()) {
            Value v = Optional.ofNullable(d.with().get(p.id())).or(() -> Optional.ofNullable(p.usual()))
                    .orElse(Value.of(""));
            Node control = control(twin, p, v, next -> {
                Step.Do changed = now(path, d).with(p.id(), next);
                change(path, changed);
                title.setText(Score.title(desk.bench().rig(), changed, g -> desk.model().readings(g)));
            });
            control.setId("arg-" + p.id());
            box.getChildren().add(FacePopover.named(p.label(), control));
        }
        if (command.params().isEmpty()) {
            Label none = new Label("Takes no arguments.");
            none.getStyleClass().addAll("read", "quiet");
            box.getChildren().add(none);
        }
    }

    private Node control(Twin twin, Param p, Value v, Consumer<Value> changed) {
        return switch (p.type()) {
            case CHOICE -> choice(twin, p, v, changed);
            case NUMBER -> number(p, v, changed);
            case FLAG -> {
                CheckBox box = new CheckBox(p.label());
                box.setSelected(v.asFlag());
                box.setOnAction(_ -> changed.accept(Value.of(box.isSelected())));
                yield box;
            }
            case COLOUR -> {
                ColorPicker picker = new ColorPicker(v.toString().isEmpty() ? Color.WHITE : Color.web(v.toString()));
                picker.setMaxWidth(Double.MAX_VALUE);
                picker.setOnAction(_ -> changed.accept(Value.of(Colours.text(picker.getValue()))));
                yield picker;
            }
            case TEXT, LIST -> {
                TextField field = new TextField(v.toString());
                field.setOnAction(_ -> changed.accept(Value.of(field.getText())));
                field.focusedProperty().addListener((_, _, in) -> {
                    if (!in && !field.getText().equals(v.toString())) {
                        changed.accept(Value.of(field.getText()));
                    }
                });
                yield field;
            }
        };
    }

    private Node choice(Twin twin, Param p, Value v, Consumer<Value> changed) {
        ComboBox<Item> box = new ComboBox<>(FXCollections.observableArrayList(
                twin.items(p.list(), desk.model().readings(twin.gear()))));
        box.setMaxWidth(Double.MAX_VALUE);
        box.setConverter(new StringConverter<>() {
            @Override
            public String toString(@Nullable Item item) {
                return item == null ? "" : item.name();
            }

            @Override
            public Item fromString(String name) {
                throw new UnsupportedOperationException("items are chosen, not typed");
            }
        });
        box.setPromptText(v + " (not there now)");
        box.getItems().stream().filter(i -> i.id().equals(v.toString())).findFirst()
                .ifPresent(box.getSelectionModel()::select);
        box.setOnAction(_ -> changed.accept(Value.of(box.getValue().id())));
        return box;
    }

    private static Node number(Param p, Value v, Consumer<Value> changed) {
        double n = Double.isNaN(v.asNumber()) ? 0 : v.asNumber();
        TextField field = new TextField(Figures.withUnit(n, p.unit()));
        field.setPrefColumnCount(7);
        field.setMinWidth(84);
        HBox row = new HBox(8);
        row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        if (p.min() != null && p.max() != null) {
            double range = p.max() - p.min();
            double grain = range > 50 ? 1 : 10;
            Slider slider = new Slider(p.min(), p.max(), n);
            slider.setBlockIncrement(range / 20);
            slider.setAccessibleText(p.label());
            HBox.setHgrow(slider, Priority.ALWAYS);
            slider.valueProperty().addListener((_, _, x) -> {
                double rounded = Math.rint(x.doubleValue() * grain) / grain;
                field.setText(Figures.withUnit(rounded, p.unit()));
                if (!slider.isValueChanging()) {
                    changed.accept(Value.of(rounded));
                }
            });
            slider.valueChangingProperty().addListener((_, _, moving) -> {
                if (!moving) {
                    changed.accept(Value.of(parsed(field.getText(), slider.getValue())));
                }
            });
            row.getChildren().add(slider);
            field.setOnAction(_ -> slider.setValue(parsed(field.getText(), n)));
        } else {
            field.setOnAction(_ -> changed.accept(Value.of(parsed(field.getText(), n))));
        }
        row.getChildren().add(field);
        return row;
    }

    private static double parsed(String text, double otherwise) {
        try {
            return Double.parseDouble(text.replace('\u2212', '-').replace(',', '.').replaceAll("[^-0-9.]", ""));
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    private void wait(Step.Wait w, List<Integer> path, VBox box) {
        Label title = new Label("Wait");
        title.getStyleClass().add("gear-name");
        TextField field = new TextField(Figures.span(w.ms()));
        field.setId("arg-ms");
        field.setOnAction(_ -> {
            Optional<Long> ms = millis(field.getText());
            ms.ifPresent(m -> change(path, new Step.Wait(m, w.extra())));
            field.setText(Figures.span(ms.orElse(w.ms())));
        });
        box.getChildren().addAll(title, FacePopover.named("How long: 700 ms, 1.5 s, 2 min", field));
    }

    /** A time as people write it, in milliseconds; a bare number is seconds. */
    static Optional<Long> millis(String text) {
        var m = java.util.regex.Pattern.compile("(\\d+(?:[.,]\\d+)?)\\s*(ms|s|min)?")
                .matcher(text.strip().replace('\u00a0', ' '));
        if (!m.matches()) {
            return Optional.empty();
        }
        double n = Double.parseDouble(m.group(1).replace(',', '.'));
        String unit = m.group(2) == null ? "s" : m.group(2);
        return Optional.of(Math.round(n * (unit.equals("ms") ? 1 : unit.equals("min") ? 60_000 : 1000)));
    }
}
