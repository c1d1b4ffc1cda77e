package rombix.app.view.panels;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;
import javafx.stage.Stage;
import javafx.util.Duration;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.standins.set.Panel;

/** The stand-ins' panels beside the board: each is worked by hand here, and shows what came to it. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
public final class PanelsWindow {
    private static final double WIDTH = 1000;
    private static final double HEIGHT = 760;
    private static final double PANEL_WIDTH = 300;
    private static final double NAME_WIDTH = 96;
    private static final double SWATCH = 14;
    private static final int LINES = 5;
    private static final Duration PACE = Duration.millis(200);

    private final Stage stage = new Stage();
    private final List<Shown> panels = new ArrayList<>();
    private final Timeline timer = new Timeline(new KeyFrame(PACE, _ -> refresh()));

    public PanelsWindow(List<Panel> all, Scene main) {
        FlowPane flow = new FlowPane(Space.S12, Space.S12);
        flow.setPadding(new Insets(Space.S12));
        all.forEach(p -> {
            Shown shown = new Shown(p);
            panels.add(shown);
            flow.getChildren().add(shown.node);
        });
        ScrollPane scroll = new ScrollPane(flow);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        StackPane root = new StackPane(scroll);
        root.getStyleClass().addAll("night", "stand-ins");
        Scene scene = new Scene(root, WIDTH, HEIGHT);
        scene.getStylesheets().setAll(main.getStylesheets());
        stage.setTitle("Stand-ins · Rombix");
        stage.setScene(scene);
        timer.setCycleCount(Timeline.INDEFINITE);
        stage.setOnShown(_ -> timer.play());
        stage.setOnHidden(_ -> timer.stop());
        refresh();
    }

    public void show() {
        stage.show();
    }

    public Scene scene() {
        return stage.getScene();
    }

    /** Shows all as it is now. */
    void refresh() {
        panels.forEach(Shown::refresh);
    }

    /** One of them. */
    private static final class Shown {
        private final Panel panel;
        private final VBox node = new VBox(Space.S4);
        private final Map<String, Runnable> rows = new HashMap<>();
        private final Map<String, Panel.Control> now = new HashMap<>();
        private final Label came = Styles.label("", "read", "quiet");
        private boolean following;

        Shown(Panel panel) {
            this.panel = panel;
            node.getStyleClass().add("stand-in");
            node.setPrefWidth(PANEL_WIDTH);
            node.setMaxWidth(PANEL_WIDTH);
            node.getChildren().add(Styles.label(panel.title(), "gear-name"));
            HBox presses = new HBox(Space.S4);
            for (Panel.Control c : panel.controls()) {
                if (c instanceof Panel.Press p) {
                    if (presses.getChildren().size() == 4 || presses.getParent() == null) {
                        presses = new HBox(Space.S4);
                        node.getChildren().add(presses);
                    }
                    Button press = Fields.plain(p.label(), "");
                    press.setId(id(c));
                    press.setOnAction(_ -> panel.work(c.id(), ""));
                    presses.getChildren().add(press);
                } else {
                    presses = new HBox(Space.S4);
                    node.getChildren().add(row(c));
                }
            }
            came.setWrapText(true);
            came.setMinHeight(Region.USE_PREF_SIZE);
            came.getStyleClass().add("stand-in-came");
            node.getChildren().addAll(Styles.label("Received", "quiet"), came);
        }

        private String id(Panel.Control c) {
            return "stand-in-" + (panel.title().split(",")[0] + "-" + c.id()).toLowerCase(Locale.ROOT)
                    .replaceAll("[^a-z0-9]+", "-");
        }

        private Node row(Panel.Control c) {
            Node control = switch (c) {
                case Panel.Switch s -> toggle(s);
                case Panel.Level l -> slider(l);
                case Panel.Choice o -> choice(o);
                case Panel.Said s -> messageRow(s);
                case Panel.Seen s -> seen(s);
                case Panel.Press p -> throw new IllegalArgumentException(p.id());
            };
            control.setId(id(c));
            control.setAccessibleText(panel.title() + ", " + c.label());
            Label name = Styles.label(c.label(), "rack-name");
            name.setMinWidth(NAME_WIDTH);
            name.setPrefWidth(NAME_WIDTH);
            HBox.setHgrow(control, Priority.ALWAYS);
            HBox row = new HBox(Space.S6, name, control);
            row.setAlignment(Pos.CENTER_LEFT);
            return row;
        }

        private Node toggle(Panel.Switch s) {
            ToggleButton button = new ToggleButton();
            button.getStyleClass().add("switch");
            button.setMaxWidth(Double.MAX_VALUE);
            button.setOnAction(_ -> panel.work(s.id(), String.valueOf(button.isSelected())));
            rows.put(s.id(), () -> {
                if (now.get(s.id()) instanceof Panel.Switch is) {
                    button.setSelected(is.on());
                    Styles.text(button, is.on() ? is.yes() : is.no());
                }
            });
            return button;
        }

        private Node slider(Panel.Level l) {
            Slider slider = new Slider(l.min(), l.max(), l.now());
            slider.setBlockIncrement((l.max() - l.min()) / 20);
            Fields.unit(slider, l.unit());
            slider.valueProperty().addListener((_, _, to) -> {
                if (!following) {
                    panel.work(l.id(), String.valueOf(Math.rint(to.doubleValue() * 10) / 10));
                }
            });
            rows.put(l.id(), () -> {
                if (now.get(l.id()) instanceof Panel.Level is && !slider.isPressed()) {
                    following = true;
                    slider.setValue(is.now());
                    following = false;
                }
            });
            return slider;
        }

        private Node choice(Panel.Choice o) {
            ComboBox<String> box = Fields.choice("", List.copyOf(o.all().keySet()), null, id -> o.all().getOrDefault(id,
                    id), id -> {
                        if (!following) {
                            panel.work(o.id(), id);
                        }
                    });
            rows.put(o.id(), () -> {
                if (now.get(o.id()) instanceof Panel.Choice is && !box.isShowing()) {
                    following = true;
                    box.setValue(is.all().containsKey(is.now()) ? is.now() : null);
                    following = false;
                }
            });
            return box;
        }

        private Node messageRow(Panel.Said s) {
            TextField field = new TextField();
            field.setPromptText("type, then press Enter");
            field.setOnAction(_ -> {
                if (!field.getText().isBlank()) {
                    panel.work(s.id(), field.getText().strip());
                    field.clear();
                }
            });
            return field;
        }

        private Node seen(Panel.Seen s) {
            Rectangle swatch = new Rectangle(SWATCH, SWATCH);
            Label words = Styles.label("", "read");
            words.setWrapText(true);
            rows.put(s.id(), () -> {
                if (now.get(s.id()) instanceof Panel.Seen is) {
                    Styles.text(words, is.now());
                    if (!is.colour().isEmpty()) {
                        swatch.setFill(Color.web(is.colour()));
                    }
                }
            });
            HBox row = s.colour().isEmpty() ? new HBox(words) : new HBox(Space.S6, swatch, words);
            row.setAlignment(Pos.CENTER_LEFT);
            return row;
        }

        void refresh() {
            panel.controls().forEach(c -> now.put(c.id(), c));
            rows.values().forEach(Runnable::run); // All of them: what a hand has moved may not have become so.
            List<String> lines = panel.recentMessages();
            Styles.text(came, lines.isEmpty()
                    ? "nothing yet"
                    : String.join("\n", lines.subList(0, Math.min(LINES, lines.size()))));
        }
    }
}
