package rombix.core.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Contrast;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.check.Finding.Kind;
import rombix.core.find.Nearest;
import rombix.core.patch.Fixture;
import rombix.core.patch.Universes;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** Finds what is wrong with a board, or likely to be, without pressing anything. */
public final class Check {
    private final Rig rig;
    private final List<Finding> findings = new ArrayList<>();
    /** The states, by button, that steps show. */
    private final Map<String, Set<String>> shownBySteps = new HashMap<>();

    private final CheckContext context;

    private Check(Rig rig, CheckContext context) {
        this.rig = rig;
        this.context = context;
    }

    /** All findings that can be had from the board alone. */
    public static List<Finding> of(Rig rig) {
        return of(rig, CheckContext.NONE);
    }

    /** All findings, in the order of their kinds. */
    public static List<Finding> of(Rig rig, CheckContext context) {
        Check check = new Check(rig, context);
        References.flaws(rig).forEach(f -> check.findings.add(new Finding(Kind.DEAD_REFERENCE, f.pointer(),
                check.whose(f.pointer()), f.message(), check.buttonOf(f.pointer()))));
        Walk.steps(rig.board(), spot -> {
            if (spot.step() instanceof DeckStep.Show s && s.button() != null && s.state() != null) {
                check.shownBySteps.computeIfAbsent(s.button(), _ -> new HashSet<>()).add(s.state());
            }
        });
        Names names = new Names(rig, context::readings);
        check.findings.addAll(Formulas.of(rig, names));
        check.buttons();
        check.findings.addAll(new Loops(rig).find());
        check.findings.addAll(Texts.of(rig, names));
        check.findings.addAll(OutgoingChecks.of(rig, context));
        check.triggers();
        check.gear();
        return List.copyOf(check.findings);
    }

    /** Only what is wrong with triggers. */
    public static List<Finding> ofTriggers(Rig rig) {
        Check check = new Check(rig, CheckContext.NONE);
        check.triggers();
        return List.copyOf(check.findings);
    }

    private void buttons() {
        for (int p = 0; p < rig.board().pages().size(); p++) {
            Page page = rig.board().pages().get(p);
            for (int b = 0; b < page.buttons().size(); b++) {
                Button button = page.buttons().get(b);
                String at = "/pages/%d/buttons/%d".formatted(p, b);
                reachable(button, at);
                looks(button, at);
                holds(button, at);
                moves(button, at);
                for (int s = 0; s < button.states().size(); s++) {
                    face(page, button, button.states().get(s), at + "/states/" + s);
                    icon(button.states().get(s).face().icon(), button, button.states().get(s), at + "/states/" + s);
                }
            }
        }
    }

    private void add(Kind kind, Button button, @Nullable State state, String pointer, String message) {
        findings.add(new Finding(kind, pointer, "“" + button.name() + "”"
                + (state == null || button.states().size() < 2 ? "" : ", state “" + state.name() + "”"), message,
                button.id()));
    }

    /** A dial or a strip that no hand can do anything with. */
    private void moves(Button button, String at) {
        boolean turns = button.states().stream().anyMatch(s -> !s.chain(Gesture.TURN).isEmpty() || !s.chain(
                Gesture.TURN_FINE).isEmpty());
        String what = turns
                ? null
                : switch (button.control()) {
                    case Control.Dial d when d.level() == null ->
                        "is a dial without effect: choose its level, or add a turn chain";
                    case Control.PointerField _,Control.WheelStrip _ -> "has no effect: add a turn chain";
                    case null, default -> null;
                };
        if (what != null) {
            add(Kind.MOVES_NOTHING, button, null, at + "/control", what);
        }
    }

    private void icon(@Nullable String icon, Button button, State state, String at) {
        if (icon != null && !context.icon(icon)) {
            add(Kind.DEAD_REFERENCE, button, state, at + "/face/icon",
                    "there is no icon “%s”; %s".formatted(icon, Nearest
                            .words(icon, context.icons())));
        }
    }

