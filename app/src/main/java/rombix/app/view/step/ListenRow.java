package rombix.app.view.step;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.card.Card.Command;
import rombix.core.chain.Arg;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.running.owner.Settings;

/** Plays what a step would play through another output, so that it can be listened to before it is on air. */
final class ListenRow extends HBox {
    private static final String SETTING = "listen.output";
    private static final String THROUGH = "through";
    private static final String OUTPUT = "output";

    /** @param with the step's present arguments; those that are reckoned at the press are left to their defaults */
    ListenRow(Desk desk, Twin twin, Command command, Supplier<Map<String, Arg>> with) {
        super(Space.S8);
        setAlignment(Pos.CENTER_LEFT);
        Settings settings = new Settings();
        List<String> outputs = new ArrayList<>(twin.items(OUTPUT, desk.model().state().readings(twin.gear())).stream()
                .map(i -> i.id()).toList());
        String last = settings.get(SETTING).filter(outputs::contains).orElse(null);
        Button listen = Fields.plain("▷ Listen", "");
        var through = Fields.choice("listen-through", outputs, last, o -> o, to -> {
            settings.set(Map.of(SETTING, to));
            listen.setDisable(false);
        });
        through.setPromptText(outputs.isEmpty() ? "no output found" : "Choose the output…");
        through.setAccessibleText("Output for listening first");
        listen.setId("listen");
        listen.setDisable(last == null);
        listen.setOnAction(_ -> desk.tell(twin.gear(), command.id(), args(command, with.get(), String.valueOf(through
                .getValue()))));
        Button silent = Fields.plain("Stop", "");
        silent.setId("listen-stop");
        silent.setOnAction(_ -> desk.tell(twin.gear(), "stop-all", Map.of("fade", Value.of(0))));
        getChildren().addAll(Styles.label("Listen first through", "field-name"), through, listen, silent);
    }

    private static Map<String, Value> args(Command command, Map<String, Arg> with, String through) {
        Map<String, Value> args = new LinkedHashMap<>();
        with.forEach((name, arg) -> {
            if (arg instanceof Arg.Constant c) {
                args.put(name, c.value());
            }
        });
        args.put(THROUGH, Value.of(through));
        args.put("wait", Value.of(false));
        return args;
    }

    /** Whether a command can be listened to first. */
    static boolean can(Command command) {
        return command.param(THROUGH).filter(p -> p.list().equals(OUTPUT)).isPresent();
    }
}
