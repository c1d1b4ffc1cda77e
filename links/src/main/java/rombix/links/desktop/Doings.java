package rombix.links.desktop;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Keys;
import rombix.core.computer.Place;
import rombix.core.computer.Power;
import rombix.core.sight.Match;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Machine.Box;
import rombix.links.desktop.machine.Machine.Window;
import rombix.links.desktop.machine.PngPixels;
import rombix.links.desktop.machine.Stopped;
import rombix.links.desktop.machine.Unable;

/** All that a card can tell this computer, by the words of its message, and the power that each of them takes. */
final class Doings {
    /** Does one of them. */
    interface Doing {
        /** @param told told of readings that are known by it, by their address */
        void now(Args args, Machine machine, InputDriver hands, BiConsumer<String, String> told) throws Unable,
                Stopped;
    }

    private static final Map<String, Power> POWERS = Map.ofEntries(Map.entry("keys", Power.KEYS), Map.entry("pointer",
            Power.POINTER), Map.entry("programs", Power.PROGRAMS), Map.entry("files", Power.FILES),
            Map.entry("windows",
                    Power.WINDOWS),
            Map.entry("clipboard", Power.CLIPBOARD), Map.entry("volume", Power.SYSTEM),
            Map.entry("sound", Power.SYSTEM), Map
                    .entry("mute", Power.SYSTEM),
            Map.entry("brightness", Power.SYSTEM), Map.entry("screen", Power.SCREEN), Map.entry("lock",
                    Power.SYSTEM),
            Map.entry("sleep", Power.SYSTEM), Map.entry("note", Power.SYSTEM));
    private static final Map<String, Doing> ALL = new HashMap<>();

    static {
        keys();
        pointer();
        windows();
        ALL.put("files open", (a, m, _, _) -> m.open(a.text(0)));
        ALL.put("clipboard put", (a, m, _, _) -> m.clipboard(a.text(0)));
        ALL.put("clipboard take", (_, m, _, told) -> told.accept("clipboard", m.clipboard()));
        ALL.put("clipboard copy", (_, m, h, told) -> {
            String before = m.clipboard();
            String copied = "";
            m.clipboard("");
            try {
                h.press(List.of("Ctrl", "C"), 1, 0);
                for (int i = 0; i < 50 && copied.isEmpty(); i++) {
                    h.pause(10);
                    copied = m.clipboard();
                }
            } finally {
                if (copied.isEmpty()) { // Nothing could be typed, or nothing was selected.
                    m.clipboard(before);
                }
            }
            told.accept("clipboard", copied);
        });
        ALL.put("clipboard paste", (_, _, h, _) -> h.press(List.of("Ctrl", "V"), 1, 0));
        ALL.put("screen look", (a, _, h, told) -> {
            Place.OnPicture sought = picture(a.place(0));
            if (a.text(1).equals("go")) {
                h.eyes().go(sought, h::pause);
                told.accept("matches", "0");
                return;
            }
            told.accept("matches", "0");
            List<Match> found = h.eyes().awaitPicture(sought, h::pause);
            told.accept("matches", String.valueOf(found.size()));
            told.accept("found", h.eyes().words(h.eyes().at(sought, h::pause).getFirst()));
        });
        ALL.put("screen colour", (a, _, h, told) -> told.accept("colour", h.eyes().colour(a.place(0), h::pause)));
        ALL.put("screen save", (a, _, h, _) -> PngPixels.write(h.eyes().seen(a.place(1), a.text(0), h::pause), a.text(
                2)));
        for (String side : new String[]{"output", "input"}) {
            ALL.put("volume " + side, (a, m, _, _) -> m.system("volume " + side, String.valueOf(a.number(0))));
            ALL.put("mute " + side, (a, m, _, _) -> m.system("mute " + side, a.flag(0) ? "1" : "0"));
        }
        ALL.put("sound volume",
                (a, m, _, _) -> m.system("sound volume " + Programs.meant(m, a.text(0)), String.valueOf(a
                        .number(1))));
        ALL.put("sound mute",
                (a, m, _, _) -> m.system("sound mute " + Programs.meant(m, a.text(0)), a.flag(1) ? "1" : "0"));
        ALL.put("brightness set", (a, m, _, _) -> m.system("brightness", String.valueOf(a.number(0))));
        ALL.put("lock now", (_, m, _, _) -> m.system("lock", ""));
        ALL.put("sleep now", (_, m, _, _) -> m.system("sleep", ""));
        ALL.put("note show", (a, m, _, _) -> m.system("note", a.text(0)));
    }

