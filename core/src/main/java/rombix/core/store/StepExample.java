package rombix.core.store;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Card;
import rombix.core.chain.GearStep;
import rombix.core.value.Value;

/** A command of a card as a step of a board has it, with an example of each argument. */
public final class StepExample {
    private StepExample() {
    }

    /**
     * The step as one line of JSON.
     *
     * @param gear the id of the gear
     */
    public static String of(Card card, Command command, String gear) {
        Map<String, Value> with = new LinkedHashMap<>();
        command.params().forEach(p -> with.put(p.id(), value(card, p)));
        return Json.MAPPER.valueToTree(new GearStep.Do(gear, command.id(), with)).toString();
    }

    private static Value value(Card card, Param param) {
        Value preset = param.preset();
        if (preset != null) {
            return preset;
        }
        Double most = param.max();
        return switch (param.type()) {
            case NUMBER -> Value.of(most == null ? 1 : most);
            case FLAG -> Value.of(true);
            case CHOICE, LIST -> Value.of(card.lists().getOrDefault(param.list(), List.of()).stream().map(Item::id)
                    .findFirst().orElse("ID"));
            case COLOUR -> Value.of("#F2A20C");
            case KEYS -> Value.of("Ctrl+Shift+F5");
            case PLACE -> Value.of("screen 1 at 120 340");
            case PATH -> Value.of("/home/booth/notes.txt");
            case SECRET -> Value.of("NAME");
            case TEXT -> Value.of("text");
        };
    }
}
