package rombix.app.view.rack;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.AimPad;
import rombix.app.view.common.Styles;
import rombix.core.card.Card.Change;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Call;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Whatever can be told pan and tilt together has a row with a pad. */
final class AimRows {
    /** A row, and what shows in it where the fixture aims now. */
    record Row(Node node, List<String> readings, Runnable refresh) {
    }

    private AimRows() {
    }

    /**
     * @param now what is known of the gear, asked each time
     * @param tell tells the gear
     */
    static List<Row> of(Twin twin, Readings now, Consumer<Call> tell) {
        List<Row> rows = new ArrayList<>();
        for (Command c : twin.card().commands()) {
            Param pan = c.param("pan").orElse(null);
            Param tilt = c.param("tilt").orElse(null);
            Param of = c.params().stream().filter(p -> p.type() == ValueType.CHOICE).findFirst().orElse(null);
            if (pan != null && tilt != null && of != null && c.changes().size() == 2) {
                twin.items(of.list(), now).forEach(item -> rows.add(row(twin, c, of, item, now, tell)));
            }
        }
        return rows;
    }

    private static Row row(Twin twin, Command c, Param of, Item item, Readings now, Consumer<Call> tell) {
        Param pan = c.param("pan").orElseThrow();
        Param tilt = c.param("tilt").orElseThrow();
        List<String> readings = c.changes().stream().map(Change::reading).map(t -> t.fill(_ -> Value.of(item.id())))
                .toList();
        AimPad pad = new AimPad(pan, tilt, 0, 0, (p, t) -> {
            Map<String, Value> args = new LinkedHashMap<>();
            args.put(of.id(), Value.of(item.id()));
            args.put("pan", Value.of(p));
            args.put("tilt", Value.of(t));
            tell.accept(new Call(c, args, null));
        });
        MenuButton open = new MenuButton();
        open.setId("rack-%s-aim-%s".formatted(twin.gear(), item.id()));
        open.getStyleClass().add("quiet-choice");
        CustomMenuItem all = new CustomMenuItem(pad, false);
        all.getStyleClass().add("plane-popup");
        open.getItems().setAll(all);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox row = new HBox(Styles.label(item.name() + " aims", "rack-name"), space, open);
        row.getStyleClass().add("rack-row");
        return new Row(row, readings, () -> {
            double p = number(now.apply(readings.get(0)));
            double t = number(now.apply(readings.get(1)));
            pad.show(p, t);
            Styles.text(open, Double.isNaN(p) || Double.isNaN(t) ? "aim…" : AimPad.words(p, t));
            open.setAccessibleText(item.name() + " aims: " + open.getText());
        });
    }

    private static double number(@Nullable Value v) {
        return v == null ? Double.NaN : v.asNumber();
    }
}
