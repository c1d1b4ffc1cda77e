package rombix.app.view.form;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Space;
import rombix.core.twin.Figures;

/** Form controls. Each reports a change on Enter or when it loses focus, not on every key. */
public final class Fields {
    private static final double NARROW = 90;
    /** Least width of a field in a row; all grow equally. */
    private static final double FIELD_WIDTH = 96;
    private static final Pattern SPAN = Pattern.compile("(\\d+(?:[.,]\\d+)?)\\s*(ms|s|min|h)?");
    private static final Pattern MINUTES = Pattern.compile("(\\d+):([0-5]\\d)(?:\\s*min)?");

    private Fields() {
    }

    /** A secondary button; its tooltip shows its key. */
    public static Button plain(String text, String key) {
        Button b = new Button(text);
        b.getStyleClass().add("plain");
        if (!key.isEmpty()) {
            b.setTooltip(new Tooltip(text + " · " + key));
        }
        return b;
    }

    /** A control with its name above it. */
    public static VBox named(String name, Node control) {
        Label label = new Label(name);
        label.getStyleClass().add("field-name");
        label.setWrapText(true);
        label.setLabelFor(control);
        control.setAccessibleText(name);
        return new VBox(Space.S3, label, control);
    }

    /** A control under its name, with one line of help below it. */
    public static VBox named(String name, Node control, String help) {
        VBox field = named(name, control);
        Label line = help(help);
        control.setAccessibleHelp(help);
        field.getChildren().add(line);
        return field;
    }

    /** A line of help for the field above it. */
    public static Label help(String text) {
        Label line = new Label(text);
        line.getStyleClass().addAll("field-help", "quiet");
        line.setWrapText(true);
        return line;
    }

    /** Fields side by side, all equally wide, their controls on one line. */
    public static HBox row(Node... fields) {
        HBox row = new HBox(Space.S8, fields);
        row.setAlignment(Pos.BOTTOM_LEFT);
        for (Node field : fields) {
            HBox.setHgrow(field, Priority.ALWAYS);
            if (field instanceof Region r) {
                r.setPrefWidth(FIELD_WIDTH);
                r.setMaxWidth(Double.MAX_VALUE);
            }
            if (field instanceof VBox named && named.getChildren().getFirst() instanceof Label name) {
                name.setWrapText(false); // Its height would be that of the least width.
            }
        }
        return row;
    }

    /** A heading over the fields that follow. */
    public static Label heading(String text) {
        Label label = new Label(text);
        label.getStyleClass().addAll("gear-name", "field-heading");
        return label;
    }

    /** A line of text to read. */
    public static Label read(String text) {
        Label label = new Label(text);
        label.getStyleClass().addAll("read", "quiet");
        label.setWrapText(true);
        return label;
    }

    public static TextField text(String id, String value, Consumer<String> changed) {
        TextField field = new TextField(value);
        field.setId(id);
        String[] told = {value};
        Runnable tell = () -> {
            if (!field.getText().equals(told[0])) {
                told[0] = field.getText();
                changed.accept(field.getText());
            }
        };
        field.setOnAction(_ -> tell.run());
        field.focusedProperty().addListener((_, _, in) -> {
            if (!in) {
                tell.run();
            }
        });
        return field;
    }

    /** A time as people write it: {@code 700 ms}, {@code 1.5 s}, {@code 2 min}. */
    public static TextField span(String id, long millis, Consumer<Long> changed) {
        TextField[] field = new TextField[1];
        long[] now = {millis};
        field[0] = text(id, Figures.span(millis), text -> {
            millis(text).ifPresent(m -> {
                if (m != now[0]) {
                    now[0] = m;
                    changed.accept(m);
                }
            });
            field[0].setText(Figures.span(now[0]));
        });
        field[0].setPrefColumnCount(7);
        return field[0];
    }

    /** A time in milliseconds; a bare number is seconds. */
    static Optional<Long> millis(String text) {
        String plain = text.strip().replace('\u00a0', ' ');
        Matcher minutes = MINUTES.matcher(plain);
        if (minutes.matches()) {
            return Optional.of(Long.parseLong(minutes.group(1)) * 60_000 + Long.parseLong(minutes.group(2)) * 1000);
        }
        Matcher m = SPAN.matcher(plain);
        if (!m.matches()) {
            return Optional.empty();
        }
        double n = Double.parseDouble(m.group(1).replace(',', '.'));
        double factor = switch (m.group(2) == null ? "s" : m.group(2)) {
            case "ms" -> 1;
            case "min" -> 60_000;
            case "h" -> 3_600_000;
            default -> 1000;
        };
        return Optional.of(Math.round(n * factor));
    }

