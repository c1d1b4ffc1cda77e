package rombix.core.computer;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The keys of a keyboard by their plain names, as boards write them: {@code Ctrl+Shift+F5}. A modifier without a side is
 * the left one; a key of the keypad is named with {@code Numpad}.
 */
public final class Keys {
    /** The modifiers, each side apart. */
    public static final List<String> MODIFIERS = List.of("Ctrl", "Right Ctrl", "Shift", "Right Shift", "Alt",
            "Right Alt", "Meta", "Right Meta");
    private static final Set<String> LEFT = Set.of("ctrl", "shift", "alt", "meta");

    private static final Map<String, List<String>> GROUPS = groups();
    private static final Map<String, String> KNOWN = known();

    private Keys() {
    }

    private static Map<String, List<String>> groups() {
        Map<String, List<String>> groups = new LinkedHashMap<>();
        groups.put("Letters", range('A', 'Z'));
        groups.put("Digits", range('0', '9'));
        groups.put("Editing", List.of("Enter", "Space", "Tab", "Esc", "Backspace", "Delete", "Insert", "Home", "End",
                "Page Up", "Page Down", "Up", "Down", "Left", "Right"));
        List<String> functions = new ArrayList<>();
        for (int i = 1; i <= 24; i++) {
            functions.add("F" + i);
        }
        groups.put("Functions", List.copyOf(functions));
        groups.put("Modifiers", MODIFIERS);
        groups.put("Signs", List.of("Minus", "Equals", "Open Bracket", "Close Bracket", "Back Slash", "Semicolon",
                "Quote", "Back Quote", "Comma", "Period", "Slash"));
        List<String> pad = new ArrayList<>();
        for (int i = 0; i <= 9; i++) {
            pad.add("Numpad " + i);
        }
        pad.addAll(List.of("Numpad Add", "Numpad Subtract", "Numpad Multiply", "Numpad Divide", "Numpad Decimal",
                "Numpad Enter"));
        groups.put("Keypad", List.copyOf(pad));
        groups.put("Media", List.of("Play", "Stop", "Pause", "Track Next", "Track Prev", "Mute", "Volume Up",
                "Volume Down"));
        groups.put("Others", List.of("Caps Lock", "Num Lock", "Scroll Lock", "Print Screen", "Pause Break",
                "Context Menu"));
        return Collections.unmodifiableMap(groups);
    }

    private static List<String> range(char from, char to) {
        List<String> all = new ArrayList<>();
        for (char c = from; c <= to; c++) {
            all.add(String.valueOf(c));
        }
        return List.copyOf(all);
    }

    private static Map<String, String> known() {
        Map<String, String> known = new LinkedHashMap<>();
        GROUPS.values().forEach(g -> g.forEach(k -> known.put(k.toLowerCase(Locale.ROOT), k)));
        LEFT.forEach(m -> known.put("left " + m, known.getOrDefault(m, m)));
        Map.of("escape", "Esc", "return", "Enter", "control", "Ctrl", "windows", "Meta",
                "command", "Meta", "altgr", "Right Alt", "alt graph", "Right Alt", "numpad plus", "Numpad Add",
                "add", "Numpad Add").forEach(known::put);
        Map.of("subtract", "Numpad Subtract", "multiply", "Numpad Multiply", "divide", "Numpad Divide", "decimal",
                "Numpad Decimal", "clear", "Delete").forEach(known::put);
        return known;
    }

    /** All keys by their groups, in the order in which a person looks for them. */
    public static Map<String, List<String>> grouped() {
        return GROUPS;
    }

    /** All keys. */
    public static List<String> all() {
        return GROUPS.values().stream().flatMap(List::stream).toList();
    }

    /** A key by its name in any case; empty where none has it. */
    public static Optional<String> key(String name) {
        return Optional.ofNullable(KNOWN.get(name.strip().toLowerCase(Locale.ROOT)));
    }

    public static boolean modifier(String key) {
        return MODIFIERS.contains(key);
    }

    /**
     * The keys of a chord, in the order in which they go down: modifiers and others, joined by a plus.
     *
     * @throws IllegalArgumentException in plain words, where a name is no key's
     */
    public static List<String> chord(String text) {
        List<String> keys = new ArrayList<>();
        for (String part : text.split("\\+")) {
            String key = key(part).orElseThrow(() -> new IllegalArgumentException(part.isBlank()
                    ? "no key chosen"
                    : "there is no key “%s”".formatted(part.strip())));
            if (!keys.contains(key)) {
                keys.add(key);
            }
        }
        if (keys.isEmpty()) {
            throw new IllegalArgumentException("no key chosen");
        }
        return List.copyOf(keys);
    }
}