    private void reachable(Button button, String at) {
        List<State> states = button.states();
        Set<Integer> reached = new LinkedHashSet<>();
        if (!button.follows()) {
            reached.add(0);
        }
        for (int i = 0; i < states.size(); i++) {
            if (states.get(i).when() != null) {
                reached.add(i);
            }
        }
        shownBySteps.getOrDefault(button.id(), Set.of()).forEach(state -> reached.add(index(states, state)));
        List<Integer> open = new ArrayList<>(reached);
        while (!open.isEmpty()) {
            int i = open.removeLast();
            for (int next : button.follows() ? Set.<Integer>of() : after(states, i)) {
                if (reached.add(next)) {
                    open.add(next);
                }
            }
        }
        boolean chosen = button.control() instanceof Control.Row // By hand, whichever it is.
                || button.control() instanceof Control.KeyPad;
        for (int i = 0; i < states.size() && !chosen; i++) {
            if (!reached.contains(i)) {
                add(Kind.UNREACHABLE_STATE, button, states.get(i), at + "/states/" + i, button.follows()
                        ? "is never shown: the button follows the gear, and this state has no condition"
                        : "is never shown: no state leads to it");
            }
        }
    }

    private static Set<Integer> after(List<State> states, int i) {
        Set<Integer> next = new HashSet<>();
        switch (states.get(i).then()) {
            case State.STAY -> {
            }
            case State.NEXT -> next.add((i + 1) % states.size());
            case State.RANDOM -> {
                for (int s = 0; s < states.size(); s++) {
                    next.add(s);
                }
            }
            default -> next.add(index(states, states.get(i).then()));
        }
        State.FallBack fall = states.get(i).fallBack();
        if (fall != null) {
            next.add(index(states, fall.to()));
        }
        next.remove(-1);
        return next;
    }

    private static int index(List<State> states, @Nullable String id) {
        for (int i = 0; i < states.size(); i++) {
            if (states.get(i).id().equals(id)) {
                return i;
            }
        }
        return -1;
    }

    private void looks(Button button, String at) {
        Map<Look, State> seen = new HashMap<>();
        if (button.control() instanceof Control.KeyPad) {
            return; // Each of its ways lies where it points to.
        }
        for (int i = 0; i < button.states().size(); i++) {
            State state = button.states().get(i);
            State same = seen.putIfAbsent(look(state), state);
            if (same != null) {
                add(Kind.SAME_LOOK, button, state, at + "/states/" + i,
                        "looks the same as “%s”; give it another label, icon, tint or tally".formatted(same.name()));
            }
        }
    }

    /** What one sees of a state: its face, and the tally that is lit while its condition holds. */
    private record Look(Face face, @Nullable String lit) {
    }

    private static Look look(State state) {
        Map<String, Value> then = state.when() == null ? Map.of() : state.when().meeting();
        return new Look(state.face(), state.face().tally().stream().filter(t -> Question.of(t.when()).filter(q -> q
                .holds(then::get)).isPresent()).map(Face.Tally::word).findFirst().orElse(null));
    }

    private void holds(Button button, String at) {
        for (int i = 0; i < button.states().size(); i++) {
            State state = button.states().get(i);
            String where = at + "/states/" + i + "/on/release";
            new Holds(rig).left(state).keySet().forEach(reading -> add(Kind.NOT_UNDONE, button, state, where,
                    "the press changes %s and the release doesn't change it back".formatted(words(reading))));
        }
    }

    private String words(String name) {
        return new rombix.core.board.StepWords(rig, _ -> Twin.Readings.NONE).reading(name);
    }

    private void face(Page page, Button button, State state, String at) {
        Face face = state.face();
        String label = face.label() == null ? button.name() : face.label();
        if (!label.contains("{") && !LabelFit.fits(label, page, button, face)) {
            add(Kind.LABEL_TOO_LONG, button, state, at + "/face",
                    "the label “%s” doesn't fit; shorten it or enlarge the button".formatted(label));
        }
        String tint = face.tint();
        if (tint == null) {
            return;
        }
        double ink = Contrast.of(face.ink() == null ? Contrast.inkOn(tint) : face.ink(), tint);
        if (ink < Contrast.TEXT) {
            add(Kind.LOW_CONTRAST, button, state, at + "/face", String.format(Locale.ROOT,
                    "the label has a contrast of %.1f with the tint; it needs %.1f", ink, Contrast.TEXT));
        }
        if (face.accent() != null && Contrast.of(face.accent(), tint) < Contrast.ICON) {
            add(Kind.LOW_CONTRAST, button, state, at + "/face", String.format(Locale.ROOT,
                    "the icon has a contrast of %.1f with the tint; it needs %.1f", Contrast.of(face.accent(), tint),
                    Contrast.ICON));
        }
    }

