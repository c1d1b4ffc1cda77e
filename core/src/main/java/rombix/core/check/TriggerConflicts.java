package rombix.core.check;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import rombix.core.board.Gear;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.card.Protocol;
import rombix.core.value.Value;

/** Finds what a key or control already does, so that a trigger on it would do two things at once. */
public final class TriggerConflicts {
    /** Keys of Rombix's own that work in Live. */
    public static final Set<String> OWN = Set.of("F1", "CTRL+E", "CTRL+K", "CTRL+PAGE UP",
            "CTRL+PAGE DOWN", "F5", "F6", "F7", "SHIFT+F6", "CTRL+S", "F11", "ALT+W", "CTRL+L", "CTRL+T",
            "CTRL+SHIFT+T",
            "CTRL+P", "CTRL+SHIFT+P",
            "CTRL+PERIOD",
            "ALT+LEFT", "ALT+M", "ALT+1", "ALT+2", "ALT+3", "ALT+4", "ALT+5", "ALT+6", "ALT+7", "ALT+8", "ALT+9",
            "SPACE", "ESC", "TAB");
    /** Keys that desktops commonly keep for themselves. */
    private static final Map<String, String> DESKTOP = Map.ofEntries(Map.entry("ALT+TAB", "switches windows"), Map
            .entry("ALT+F4", "closes the window"), Map.entry("ALT+SPACE", "opens the window's menu"),
            Map.entry(
                    "ALT+CTRL+DELETE", "logs out"),
            Map.entry("CTRL+ESC", "opens the start menu"), Map.entry(
                    "META+L", "locks the screen"),
            Map.entry("META+D", "shows the desktop"), Map.entry(
                    "META+TAB", "switches windows"),
            Map.entry("PRINT SCREEN",
                    "takes a screenshot"),
            Map.entry("META+SPACE",
                    "switches the keyboard layout"),
            Map.entry("ALT+CTRL+T",
                    "opens a terminal"));
    /** Keys that people use in every application, so that one taken everywhere would press while they work. */
    private static final Set<String> USUAL = Set.of("CTRL+A", "CTRL+C", "CTRL+F", "CTRL+N", "CTRL+O", "CTRL+S",
            "CTRL+V", "CTRL+W", "CTRL+X", "CTRL+Y", "CTRL+Z", "ENTER", "SPACE", "TAB", "ESC", "BACKSPACE", "DELETE",
            "LEFT", "RIGHT", "UP", "DOWN", "HOME", "END", "PAGE UP", "PAGE DOWN");

    private TriggerConflicts() {
    }

    /** What a trigger's key or control is for already, in a sentence that says what to do; empty where it is free. */
    public static Optional<String> by(Trigger trigger, Rig rig) {
        return switch (trigger) {
            case Trigger.Key k -> key(k, rig);
            case Trigger.Midi m -> midi(m, rig);
            case Trigger.Gamepad _,Trigger.Osc _,MessageTrigger.Http _,MessageTrigger.Mqtt _,Trigger.Clock _,Trigger.Becomes _,Trigger.When _ ->
                Optional.empty();
        };
    }

    private static Optional<String> key(Trigger.Key k, Rig rig) {
        String key = k.normal().key();
        if (OWN.contains(key)) {
            return Optional.of("%s is a shortcut of Rombix itself; choose another".formatted(k.key()));
        }
        if (DESKTOP.containsKey(key)) {
            return Optional.of("%s %s on most desktops; choose another".formatted(k.key(), DESKTOP.get(key)));
        }
        for (Gear g : rig.board().gear()) {
            List<String> own = rig.twin(g.id()).map(t -> t.card().hotkeys()).orElse(List.of());
            if (own.stream().anyMatch(h -> new Trigger.Key(h).normal().key().equals(key))) {
                return Optional.of("%s also uses %s; choose another".formatted(g.name(), k.key()));
            }
        }
        boolean typed = key.length() == 1 || key.matches("(SHIFT\\+)?[A-Z0-9]");
        return k.everywhere() && (typed || USUAL.contains(key))
                ? Optional.of("%s as a global key would press while you work in another window; choose F13 to F24, or a"
                        .formatted(k.key()) + " key with Ctrl and Alt")
                : Optional.empty();
    }

    private static Optional<String> midi(Trigger.Midi m, Rig rig) {
        String address = "%s %d%s".formatted(m.message().name().toLowerCase(Locale.ROOT), m.channel(),
                m.message() == Trigger.Midi.Message.PROGRAM ? "" : " " + m.number());
        return rig.board().gear().stream()
                .filter(g -> g.link().protocol().descriptor().reach() == Protocol.Reach.PORT
                        && g.link().address().equals(m.port()))
                .filter(g -> rig.twin(g.id()).filter(t -> !t.land(address, List.of(Value.of(1))).isEmpty()).isPresent())
                .findFirst().map(g -> "%s uses it to report a reading; choose another control"
                        .formatted(g.name()));
    }
}
