package rombix.core.forecast;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Input;
import rombix.core.computer.Keys;
import rombix.core.computer.Layout;
import rombix.core.computer.Place;
import rombix.core.value.Value;

/**
 * What a hand did at this computer, as steps: chords as chords, typing as one text, presses and moves of the pointer as
 * clicks and drags. One thread's.
 */
public final class Recording {
    private static final long MILLION = 1_000_000L;
    private static final long SHORTEST_PAUSE = 150;
    private static final long SQUEEZED = 400;
    private static final long TEXT_GAP = 4000;
    private static final long DOUBLE_CLICK = 400;
    private static final long WHEEL_GAP = 500;
    private static final int DRAG_PIXELS = 6;
    /** What is down for longer than this is held, not tapped. */
    private static final long HELD = 500 * MILLION;
    private static final Set<String> WRITES_NOTHING = Set.of("Enter", "Numpad Enter", "Tab", "Backspace", "Delete",
            "Esc");

    /** What becomes of the pauses between. */
    public enum Pauses {
        KEPT("as they were"), SQUEEZED("at most 0.4 s"), DROPPED("none");

        private final String words;

        Pauses(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What a click is bound to. */
    public enum Clicks {
        WINDOW("its position in the window"), SCREEN("its position on the screen"), POINTER("at the pointer"), PICTURE(
                "a picture of what was clicked");

        private final String words;

        Clicks(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private record Seen(Input input, Layout layout) {
    }

    private final String gear;
    private final List<Seen> inputs = new ArrayList<>();
    private final Map<Long, Place.OnPicture> pictures = new HashMap<>();

    /** @param gear the id of the gear that is this computer */
    public Recording(String gear) {
        this.gear = gear;
    }

    /** Something was done. @param layout where windows were then */
    public void add(Input input, Layout layout) {
        inputs.add(new Seen(input, layout));
    }

    /** What was to be seen where a button went down, at that moment: its picture is nowhere else on the screen. */
    public void seen(long atNanos, Place.OnPicture place) {
        pictures.put(atNanos, place);
    }

    /** Takes back what was done from a moment on: what ended the recording is no part of it. */
    public void cut(long fromNanos) {
        inputs.removeIf(s -> s.input().atNanos() >= fromNanos);
    }

    public boolean isEmpty() {
        return inputs.isEmpty();
    }

    /** The steps so far. */
    public List<Step> steps(Pauses pauses, Clicks clicks) {
        return new Writing(pauses, clicks).write();
    }

    /** One time of writing them. */
    private final class Writing {
        private final Pauses pauses;
        private final Clicks clicks;
        private final List<Step> steps = new ArrayList<>();
        private final Set<String> modifiers = new LinkedHashSet<>();
        private final StringBuilder text = new StringBuilder();
        private final Map<String, Input.Button> down = new HashMap<>();
        private boolean modifierAlone;
        private final Set<String> heldModifiers = new LinkedHashSet<>();
        /** What is held, by the key that holds it. */
        private final Map<String, String> heldKeys = new HashMap<>();
        private long modifierAt;
        private int at;
        private long textAt;
        private long textEnd;
        private long last = -1;
        private Input.@Nullable Button lastClick;
        private Input.@Nullable Wheel lastWheel;
        private int turned;

        Writing(Pauses pauses, Clicks clicks) {
            this.pauses = pauses;
            this.clicks = clicks;
        }

        List<Step> write() {
            for (at = 0; at < inputs.size(); at++) {
                Seen seen = inputs.get(at);
                switch (seen.input()) {
                    case Input.Key k -> key(k);
                    case Input.Typed t -> typed(t);
                    case Input.Button b -> button(b, seen.layout());
                    case Input.Wheel w -> wheel(w, seen.layout());
                }
            }
            flush();
            // What was still down at the end is let go of.
            List.copyOf(heldKeys.values()).forEach(chord -> letGo(chord, inputs.getLast().input().atNanos()));
            heldModifiers.forEach(m -> letGo(m, inputs.getLast().input().atNanos()));
            return steps;
        }

        private void hold(String chord, long atNanos) {
            add(atNanos, "hold-keys", Map.of("keys", Value.of(chord)));
        }

        /** For how long something is held is kept, whatever becomes of pauses. */
        private void letGo(String chord, long atNanos) {
            held(atNanos);
            add(atNanos, "let-go-keys", Map.of("keys", Value.of(chord)));
        }

        private void held(long untilNanos) {
            long millis = (untilNanos - last) / MILLION;
            if (pauses != Pauses.KEPT && millis >= SHORTEST_PAUSE) {
                steps.add(new Step.Wait(millis / 10 * 10));
                last = untilNanos;
            }
        }

        /** When a key that goes down now comes up; the end of the recording where it does not. */
        private long up(String key) {
            for (int i = at + 1; i < inputs.size(); i++) {
                if (inputs.get(i).input() instanceof Input.Key k && k.key().equals(key) && !k.down()) {
                    return k.atNanos();
                }
            }
            return inputs.getLast().input().atNanos();
        }

        private void add(long atNanos, String command, Map<String, Value> with) {
            long pause = last < 0 ? 0 : (atNanos - last) / MILLION;
            if (pause >= SHORTEST_PAUSE && pauses != Pauses.DROPPED) {
                steps.add(new Step.Wait(pauses == Pauses.SQUEEZED ? Math.min(SQUEEZED, pause) : pause / 10 * 10));
            }
            last = atNanos;
            steps.add(new GearStep.Do(gear, command, with));
        }

        private void flush() {
            if (!text.isEmpty()) {
                String all = text.toString();
                text.setLength(0);
                add(textAt, "type-text", Map.of("text", Value.of(all)));
                last = textEnd;
            }
            lastWheel = null;
        }

        private void key(Input.Key k) {
            if (Keys.modifier(k.key())) {
                if (k.down()) {
                    modifiers.add(k.key());
                    modifierAlone = true;
                    modifierAt = k.atNanos();
                } else {
                    modifierUp(k);
                }
            } else if (heldKeys.containsKey(k.key())) {
                if (!k.down()) {
                    flush();
                    letGo(String.valueOf(heldKeys.remove(k.key())), k.atNanos());
                }
            } else if (k.down() && up(k.key()) - k.atNanos() >= HELD) {
                flush();
                modifierAlone = false;
                List<String> keys = new ArrayList<>(modifiers);
                keys.removeAll(heldModifiers);
                keys.add(k.key());
                heldKeys.put(k.key(), String.join("+", keys));
                hold(heldKeys.get(k.key()), k.atNanos());
            } else if (k.down()) {
                boolean chord = modifiers.stream().anyMatch(m -> !m.endsWith("Shift") && !m.equals("Right Alt"));
                modifierAlone = false;
                if (chord || !writes(k.key())) {
                    flush();
                    List<String> keys = new ArrayList<>(modifiers);
                    keys.add(k.key());
                    add(k.atNanos(), "press-keys", Map.of("keys", Value.of(String.join("+", keys))));
                }
            }
        }

        private void modifierUp(Input.Key k) {
            boolean down = modifiers.remove(k.key());
            if (heldModifiers.remove(k.key())) {
                flush();
                letGo(k.key(), k.atNanos());
            } else if (down && modifierAlone && k.atNanos() - modifierAt >= HELD) {
                flush();
                hold(k.key(), modifierAt);
                letGo(k.key(), k.atNanos());
            } else if (down && modifierAlone) {
                flush();
                add(k.atNanos(), "press-keys", Map.of("keys", Value.of(k.key())));
            }
            modifierAlone = false;
        }

        /** Modifiers that are down while the pointer is worked belong to that. */
        private void holdModifiers(long atNanos) {
            modifiers.stream().filter(heldModifiers::add).forEach(m -> hold(m, atNanos));
        }

        private static boolean writes(String key) {
            return !WRITES_NOTHING.contains(key) && (key.length() == 1 || key.equals("Space") || Keys.grouped()
                    .getOrDefault("Signs", List.of()).contains(key) || Keys.grouped().getOrDefault("Keypad", List.of())
                            .contains(key));
        }

        private void typed(Input.Typed t) {
            boolean chord = modifiers.stream().anyMatch(m -> !m.endsWith("Shift") && !m.equals("Right Alt"));
            if (chord || Character.isISOControl(t.letter()) || t.letter() == Character.MAX_VALUE
                    || !heldKeys.isEmpty()) {
                return; // It is a chord, a key of its own, or what the keyboard repeats of one that is held.
            }
            if (!text.isEmpty() && t.atNanos() - textEnd > TEXT_GAP * MILLION) {
                flush();
            }
            if (text.isEmpty()) {
                textAt = t.atNanos();
            }
            text.append(t.letter());
            textEnd = t.atNanos();
        }

        private Value place(double x, double y, long atNanos, Layout layout) {
            List<Place> all = layout.places(x, y, null);
            Place place = switch (clicks) {
                case WINDOW -> all.getFirst();
                case SCREEN -> all.stream().filter(Place.OnScreen.class::isInstance).findFirst().orElse(all.getFirst());
                case POINTER -> Place.HERE;
                case PICTURE -> pictures.get(atNanos) instanceof Place.OnPicture p ? p : all.getFirst();
            };
            return Value.of(place.toString());
        }

        private void button(Input.Button b, Layout layout) {
            if (b.down()) {
                flush();
                down.put(b.button(), b);
                modifierAlone = false;
                holdModifiers(b.atNanos());
                return;
            }
            Input.Button from = down.remove(b.button());
            if (from == null) {
                return; // It went down before the recording began.
            }
            if (Math.hypot(b.x() - from.x(), b.y() - from.y()) > DRAG_PIXELS) {
                Map<String, Value> with = new LinkedHashMap<>();
                with.put("from", place(from.x(), from.y(), from.atNanos(), layout));
                with.put("place", place(b.x(), b.y(), b.atNanos(), layout));
                with.put("button", Value.of(b.button()));
                with.put("ms", Value.of(Math.max(50, (b.atNanos() - from.atNanos()) / MILLION / 10 * 10)));
                add(from.atNanos(), "drag", with);
                last = b.atNanos();
                return;
            }
            if (b.atNanos() - from.atNanos() >= HELD) {
                Map<String, Value> with = Map.of("place", place(from.x(), from.y(), from.atNanos(), layout), "button",
                        Value.of(b.button()));
                add(from.atNanos(), "button-down", with);
                held(b.atNanos());
                add(b.atNanos(), "button-up", with);
                return;
            }
            Input.Button before = lastClick;
            boolean twice = before != null && before.button().equals(b.button())
                    && from.atNanos() - before.atNanos() < DOUBLE_CLICK * MILLION
                    && Math.hypot(b.x() - before.x(), b.y() - before.y()) <= DRAG_PIXELS
                    && steps.getLast() instanceof GearStep.Do d && d.command().equals("click") && !d.args().containsKey(
                            "times");
            Map<String, Value> with = new LinkedHashMap<>();
            with.put("place", place(from.x(), from.y(), from.atNanos(), layout));
            with.put("button", Value.of(b.button()));
            if (twice) {
                steps.removeLast();
                with.put("times", Value.of(2));
                steps.add(new GearStep.Do(gear, "click", with));
                last = b.atNanos();
            } else {
                add(from.atNanos(), "click", with);
            }
            lastClick = b;
        }

        private void wheel(Input.Wheel w, Layout layout) {
            Input.Wheel before = lastWheel;
            if (before != null && before.way().equals(w.way())
                    && w.atNanos() - before.atNanos() < WHEEL_GAP * MILLION) {
                turned++;
                steps.removeLast();
                last = w.atNanos();
                steps.add(new GearStep.Do(gear, "wheel", turn(w, layout)));
            } else {
                flush();
                holdModifiers(w.atNanos());
                turned = 1;
                add(w.atNanos(), "wheel", turn(w, layout));
            }
            lastWheel = w;
        }

        private Map<String, Value> turn(Input.Wheel w, Layout layout) {
            return Map.of("wheel", Value.of(w.way()), "clicks", Value.of(turned), "place",
                    place(w.x(), w.y(), w.atNanos(), layout));
        }
    }
}
