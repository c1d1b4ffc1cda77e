package rombix.links.talk;

import java.util.List;
import rombix.core.card.Setting;

/** Settings that gear has in several protocols. */
public final class Usual {
    static final String PACE = "pace";
    private static final int LONGEST = 60_000;

    /** The least time between two orders. */
    public static final Setting LEAST_TIME = Setting.number(PACE, "Pause between commands", "ms", 0, LONGEST, 0.0,
            "Minimum time between two commands, for gear that needs a pause.");

    private Usual() {
    }

    /** Those of a protocol, behind which come those of all. */
    public static List<Setting> and(Setting... own) {
        List<Setting> all = new java.util.ArrayList<>(List.of(own));
        all.add(LEAST_TIME);
        return List.copyOf(all);
    }
}
