package rombix.app.view.common;

import java.util.Map;
import javafx.scene.Parent;
import rombix.running.owner.Settings;

/** Dark or light; what was chosen last stays chosen on this computer. */
public enum Theme {
    NIGHT, DAY;

    private static final String KEY = "theme";

    /** The theme chosen last on this computer. */
    public static Theme chosen(Settings settings) {
        return settings.get(KEY).filter(DAY.name()::equals).isPresent() ? DAY : NIGHT;
    }

    /** The theme that a window shows. */
    public static Theme of(Parent root) {
        return root.getStyleClass().contains(DAY.style()) ? DAY : NIGHT;
    }

    /** Has a window show this theme. */
    public void show(Parent root) {
        root.getStyleClass().removeAll(NIGHT.style(), DAY.style());
        root.getStyleClass().add(style());
    }

    /** Has windows begin with this theme from now on. */
    public void keep(Settings settings) {
        settings.set(Map.of(KEY, name()));
    }

    public Theme other() {
        return this == NIGHT ? DAY : NIGHT;
    }

    private String style() {
        return this == NIGHT ? "night" : "day";
    }
}
