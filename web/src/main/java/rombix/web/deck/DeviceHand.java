package rombix.web.deck;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.chain.DeckStep;
import rombix.core.event.Happening;
import rombix.core.event.Mode;
import rombix.core.touch.DeckPort;
import rombix.core.value.Value;
import rombix.running.owner.Secrets;
import rombix.web.access.Access;
import rombix.web.access.Right;
import tools.jackson.databind.JsonNode;

/**
 * What a device's hand does: it presses, turns, moves and answers through a {@link DeckPort} of its own, on the pages that
 * it was let in for and nowhere else. One thread's.
 */
final class DeviceHand {
    private static final String LOST = "connection lost";

    private final LiveFaces faces;
    private final DeckPort port;
    private final Set<String> sliding = new HashSet<>();
    private Access access;

    DeviceHand(LiveFaces faces, DeckPort port, Access access) {
        this.faces = faces;
        this.port = port;
        this.access = access;
    }

    /** It may do this from now on; what it holds and may no longer hold is let go. */
    void access(Access now) {
        access = now;
        if (!now.may(Right.PRESS)) {
            letGo();
        }
    }

    /** Whether it holds a button, or the hand is on a control. */
    boolean holds() {
        return !sliding.isEmpty() || port.holdsAny();
    }

    /** The connection is gone, or nobody is at it any more. */
    void letGo() {
        sliding.forEach(b -> port.ways(b, Set.of()));
        sliding.clear();
        port.letGo(LOST);
    }

    /** Does what this device may do, and nothing else. */
    void does(String what, JsonNode message) {
        if (what.equals("stop-all")) {
            if (access.may(Right.STOP_ALL)) {
                port.stopAll();
            }
            return;
        }
        if (!access.may(Right.PRESS)) {
            return;
        }
        switch (what) {
            case "stop" -> port.stop(message.path("run").asLong());
            case "answer" -> answer(message);
            default -> button(message.path("b").asString("")).ifPresent(b -> works(what, b, message));
        }
    }

    /** While its owner edits the board, nobody else's hand works it. */
    boolean building() {
        return faces.state().mode() == Mode.BUILD;
    }

    private Optional<Button> button(String id) {
        return faces.rig().pageOf(id).filter(p -> access.sees(p.id())).flatMap(_ -> faces.rig().button(id));
    }

    private void works(String what, Button button, JsonNode message) {
        String id = button.id();
        if (building() && !what.equals("release")) { // What was begun may always be ended.
            return;
        }
        switch (what) {
            case "press" -> port.press(id);
            case "release" -> port.release(id);
            case "turn" -> port.turn(id, Math.clamp(message.path("by").asInt(0), -100, 100), message.path("fine")
                    .asBoolean(false));
            case "move" -> move(button, message);
            case "stroke" -> port.stroke(id, number(message, "across"), number(message, "up"));
            case "ways" -> ways(button, message);
            case "choose" -> port.choose(id, message.path("at").asInt(0));
            default -> {
                // Nobody knows it.
            }
        }
    }

    private static double number(JsonNode message, String name) {
        double read = message.path(name).asDouble(0);
        return Double.isFinite(read) ? Math.clamp(read, -10_000, 10_000) : 0;
    }

    private void move(Button button, JsonNode message) {
        Control control = button.control();
        int axis = message.path("axis").asInt(0);
        if (control != null && axis >= 0 && axis < control.axes().size()) {
            double at = Math.clamp(number(message, "at"), 0, 1);
            faces.words().scale(control.axes().get(axis)).ifPresent(s -> port.move(button.id(), axis, s.setting(at)));
        }
    }

    private void ways(Button button, JsonNode message) {
        Set<Integer> ways = new HashSet<>();
        message.path("ways").forEach(w -> ways.add(w.asInt(-1)));
        ways.removeIf(w -> w < 0 || w >= button.states().size());
        if (ways.isEmpty()) {
            sliding.remove(button.id());
        } else {
            sliding.add(button.id());
        }
        port.off(button.id(), !ways.isEmpty());
        port.ways(button.id(), ways);
    }

    private void answer(JsonNode message) {
        long id = message.path("q").asLong(-1);
        Happening.Asked asked = faces.state().questions().stream().filter(a -> a.question() == id).findFirst()
                .orElse(null);
        if (asked == null || button(asked.button()).isEmpty()) {
            return;
        }
        JsonNode value = message.path("value");
        boolean number = asked.kind() == DeckStep.Ask.AnswerType.CHOICE
                || asked.kind() == DeckStep.Ask.AnswerType.NUMBER;
        String text = value.asString("");
        port.answer(id, number
                ? Value.of(value.asDouble(Double.NaN))
                : Value.of(asked.kind() == DeckStep.Ask.AnswerType.SECRET ? Secrets.asked(text) : text));
    }
}
