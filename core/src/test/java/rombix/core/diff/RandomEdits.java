package rombix.core.diff;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.check.References;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;

/** Edits as people make them, drawn by chance. */
final class RandomEdits {
    private final Random random;
    private final Rig rig;

    /** @param rig which cards there are */
    RandomEdits(long seed, Rig rig) {
        this.rig = rig;
        random = new Random(seed);
    }

    /** Some edits of some of these buttons. */
    Board ofButtons(Board board, List<Button> buttons, int edits) {
        Board now = board;
        for (int i = 0; i < edits && !buttons.isEmpty(); i++) {
            now = Edits.button(now, buttons.get(random.nextInt(buttons.size())).id(), this::edited);
        }
        return now;
    }

    private Button edited(Button b) {
        int state = random.nextInt(b.states().size());
        return switch (random.nextInt(6)) {
            case 0 -> b.withName("Button " + random.nextInt(100));
            case 1 -> b.withTag("tag" + random.nextInt(5));
            case 2 -> b.withTriggers(List.of(new Trigger.Osc("/go/" + random.nextInt(50))));
            case 3 -> with(b, state, b.states().get(state).withFace(b.states().get(state).face().withFill(
                    Face.Fill.values()[random.nextInt(Face.Fill.values().length)]).withLabel(
                            "Label " + random.nextInt(
                                    9))));
            case 4 -> with(b, state, steps(b.states().get(state), true));
            default -> with(b, state, steps(b.states().get(state), false));
        };
    }

    private static Button with(Button b, int at, State state) {
        List<State> all = new ArrayList<>(b.states());
        all.set(at, state);
        return b.withStates(all);
    }

    private State steps(State state, boolean more) {
        Chain chain = state.chain(Gesture.PRESS);
        List<Step> steps = new ArrayList<>(chain.steps());
        if (more || steps.isEmpty()) {
            steps.add(random.nextInt(steps.size() + 1), random.nextBoolean()
                    ? new Step.Wait(100 * (1 + random.nextInt(30)))
                    : new DeckStep.Say("Said " + random.nextInt(20), StepOptions.PLAIN, Map.of()));
        } else {
            steps.remove(random.nextInt(steps.size()));
        }
        Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
        on.putAll(state.on());
        on.put(Gesture.PRESS, chain.withSteps(steps));
        return state.withOn(on);
    }

    /** Some edits of anything on a board. */
    Board ofBoard(Board board, int edits) {
        Board now = board;
        for (int i = 0; i < edits; i++) {
            List<Button> buttons = now.buttons().toList();
            String page = now.pages().get(random.nextInt(now.pages().size())).id();
            String button = buttons.isEmpty() ? "" : buttons.get(random.nextInt(buttons.size())).id();
            Board next = switch (random.nextInt(10)) {
                case 0 -> Edits.removeButton(now, button);
                case 1 -> Edits.moveToPage(now, button, page);
                case 2 -> Edits.moveButton(now, button, random.nextInt(6), random.nextInt(4));
                case 3 -> now.pages().size() > 1 && random.nextInt(4) == 0 ? Edits.removePage(now, page) : now;
                case 4 -> Edits.addPage(now, "Page " + random.nextInt(5));
                case 5 -> Edits.movePage(now, page, 1);
                case 6 -> now.gear().isEmpty() || random.nextInt(4) > 0
                        ? now
                        : GearEdits.without(now, now.gear().get(random.nextInt(now.gear().size())).id());
                case 7 -> Edits.addState(now, button);
                default -> ofButtons(now, buttons, 1);
            };
            now = References.flaws(rig.with(next)).isEmpty() ? next : now; // What formulas say of gear that is gone stays.
        }
        return now;
    }
}
