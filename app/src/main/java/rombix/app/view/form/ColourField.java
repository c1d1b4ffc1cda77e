package rombix.app.view.form;

import java.util.function.Consumer;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Space;

/**
 * A colour: its swatch, which opens a field to choose it on. To the right goes the hue, downwards the colour gets
 * paler; how bright it is stands beneath. What is under the hand is told at once.
 */
public final class ColourField extends MenuButton {
    private static final int WIDTH = 260;
    private static final int HEIGHT = 150;
    private static final double SWATCH = 18;
    private static final double KNOB = 14;
    private static final double STEP = 5;
    private static final double ROUND = 360;
    /** The same for all; made when it is first seen. */
    private static @Nullable WritableImage plane;

    private final Consumer<String> changed;
    private final Rectangle swatch = new Rectangle(SWATCH, SWATCH);
    private final Region knob = new Region();
    private final Slider bright = new Slider(0, 100, 100);
    private final TextField code = new TextField();
    private boolean withCode;
    private double hue;
    private double strong = 1;
    private boolean following;

    /**
     * @param now the colour that is shown; white as long as there is none
     * @param changed told of each colour that is chosen, as {@code #RRGGBB}
     */
    public ColourField(@Nullable String now, Consumer<String> changed) {
        this.changed = changed;
        getStyleClass().add("colour-field");
        setGraphic(swatch);
        CustomMenuItem all = new CustomMenuItem(new Region(), false);
        all.getStyleClass().add("plane-popup");
        getItems().setAll(all);
        setOnShowing(_ -> {
            if (!(all.getContent() instanceof VBox)) {
                all.setContent(opened());
            }
        });
        bright.setAccessibleText("Brightness");
        bright.valueProperty().addListener((_, _, _) -> tell());
        code.setId("colour-code");
        code.setAccessibleText("Colour code, such as #B01010");
        code.setOnAction(_ -> typed());
        show(now == null ? Colours.text(Color.WHITE) : now);
    }

    /** A field with an id, and with words for those who do not see whose colour it is. */
    public static ColourField of(String id, String about, @Nullable String now, Consumer<String> changed) {
        ColourField field = new ColourField(now, changed);
        field.setId(id);
        field.setAccessibleText(about);
        return field;
    }

    /** With its code beside its swatch. */
    public ColourField withCode() {
        withCode = true;
        look();
        return this;
    }

    private VBox opened() {
        knob.getStyleClass().add("plane-knob");
        knob.setMouseTransparent(true);
        knob.setManaged(false);
        Pane field = new Pane(new ImageView(plane()), knob);
        field.setMinSize(WIDTH, HEIGHT);
        field.setMaxSize(WIDTH, HEIGHT);
        field.setId("colour-plane");
        field.setFocusTraversable(true);
        field.getStyleClass().add("plane");
        field.setAccessibleText("Hue and saturation; arrow keys move the point");
        field.setOnMousePressed(e -> at(e.getX(), e.getY()));
        field.setOnMouseDragged(e -> at(e.getX(), e.getY()));
        field.setOnKeyPressed(this::key);
        VBox box = new VBox(Space.S8, field, Fields.named("Brightness", bright), Fields.named("Code", code));
        box.setPrefWidth(WIDTH);
        look();
        return box;
    }

    private static WritableImage plane() {
        WritableImage made = plane;
        if (made == null) {
            made = new WritableImage(WIDTH, HEIGHT);
            for (int x = 0; x < WIDTH; x++) {
                for (int y = 0; y < HEIGHT; y++) {
                    made.getPixelWriter().setColor(x, y, Color.hsb(x * ROUND / WIDTH, 1 - (double) y / HEIGHT, 1));
                }
            }
            plane = made;
        }
        return made;
    }

    /** Shows another colour, as long as no hand is on it; whoever is being told is not told of that. */
    public void show(String text) {
        if (!isShowing()) {
            take(text);
        }
    }

    private void take(String text) {
        Color c = text.matches("#[0-9A-Fa-f]{6}") ? Color.web(text) : Color.WHITE;
        following = true;
        if (c.getBrightness() > 0) {
            hue = c.getSaturation() > 0 ? c.getHue() : hue;
            strong = c.getSaturation();
        }
        bright.setValue(c.getBrightness() * 100);
        following = false;
        look();
    }

    private void typed() {
        String digits = code.getText().strip().replace("#", "");
        if (digits.matches("[0-9A-Fa-f]{6}")) {
            take("#" + digits);
            tell();
        } else {
            look();
        }
    }

    private void at(double x, double y) {
        hue = Math.clamp(x / WIDTH, 0, 1) * ROUND;
        strong = 1 - Math.clamp(y / HEIGHT, 0, 1);
        tell();
    }

    private void key(KeyEvent e) {
        switch (e.getCode()) {
            case LEFT -> hue = Math.clamp(hue - STEP, 0, ROUND);
            case RIGHT -> hue = Math.clamp(hue + STEP, 0, ROUND);
            case UP -> strong = Math.clamp(strong + STEP / 100, 0, 1);
            case DOWN -> strong = Math.clamp(strong - STEP / 100, 0, 1);
            default -> {
                return;
            }
        }
        e.consume();
        tell();
    }

    private Color now() {
        return Color.hsb(hue % ROUND, strong, bright.getValue() / 100);
    }

    private void tell() {
        if (!following) {
            look();
            changed.accept(Colours.text(now()));
        }
    }

    private void look() {
        String text = Colours.text(now());
        swatch.setFill(now());
        knob.resizeRelocate(hue / ROUND * WIDTH - KNOB / 2, (1 - strong) * HEIGHT - KNOB / 2, KNOB, KNOB);
        code.setText(text);
        setText(withCode ? text : "");
        setAccessibleHelp(text);
    }
}