    private Doings() {
    }

    private static Place.OnPicture picture(Place place) {
        if (place instanceof Place.OnPicture p) {
            return p;
        }
        throw new IllegalArgumentException("no picture chosen: capture one in the step");
    }

    private static void keys() {
        ALL.put("keys press", (a, _, h, _) -> h.before(a.text(3), a.flag(4), () -> h.press(Keys.chord(a.text(0)),
                (int) a.number(1), a.number(2))));
        ALL.put("keys type", (a, _, h, _) -> h.before(a.text(2), a.flag(3), () -> h.type(a.text(0), a.number(1))));
        ALL.put("keys secret", (a, _, h, _) -> h.before(a.text(2), a.flag(3), () -> h.secret(a.text(0), a.number(1))));
        ALL.put("keys down", (a, _, h, _) -> h.before(a.text(1), false, () -> h.hold(Keys.chord(a.text(0)))));
        ALL.put("keys up", (a, _, h, _) -> h.release(Keys.chord(a.text(0))));
        ALL.put("keys stick",
                (a, _, h, _) -> h.stick(InputDriver.modifier(a.text(0)), a.text(1).equals("next"), a.text(1)
                        .equals("time") ? a.number(2) : 0));
        ALL.put("keys unstick", (a, _, h, _) -> h.release(List.of(InputDriver.modifier(a.text(0)))));
    }

    private static void pointer() {
        ALL.put("pointer click",
                (a, _, h, _) -> h.pointer().click(a.text(0), (int) a.number(1), a.place(2), a.flag(3), a.flag(4),
                        a.number(5)));
        ALL.put("pointer down", (a, _, h, _) -> h.pointer().hold(a.text(0), a.place(1), a.flag(2)));
        ALL.put("pointer up", (a, _, h, _) -> h.pointer().release(a.text(0), a.place(1)));
        ALL.put("pointer move", (a, _, h, _) -> h.pointer().move(a.place(0)));
        ALL.put("pointer by", (a, _, h, _) -> h.pointer().moveBy((int) a.number(0), (int) a.number(1)));
        ALL.put("pointer roll", (a, _, h, _) -> h.pointer().roll((int) a.number(0), (int) a.number(1)));
        ALL.put("pointer drag",
                (a, _, h, _) -> h.pointer().drag(a.place(0), a.place(1), a.text(2), a.number(3), a.flag(4), a.flag(5)));
        ALL.put("pointer wheel",
                (a, _, h, _) -> h.pointer().wheel(a.text(0), (int) a.number(1), a.place(2), a.flag(3)));
    }

    private static void windows() {
        ALL.put("windows bring", (a, _, h, _) -> h.bring(h.eyes().window(a.text(0), a.text(1))));
        ALL.put("windows close", (a, m, h, _) -> m.close(h.eyes().window(a.text(0), a.text(1))));
        ALL.put("windows minimise", (a, m, h, _) -> m.minimise(h.eyes().window(a.text(0), a.text(1))));
        ALL.put("windows place", (a, m, h, _) -> {
            List<Box> screens = m.screens();
            int n = (int) a.number(2);
            if (n < 1 || n > screens.size()) {
                throw new Unable("there is no screen %d".formatted(n));
            }
            Box screen = screens.get(n - 1);
            Window window = h.eyes().window(a.text(0), a.text(1));
            m.place(window, new Box(screen.x() + (int) a.number(3), screen.y() + (int) a.number(4), (int) a.number(5),
                    (int) a.number(6)));
        });
    }

    /** What a message does. */
    static Doing of(String address) throws Unable {
        Doing doing = ALL.get(address);
        if (doing == null) {
            throw new Unable("unsupported function “" + address + "”");
        }
        return doing;
    }

    /** The power that a message takes; null where it takes none. */
    static @Nullable Power power(String address) {
        return POWERS.get(group(address));
    }

    /** The first word of a message: what may be possible here or not. */
    static String group(String address) {
        int blank = address.indexOf(' ');
        return blank < 0 ? address : address.substring(0, blank);
    }
}
