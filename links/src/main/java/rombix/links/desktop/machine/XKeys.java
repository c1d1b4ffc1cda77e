package rombix.links.desktop.machine;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The key symbols of the X protocol (keysymdef.h, XF86keysym.h) for the names of keys. */
final class XKeys {
    private static final String SIGNS = "-=[]\\;'`,./";
    private static final String[] SIGN_NAMES = {"Minus", "Equals", "Open Bracket", "Close Bracket", "Back Slash",
            "Semicolon", "Quote", "Back Quote", "Comma", "Period", "Slash"};
    private static final String OTHERS = """
            Enter=FF0D, Space=20, Tab=FF09, Esc=FF1B, Backspace=FF08, Delete=FFFF, Insert=FF63, Home=FF50,
            End=FF57, Page Up=FF55, Page Down=FF56, Up=FF52, Down=FF54, Left=FF51, Right=FF53, Ctrl=FFE3,
            Right Ctrl=FFE4, Shift=FFE1, Right Shift=FFE2, Alt=FFE9, Right Alt=FFEA, Meta=FFEB,
            Right Meta=FFEC, Numpad Add=FFAB, Numpad Subtract=FFAD, Numpad Multiply=FFAA, Numpad Divide=FFAF,
            Numpad Decimal=FFAE, Numpad Enter=FF8D, Play=1008FF14, Stop=1008FF15, Pause=1008FF31,
            Track Next=1008FF17, Track Prev=1008FF16, Mute=1008FF12, Volume Up=1008FF13,
            Volume Down=1008FF11, Caps Lock=FFE5, Num Lock=FF7F, Scroll Lock=FF14, Print Screen=FF61,
            Pause Break=FF13, Context Menu=FF67""";
    private static final Map<String, Long> SYMBOLS = symbols();

    private XKeys() {
    }

    private static Map<String, Long> symbols() {
        Map<String, Long> all = new HashMap<>();
        for (char c = 'A'; c <= 'Z'; c++) {
            all.put(String.valueOf(c), (long) Character.toLowerCase(c));
        }
        for (int i = 0; i <= 9; i++) {
            all.put(String.valueOf(i), 0x30L + i);
            all.put("Numpad " + i, 0xFFB0L + i);
        }
        for (int i = 1; i <= 24; i++) {
            all.put("F" + i, 0xFFBDL + i);
        }
        for (int i = 0; i < SIGN_NAMES.length; i++) {
            all.put(SIGN_NAMES[i], (long) SIGNS.charAt(i));
        }
        for (String pair : OTHERS.split(",\\s*")) {
            String[] parts = pair.strip().split("=");
            all.put(parts[0], Long.parseLong(parts[1], 16));
        }
        return Map.copyOf(all);
    }

    /** The symbol of a key; null where the protocol has none. */
    static @Nullable Long symbol(String key) {
        return SYMBOLS.get(key);
    }

    /** The symbol that writes a character. */
    static long symbolOf(int codePoint) {
        return switch (codePoint) {
            case '\n', '\r' -> 0xFF0D;
            case '\t' -> 0xFF09;
            default -> codePoint >= 0x20 && codePoint < 0x7F || codePoint >= 0xA0 && codePoint <= 0xFF
                    ? codePoint
                    : 0x01000000L + codePoint;
        };
    }

    /** The key that a character is written with on a usual keyboard; empty where it is none that has a name. */
    static String keyOf(int codePoint) {
        if (Character.isLetterOrDigit(codePoint) && codePoint < 0x7F) {
            return Character.toString(Character.toUpperCase(codePoint));
        }
        int sign = SIGNS.indexOf(codePoint);
        return sign >= 0 ? SIGN_NAMES[sign] : codePoint == ' ' ? "Space" : codePoint == '\n' ? "Enter" : "";
    }
}
