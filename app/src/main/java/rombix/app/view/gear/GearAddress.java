package rombix.app.view.gear;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Protocol;
import rombix.core.edit.GearEdits;

/** The field for where a gear is reached. */
public final class GearAddress {
    private GearAddress() {
    }

    /**
     * Where it is reached: a port that is there, or an address that says at once when it is none.
     *
     * @param discovery where gear was found
     */
    public static Node of(Gear g, Discovery discovery, BiConsumer<String, UnaryOperator<Board>> edit) {
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
            case EITHER ->
                network(g, id, discovery, protocol.descriptor().ports(), "HOST:PORT, or choose the " + protocol
                        .descriptor().portWord(), reached);
            case NETWORK -> network(g, id, discovery, protocol.descriptor().addressWords(), "HOST:PORT", reached);
        };
    }

    /** What says that it is here, and what is there in any case, is chosen; HOST:PORT is typed. */
    private static Node network(Gear g, String id, Discovery discovery, List<String> there, String prompt,
            Consumer<String> reached) {
        ComboBox<String> address = new ComboBox<>();
        address.setId(id);
        address.setEditable(true);
        address.setValue(g.link().address());
        address.setPlaceholder(Fields.read("Looking for gear…"));
        Runnable fill = () -> {
            Set<String> all = new LinkedHashSet<>(there);
            all.addAll(discovery.addresses(g.link().protocol()));
            if (!List.copyOf(all).equals(address.getItems())) {
                address.getItems().setAll(all);
            }
        };
        fill.run();
        address.setOnShowing(_ -> discovery.begin(fill));
        address.setOnHidden(_ -> discovery.end(fill));
        address.getEditor().setPromptText(prompt);
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