    private void triggers() {
        Map<Trigger, Button> seen = new HashMap<>();
        for (int p = 0; p < rig.board().pages().size(); p++) {
            List<Button> buttons = rig.board().pages().get(p).buttons();
            for (int b = 0; b < buttons.size(); b++) {
                Button button = buttons.get(b);
                for (int t = 0; t < button.triggers().size(); t++) {
                    Trigger trigger = button.triggers().get(t);
                    Button other = seen.putIfAbsent(trigger.normal(), button);
                    String at = "/pages/%d/buttons/%d/triggers/%d".formatted(p, b, t);
                    if (other != null) {
                        add(Kind.TRIGGER_TWICE, button, null, at,
                                "%s also presses “%s”; remove it from one of the two".formatted(trigger.words(), other
                                        .name()));
                    }
                    TriggerConflicts.by(trigger, rig).ifPresent(why -> add(Kind.TAKEN, button, null, at, why));
                }
            }
        }
    }

    private void gear() {
        for (int i = 0; i < rig.board().gear().size(); i++) {
            Gear gear = rig.board().gear().get(i);
            String wrong = gear.link().protocol().wrongAddress(gear.link().address());
            Twin twin = rig.twins().get(gear.id());
            if (wrong == null && twin != null && !twin.card().commands().isEmpty()
                    && twin.card().commands().stream().noneMatch(c -> c.send().containsKey(
                            gear.link().protocol()))) {
                wrong = "its card has no commands over " + gear.link().protocol().title();
            }
            if (wrong != null) {
                findings.add(new Finding(Kind.NO_LINK, "/gear/" + i + "/link", gear.name(), wrong, ""));
            }
            String link = "/gear/" + i + "/link/settings";
            if (twin != null) {
                twin.wrong(gear.link().settings()).forEach(w -> findings.add(new Finding(Kind.OUT_OF_RANGE, link, gear
                        .name(), w, "")));
            }
            patch(gear, i);
            String at = "/gear/" + i + "/lists/";
            gear.lists().forEach((list, items) -> items.forEach(item -> {
                if (twin != null) {
                    twin.wrong(list, item).values().forEach(w -> findings.add(new Finding(Kind.OUT_OF_RANGE, at + list,
                            gear.name(), w, "")));
                }
            }));
        }
    }

    /** Fixtures that stand where others do, or beyond the last slot. */
    private void patch(Gear gear, int i) {
        Universes universes = new Universes(gear.patch(), rig.cards());
        universes.clashes().forEach(c -> findings.add(new Finding(Kind.OUT_OF_RANGE, "/gear/" + i + "/patch", gear
                .name(), c.words(), "")));
        for (int n = 0; n < gear.patch().size(); n++) {
            Fixture f = gear.patch().get(n);
            String at = "/gear/" + i + "/patch/" + n;
            if (!rig.cards().containsKey(f.personality())) {
                findings.add(new Finding(Kind.OUT_OF_RANGE, at + "/personality", gear.name(), "“" + f.name()
                        + "” has the unknown personality “" + f.personality() + "”", ""));
            } else if (universes.beyond().contains(f)) {
                findings.add(new Finding(Kind.OUT_OF_RANGE, at + "/slot", gear.name(), "“" + f.name()
                        + "” lies beyond slot " + Universes.SLOTS, ""));
            }
        }
    }

    private @Nullable Button at(String pointer) {
        java.util.regex.Matcher m = java.util.regex.Pattern.compile("/pages/(\\d+)/buttons/(\\d+).*").matcher(pointer);
        return m.matches()
                ? rig.board().pages().get(Integer.parseInt(m.group(1))).buttons().get(Integer.parseInt(m.group(2)))
                : null;
    }

    private String whose(String pointer) {
        Button button = at(pointer);
        return button == null ? "board" : "“" + button.name() + "”";
    }

    private String buttonOf(String pointer) {
        Button button = at(pointer);
        return button == null ? "" : button.id();
    }
}