    public static TextField number(String id, double value, @Nullable String unit, Consumer<Double> changed) {
        TextField[] field = new TextField[1];
        field[0] = text(id, Figures.withUnit(value, unit), text -> changed.accept(parsed(text, value)));
        field[0].setPrefColumnCount(6);
        field[0].setMinWidth(84);
        return field[0];
    }

    public static double parsed(String text, double otherwise) {
        try {
            return Double.parseDouble(text.replace('\u2212', '-').replace(',', '.').replaceAll("[^-0-9.]", ""));
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    /** A slider with its number beside it. */
    public static HBox slider(String name, double min, double max, double value, @Nullable String unit,
            Consumer<Double> changed) {
        double range = max - min;
        double grain = range > 50 ? 1 : 10;
        Slider slider = new Slider(min, max, value);
        slider.setBlockIncrement(range / 20);
        slider.setAccessibleText(name);
        unit(slider, unit);
        HBox.setHgrow(slider, Priority.ALWAYS);
        TextField field = new TextField(Figures.withUnit(value, unit));
        field.setPrefColumnCount(6);
        field.setMinWidth(84);
        field.setAccessibleText(name);
        slider.valueProperty().addListener((_, _, x) -> {
            double rounded = Math.rint(x.doubleValue() * grain) / grain;
            field.setText(Figures.withUnit(rounded, unit));
            if (!slider.isValueChanging()) {
                changed.accept(rounded);
            }
        });
        slider.valueChangingProperty().addListener((_, _, moving) -> {
            if (!moving) {
                changed.accept(parsed(field.getText(), slider.getValue()));
            }
        });
        field.setOnAction(_ -> slider.setValue(parsed(field.getText(), value)));
        HBox row = new HBox(Space.S8, slider, field);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** A slider of colour temperatures shows them, from warm to cold. */
    public static void unit(Slider slider, @Nullable String unit) {
        if ("K".equals(unit)) {
            slider.getStyleClass().add("kelvin");
        }
    }

    /** A column of texts, in the order of its table. */
    public static <T> TableColumn<T, String> column(String name, double width, Function<T, String> of) {
        TableColumn<T, String> column = new TableColumn<>(name);
        column.setCellValueFactory(c -> new ReadOnlyStringWrapper(of.apply(c.getValue())));
        column.setPrefWidth(width);
        column.setMinWidth(Math.min(width, NARROW)); // What is short is not cut shorter still.
        column.setSortable(false);
        column.setReorderable(false);
        return column;
    }

    public static CheckBox check(String id, String text, boolean on, Consumer<Boolean> changed) {
        CheckBox box = new CheckBox(text);
        box.setId(id);
        box.setSelected(on);
        box.setOnAction(_ -> changed.accept(box.isSelected()));
        return box;
    }

    /** Fixes a node's width. */
    public static <T extends Region> T wide(T node, double width) {
        node.setMinWidth(width);
        node.setPrefWidth(width);
        node.setMaxWidth(width);
        return node;
    }

    /** A choice among things that have names. */
    public static <T> ComboBox<T> choice(String id, List<T> all, @Nullable T now, Function<T, String> name,
            Consumer<T> changed) {
        ComboBox<T> box = new ComboBox<>(FXCollections.observableArrayList(all));
        box.setId(id);
        box.setMaxWidth(Double.MAX_VALUE);
        box.setVisibleRowCount(12);
        box.setConverter(new StringConverter<>() {
            @Override
            public String toString(@Nullable T item) {
                return item == null ? "" : name.apply(item);
            }

            @Override
            public T fromString(String text) {
                throw new UnsupportedOperationException("choose from the list");
            }
        });
        if (now != null) {
            box.setValue(now);
        }
        box.setOnAction(_ -> {
            if (box.getValue() != null) {
                changed.accept(box.getValue());
            }
        });
        return box;
    }
}
