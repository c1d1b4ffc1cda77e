package rombix.core.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Palette;
import rombix.core.board.Paths;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Walk;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What can be done about a finding without asking the person anything. */
public final class Fixes {
    private static final Pattern PLACE = Pattern.compile("/pages/(\\d+)/buttons/(\\d+)(?:/states/(\\d+))?(/.*)?");
    private static final long BREATH_MILLIS = 1000;

    /** A fix: what it does, in words, and the edit that does it. */
    public record Fix(String words, UnaryOperator<Board> edit) {
    }

    private final Rig rig;
    private final Finding finding;
    private final @Nullable Button button;
    private final int state;
    private final String rest;

    private Fixes(Rig rig, Finding finding) {
        this.rig = rig;
        this.finding = finding;
        Matcher m = PLACE.matcher(finding.pointer());
        boolean found = m.matches();
        button = found
                ? rig.board().pages().get(Integer.parseInt(m.group(1))).buttons().get(Integer.parseInt(m.group(2)))
                : null;
        state = found && m.group(3) != null ? Integer.parseInt(m.group(3)) : -1;
        rest = found && m.group(4) != null ? m.group(4) : "";
    }

    /** The fix for what a check of this very board has found; empty where a person must decide. */
    public static Optional<Fix> of(Rig rig, Finding finding) {
        Fixes fixes = new Fixes(rig, finding);
        return switch (finding.kind()) {
            case DEAD_REFERENCE -> fixes.reference();
            case FORMULA -> fixes.step("Switch off that step", s -> off(s));
            case UNREACHABLE_STATE -> fixes.inButton("Delete that state", (b, id) -> Edits.removeState(b, id,
                    fixes.state));
            case SAME_LOOK -> fixes.mark();
            case ENDLESS_LOOP -> fixes.loop();
            case NOT_UNDONE -> fixes.release();
            case TRIGGER_TWICE, TAKEN -> fixes.trigger();
            case LABEL_TOO_LONG -> fixes.label();
            case LOW_CONTRAST -> fixes.inState("Fix the contrast", s -> s.withFace(Palette.legible(s.face())));
            case NO_LINK, OUT_OF_RANGE, MOVES_NOTHING -> Optional.empty();
        };
    }

    private interface InButton {
        Board edit(Board board, String button);
    }

    private Optional<Fix> inButton(String words, InButton edit) {
        return Optional.ofNullable(button).map(b -> new Fix(words, board -> edit.edit(board, b.id())));
    }

    private Optional<Fix> inState(String words, UnaryOperator<State> change) {
        return inButton(words, (board, id) -> Edits.state(board, id, state, change));
    }

    private Optional<Fix> reference() {
        if (state >= 0 && rest.startsWith("/then")) {
            return inState("Go to the next state", s -> s.withThen(State.NEXT));
        } else if (state >= 0 && rest.startsWith("/fallBack")) {
            return inState("Don't return after a time", s -> s.withFallBack(null));
        } else if (state >= 0 && rest.startsWith("/when")) {
            return inState("Follow nothing", s -> s.withWhen(null));
        } else if (state >= 0 && rest.startsWith("/face/image")) {
            return inState("Remove the picture", s -> s.withFace(s.face().withImage(null)));
        } else if (state >= 0 && rest.startsWith("/face/tally/")) {
            int lamp = Integer.parseInt(rest.replaceFirst("/face/tally/(\\d+).*", "$1"));
            return inState("Remove that tally", s -> s.withFace(s.face().withTally(without(s.face().tally(), lamp))));
        }
        return step("Remove that step", _ -> null);
    }

    private static <T> List<T> without(List<T> list, int at) {
        List<T> left = new ArrayList<>(list);
        left.remove(at);
        return left;
    }

    private static Step off(Step s) {
        return s.withHow(s.how().withOff(true));
    }

    /** Changes the step that the finding is about, or takes it out where the change gives null. */
    private Optional<Fix> step(String words, Function<Step, @Nullable Step> change) {
        Walk.Spot[] spot = new Walk.Spot[1];
        Walk.steps(rig.board(), s -> {
            boolean within = (finding.pointer() + "/").startsWith(s.pointer() + "/");
            if (within && (spot[0] == null || s.pointer().length() > spot[0].pointer().length())) {
                spot[0] = s;
            }
        });
        Walk.Spot at = spot[0];
        return at == null
                ? Optional.empty()
                : Paths.ofPlace(at.place()).map(path -> new Fix(words, board -> chain(board, at.owner(), c -> Paths
                        .changed(c, path, change))));
    }

