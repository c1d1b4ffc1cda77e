package rombix.app.view.rack;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import rombix.app.view.common.Fields;
import rombix.app.view.common.Styles;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.GearEdits;
import rombix.core.card.Protocol;

/** The field for where a gear is reached. */
public final class GearAddress {
    private GearAddress() {
    }

    /** Where it is reached: a port that is there, or an address that says at once when it is none. */
    public static Node of(Gear g, BiConsumer<String, UnaryOperator<Board>> edit) {
        Protocol protocol = g.link().protocol();
        String id = "gear-address-" + g.id();
        Consumer<String> reached = to -> edit.accept("reach “" + g.name() + "” at " + to,
                b -> GearEdits.reached(b, g.id(),
                        protocol, to.strip()));
        return switch (protocol.descriptor().reach()) {
            case HERE -> Styles.label("this computer", "read", "quiet");
            case PORT -> {
                String word = protocol.descriptor().portWord();
                List<String> ports = new ArrayList<>(protocol.descriptor().ports());
                if (!g.link().address().isBlank() && !ports.contains(g.link().address())) {
                    ports.add(g.link().address());
                }
                var port = Fields.choice(id, ports, g.link().address().isBlank() ? null : g.link().address(), p -> p,
                        reached);
                port.setPromptText(ports.isEmpty() ? "no " + word + " found" : "Choose the " + word + "…");
                port.setAccessibleText(word + " of " + g.name());
                yield port;
            }
            case EITHER -> either(g, id, reached);
            case NETWORK -> {
                TextField address = Fields.text(id, g.link().address(), reached);
                address.setPromptText("HOST:PORT" + String.join("", protocol.descriptor().addressWords().stream().map(
                        w -> ", or " + w).toList()));
                address.setAccessibleText("Address of " + g.name());
                yield address;
            }
        };
    }

    /** HOST:PORT is typed, a port that is there is chosen. */
    private static Node either(Gear g, String id, Consumer<String> reached) {
        ComboBox<String> address = new ComboBox<>();
        address.setId(id);
        address.setEditable(true);
        address.getItems().setAll(g.link().protocol().descriptor().ports());
        address.setValue(g.link().address());
        address.getEditor().setPromptText("HOST:PORT, or choose the " + g.link().protocol().descriptor().portWord());
        address.setAccessibleText("Address of " + g.name());
        address.setMaxWidth(Double.MAX_VALUE);
        address.valueProperty().addListener((_, _, to) -> {
            if (to != null && !to.strip().equals(g.link().address())) {
                reached.accept(to);
            }
        });
        return address;
    }
}
