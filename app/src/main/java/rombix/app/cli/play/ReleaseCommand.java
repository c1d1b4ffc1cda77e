package rombix.app.cli.play;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.PlayOptions;
import rombix.core.board.Button;

/** Ends a hold that a script began. */
@Command(name = "release", mixinStandardHelpOptions = true, description = {
        "Releases a button that “rombix press --hold” holds, in the Rombix that has the board open.",
        "Exit code: 0 done, 1 a step failed, 2 usage error or the board isn't open."})
public final class ReleaseCommand implements Callable<Integer> {
    @Mixin
    private PressedButton worked = new PressedButton();

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public ReleaseCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        OpenDeck.of(stage, worked.board());
        try (Playing play = stage.open(worked.board(), worked.button(), new PlayOptions())) {
            Button held = worked.in(play.rig());
            Report report = worked.report(play.rig(), spec.commandLine().getOut());
            if (!play.port().holds(held.id())) {
                spec.commandLine().getErr().println("No command is holding “" + held.name() + "”.");
            }
            play.follow(port -> port.release(held.id()), held, false, report::take);
            return report.faults() == 0 ? 0 : 1;
        }
    }
}