    private static Board chain(Board board, Walk.Owner owner, UnaryOperator<Chain> change) {
        Button button = owner.button();
        State state = owner.state();
        Gesture gesture = owner.gesture();
        if (button == null) {
            return Edits.namedChain(board, Objects.requireNonNull(owner.chain()), change);
        }
        return state == null || gesture == null
                ? Edits.button(board, button.id(), b -> b.withOnStart(change.apply(b.onStart())))
                : Edits.chain(board, button.id(), button.states().indexOf(state), gesture, change);
    }

    /** The first mark that no state of the button has. */
    private Optional<Fix> mark() {
        Button b = button;
        if (b == null) {
            return Optional.empty();
        }
        for (Face.Mark mark : Face.Mark.values()) {
            if (b.states().stream().noneMatch(s -> s.face().mark() == mark)) {
                return inState("Give it a mark: " + mark.name().toLowerCase(java.util.Locale.ROOT), s -> s.withFace(s
                        .face().withMark(mark)));
            }
        }
        return Optional.empty();
    }

    /** A repeat gets a beat; a chain that uses itself gets a wait before all else. */
    private Optional<Fix> loop() {
        Optional<Fix> beat = step("Repeat it once a second", s -> s instanceof Step.Repeat r
                ? r.withEvery(BREATH_MILLIS)
                : s);
        if (beat.isPresent()) {
            return beat;
        }
        Walk.Owner[] owner = new Walk.Owner[1];
        Walk.chains(rig.board(), whole -> {
            if (whole.pointer().equals(finding.pointer())) {
                owner[0] = whole.owner();
            }
        });
        Walk.Owner of = owner[0];
        return of == null
                ? Optional.empty()
                : Optional.of(new Fix("Add a 1 s wait before it", board -> chain(board, of, c -> c.with(0,
                        new Step.Wait(BREATH_MILLIS)))));
    }

    private Optional<Fix> release() {
        Button b = button;
        if (b == null || state < 0) {
            return Optional.empty();
        }
        List<Step> back = new ArrayList<>();
        for (Map.Entry<String, Value> e : new Holds(rig).left(b.states().get(state)).entrySet()) {
            int colon = e.getKey().indexOf(':');
            Twin twin = rig.twins().get(e.getKey().substring(0, colon));
            if (twin != null) {
                twin.toReach(e.getKey().substring(colon + 1), Value.of(!e.getValue().asFlag())).ifPresent(c -> back
                        .add(new GearStep.Do(twin.gear(), c.command().id(), c.args())));
            }
        }
        return back.isEmpty()
                ? Optional.empty()
                : inState("Make the release undo it", s -> {
                    Chain release = s.chain(Gesture.RELEASE);
                    List<Step> all = new ArrayList<>(release.steps());
                    all.addAll(back);
                    return s.withChain(Gesture.RELEASE, release.withSteps(all));
                });
    }

    private Optional<Fix> trigger() {
        Matcher m = Pattern.compile("/triggers/(\\d+)").matcher(rest);
        return m.matches()
                ? inButton("Remove it from this button",
                        (board, id) -> Edits.button(board, id, b -> b.withTriggers(without(b
                                .triggers(), Integer.parseInt(m.group(1))))))
                : Optional.empty();
    }

    /** As many of the label's words as fit, with a dot-dot-dot behind them. */
    private Optional<Fix> label() {
        Button b = button;
        Page page = b == null ? null : rig.pageOf(b.id()).orElse(null);
        if (b == null || page == null || state < 0) {
            return Optional.empty();
        }
        Face face = b.states().get(state).face();
        String label = face.label() == null ? b.name() : face.label();
        for (int length = label.length() - 1; length > 1; length--) {
            String cut = label.substring(0, length).strip() + "…";
            if (LabelFit.fits(cut, page, b, face)) {
                return inState("Shorten it to “" + cut + "”", s -> s.withFace(s.face().withLabel(cut)));
            }
        }
        return Optional.empty();
    }
}
