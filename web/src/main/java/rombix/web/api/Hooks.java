package rombix.web.api;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import rombix.core.board.Button;
import rombix.core.board.MessageTrigger;
import rombix.core.event.Mode;
import rombix.core.touch.DeckPort;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import tools.jackson.databind.JsonNode;

/** Triggers that programs pull: {@code POST /hook/NAME}, with values that the chain knows by their names. One thread's. */
public final class Hooks {
    private final RunningDeck deck;
    private final Map<String, DeckPort> ports = new HashMap<>();

    public Hooks(RunningDeck deck) {
        this.deck = deck;
    }

    /** A trigger and its button. */
    private record Pulled(Button button, MessageTrigger.Http trigger) {
    }

    /**
     * Pulls all triggers of a name.
     *
     * @param source as the log names the call
     * @param values what came with it; what no trigger names is left out, and what is missing is an empty text
     */
    public ApiAnswer pull(String name, String source, JsonNode values) {
        List<Pulled> all = deck.rig().board().buttons().flatMap(b -> b.triggers().stream().filter(
                t -> t instanceof MessageTrigger.Http h && h.name().equals(name))
                .map(t -> new Pulled(b, (MessageTrigger.Http) t)))
                .toList();
        if (all.isEmpty()) {
            return new ApiAnswer.Refused(404, "Not found", "The board has no trigger of this name.");
        }
        if (deck.feed().state().mode() == Mode.BUILD) {
            return new ApiAnswer.Refused(409, "Not live", "Triggers press in Live and in Rehearse.");
        }
        DeckPort port = ports.computeIfAbsent(name, _ -> deck.port(source));
        for (Pulled p : all) {
            Map<String, Value> said = new HashMap<>();
            for (String value : p.trigger().values()) {
                JsonNode came = values.path(value);
                said.put(value, came.isNumber()
                        ? Value.of(came.asDouble())
                        : came.isBoolean() ? Value.of(came.asBoolean()) : Value.of(came.asString("")));
            }
            port.perform(p.button().id(), said);
        }
        return new ApiAnswer.Accepted();
    }
}
