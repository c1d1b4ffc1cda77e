package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Styles;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.RunDown;
import rombix.core.value.Formula;
import rombix.core.value.Value;

/**
 * The items of a run-down, one below the other: the one that is on with the time that is left, the next, and the others
 * with their planned time. Only as many rows are made as can be seen.
 */
final class RunDownLook extends StatesLook {
    private static final double LEAST = 28;
    private static final double MOST = 46;
    /** So many rows are seen where there is room for them; fewer are larger. */
    private static final int SEEN = 12;
    private static final double NAME = 0.42;
    /** The room for a number, in sizes of its letters. */
    private static final double DIGITS = 2;
    /** By how much the frame of the item that is on raises its words. */
    private static final double RAISED = 2;
    /** Texts narrower than that say nothing. */
    private static final double ROOM = 120;

    private final Desk desk;
    private final List<Label> words = new ArrayList<>();
    private final List<Label> times = new ArrayList<>();
    private final List<Label> texts = new ArrayList<>();
    private final List<Label> numbers = new ArrayList<>();
    private @Nullable RunDown list;
    private Button button = new Button("none", "", 0, 0, 1, 1, Button.Busy.RESTART, List.of(), java.util.Map.of());
    private int on;
    private int first;
    /** Before {@link #show}: no item was on, not even the place before the first. */
    private int before = -1;

    RunDownLook(Desk desk) {
        this.desk = desk;
    }

    @Override
    void show(Button of, int now, int coming) {
        button = of;
        list = button.control() instanceof Control.Items i ? desk.bench().board().runDown(i.list()).orElse(null) : null;
        on = list == null ? 0 : (int) number(list.id());
        if (on != before) {
            before = on;
            first = on - 2; // The one before stays to be seen.
        }
        fill();
    }

    private double number(String name) {
        Value value = desk.model().state().named(name, button.id(), desk.words()::wall);
        return value instanceof Value.Num(double n) ? n : 0;
    }

    private double row() {
        RunDown shown = list;
        int count = shown == null ? 1 : Math.clamp(shown.items().size(), 1, SEEN);
        return Math.clamp(Math.floor(getHeight() / count), LEAST, MOST);
    }

    private int rows() {
        return Math.max(1, (int) (getHeight() / row()));
    }

    /** Shows other rows, so many further down. */
    @Override
    void scroll(int by) {
        first += by;
        fill();
    }

    private void fill() {
        RunDown shown = list;
        int count = shown == null ? 0 : shown.items().size();
        first = Math.clamp(first, 0, Math.max(0, count - rows()));
        int rows = Math.min(rows(), count);
        while (cells.size() > rows) {
            cells.removeLast();
            words.removeLast();
            times.removeLast();
            texts.removeLast();
            numbers.removeLast();
        }
        while (cells.size() < rows) {
            cells.add(made("row-cell", Pos.CENTER_LEFT));
            words.add(made("run-down-word", Pos.CENTER));
            times.add(made("run-down-time", Pos.CENTER_RIGHT));
            texts.add(made("run-down-text", Pos.CENTER_LEFT));
            numbers.add(made("run-down-text", Pos.CENTER_RIGHT));
        }
        for (int i = 0; shown != null && i < rows; i++) {
            int number = first + i + 1;
            RunDown.Item item = shown.items().get(number - 1);
            Styles.text(cells.get(i), item.name());
            Styles.text(numbers.get(i), String.valueOf(number));
            Styles.text(texts.get(i), item.text());
            mark(cells.get(i), i, number == on, number == on + 1);
            Styles.text(words.get(i), number == on ? "ON" : number == on + 1 ? "next" : "");
            Styles.text(times.get(i), number == on
                    ? left(shown, item)
                    : item.seconds() == 0
                            ? ""
                            : RunDown.time(item.seconds()));
            cells.get(i).setOpacity(number < on ? 0.65 : 1);
        }
        if (getChildren().size() != 5 * rows || !getChildren().containsAll(cells)) {
            getChildren().setAll(cells);
            getChildren().addAll(words);
            getChildren().addAll(times);
            getChildren().addAll(texts);
            getChildren().addAll(numbers);
        }
        requestLayout();
    }

    private String left(RunDown shown, RunDown.Item item) {
        Value ends = desk.model().state().named(shown.id() + ".ends", button.id(), desk.words()::wall);
        return item.seconds() == 0 || !(ends instanceof Value.Num(double end))
                ? ""
                : RunDown.time(RunDown.left(end, Formula.clock(desk.words().wall()).asNumber())) + " left";
    }

    private static Label made(String style, Pos at) {
        Label label = new Label();
        label.getStyleClass().add(style);
        label.setAlignment(at);
        return label;
    }

    @Override
    Set<Integer> at(double x, double y) {
        double py = y - getLayoutY();
        int row = (int) (py / row());
        return py < 0 || row >= cells.size() ? Set.of() : Set.of(first + row);
    }

    @Override
    void under(Set<Integer> which) {
        Set<Integer> rows = new java.util.HashSet<>();
        which.forEach(i -> rows.add(i - first));
        super.under(rows);
    }

    @Override
    protected void layoutChildren() {
        if (cells.size() != Math.min(rows(), list == null ? 0 : list.items().size())) {
            fill(); // There is more room now, or less.
        }
        double row = row();
        double size = row * 0.42;
        double time = size * 6;
        double word = size * 3.4;
        double from = getWidth() * NAME;
        double room = getWidth() - from - time - word - 16;
        for (int i = 0; i < cells.size(); i++) {
            double y = i * row;
            cells.get(i).resizeRelocate(0, y, getWidth(), row - 2);
            y -= first + i + 1 == on ? RAISED : 0;
            numbers.get(i).resizeRelocate(0, y, size * DIGITS, row - 2);
            times.get(i).resizeRelocate(getWidth() - time - 10, y, time, row - 2);
            words.get(i).resizeRelocate(getWidth() - time - word - 10, y, word, row - 2);
            texts.get(i).setVisible(room > ROOM);
            texts.get(i).resizeRelocate(from, y, Math.max(0, room), row - 2);
            for (Label label : List.of(numbers.get(i), times.get(i), words.get(i), texts.get(i))) {
                Styles.size(label, size, "");
            }
            Styles.size(cells.get(i), size,
                    String.format(java.util.Locale.ROOT, "-fx-padding: 0 0 0 %.0fpx;", size * (DIGITS
                            + 0.6)));
        }
    }
}
