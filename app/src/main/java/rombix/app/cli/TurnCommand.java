package rombix.app.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.chain.Gesture;
import rombix.core.engine.Event;

/** Turns a dial from a script. */
@Command(name = "turn", mixinStandardHelpOptions = true, description = {
        "Turns a dial of a board by so many detents; to the left where they are negative.",
        "A Rombix that has the board open does it; else this command connects the gear itself.",
        "Exit code: 0 done, 1 a step failed, 2 a bad call or a bad file."})
final class TurnCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "BUTTON", description = "The dial's id, such as walkway-dial.")
    private String button = "";

    @Parameters(index = "2", paramLabel = "DETENTS", description = "How far, such as 3 or -3.")
    private int detents;

    @Option(names = "--fine", description = "A tenth of the way for each detent.")
    private boolean fine;

    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Reach a gear at another address than the board's; for MIDI the name of a port.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear on free ports, and use them.")
    private boolean standIns;

    @Option(names = "--json", description = "One JSON object per line, as “rombix press” prints them.")
    private boolean json;

    @Mixin
    private AllowForPress allow = new AllowForPress();

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    TurnCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    private static boolean turns(Button button) {
        Control control = button.control();
        return control instanceof Control.Row || control != null && !control.axes().isEmpty()
                || button.states().stream()
                        .anyMatch(s -> !s.chain(Gesture.TURN).isEmpty() || !s.chain(Gesture.TURN_FINE).isEmpty());
    }

    @Override
    public Integer call() throws Exception {
        try (Playing play = stage.open(board, button, at, standIns, allow)) {
            Button turned = GearAccess.button(play.rig(), board, button);
            if (!turns(turned)) {
                throw new BadCall("“%s” can't be turned: it has no level, and no chain for turning.".formatted(turned
                        .name()));
            }
            play.settle(turned);
            Report report = new Report(spec.commandLine().getOut(), json, play.rig());
            play.follow(new Event.Turned(turned.id(), detents, fine, PressCommand.SOURCE), turned, report::take);
            return report.faults() == 0 ? 0 : 1;
        }
    }
}
