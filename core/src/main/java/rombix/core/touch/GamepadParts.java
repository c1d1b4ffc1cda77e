package rombix.core.touch;

import java.util.List;

/** What a gamepad has, by the places of its parts: no two makers write the same on them. */
public final class GamepadParts {
    public static final String LEFT_STICK = "left stick";
    public static final String RIGHT_STICK = "right stick";
    public static final String LEFT_TRIGGER = "left trigger";
    public static final String RIGHT_TRIGGER = "right trigger";
    /** The buttons, in the order in which SDL counts them. */
    public static final List<String> BUTTONS = List.of("lower button", "right button", "left button", "upper button",
            "back", "home", "start", "left stick pressed", "right stick pressed", "left shoulder", "right shoulder",
            "pad up", "pad down", "pad left", "pad right");
    /** Those that go across and up, from -1 to 1 each. */
    private static final String TWO_WAY = "(left|right) stick|hat \\d+";
    /** Those that go from 0 to 1. */
    private static final String PULLED = "(left|right) trigger";
    /** Those that go from -1 to 1. */
    private static final String TURNED = "axis \\d+";

    private GamepadParts() {
    }

    /** Whether a part goes across and up. */
    static boolean twoWay(String part) {
        return part.matches(TWO_WAY);
    }

    static boolean pulled(String part) {
        return part.matches(PULLED);
    }

    static boolean turned(String part) {
        return part.matches(TURNED);
    }
}
