package rombix.app.cli.play;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.PlayOptions;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.chain.Gesture;

/** Turns a dial from a script. */
@Command(name = "turn", mixinStandardHelpOptions = true, description = {
        "Turns a dial by a number of detents; negative turns left.",
        "If a Rombix has the board open, it turns the dial there; otherwise this command connects to the gear itself.",
        "Exit code: 0 done, 1 a step failed, 2 usage error or invalid file."})
public final class TurnCommand implements Callable<Integer> {
    @Mixin
    private PressedButton worked = new PressedButton();

    @Parameters(index = "2", paramLabel = "DETENTS", description = "Number of detents, such as 3 or -3.")
    private int detents;

    @Option(names = "--fine", description = "A tenth of the normal change per detent.")
    private boolean fine;

    @Mixin
    private PlayOptions options = new PlayOptions();

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public TurnCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    private static boolean turns(Button button) {
        Control control = button.control();
        return control instanceof Control.Row || control instanceof Control.Items
                || control != null && !control.axes().isEmpty()
                || button.states().stream()
                        .anyMatch(s -> !s.chain(Gesture.TURN).isEmpty() || !s.chain(Gesture.TURN_FINE).isEmpty());
    }

    @Override
    public Integer call() throws Exception {
        try (Playing play = stage.open(worked.board(), worked.button(), options)) {
            Button turned = worked.in(play.rig());
            if (!turns(turned)) {
                throw new BadCall("“%s” can't be turned: it has no level, and no chain for turning.".formatted(turned
                        .name()));
            }
            play.settle(turned);
            Report report = worked.report(play.rig(), spec.commandLine().getOut());
            play.follow(port -> port.turn(turned.id(), detents, fine), turned, false, report::take);
            return report.faults() == 0 ? 0 : 1;
        }
    }
}
