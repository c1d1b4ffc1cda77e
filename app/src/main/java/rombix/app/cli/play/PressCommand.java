package rombix.app.cli.play;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.GestureName;
import rombix.app.cli.option.PlayOptions;
import rombix.app.cli.option.Span;
import rombix.core.board.Button;
import rombix.core.chain.Gesture;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/** Presses a button from a script. */
@Command(name = "press", mixinStandardHelpOptions = true, description = {
        "Presses a button and prints one line per step until its chain ends.",
        "If a Rombix has the board open, it does the press in its present mode; otherwise this command connects to the gear itself.",
        "Exit code: 0 done, 1 a step failed, 2 usage error or invalid file."})
public final class PressCommand implements Callable<Integer> {
    @Mixin
    private PressedButton worked = new PressedButton();

    @Option(names = "--gesture", defaultValue = "press", paramLabel = "GESTURE", converter = GestureName.class, description = "press (default), release, long-press, double-press, held, turn or turn-fine.")
    private Gesture gesture = Gesture.PRESS;

    @Option(names = "--times", defaultValue = "1", paramLabel = "N", description = "Number of presses, one after another.")
    private int times = 1;

    @Option(names = "--answer", paramLabel = "ANSWER", description = "Answer to a question of the chain: a choice by name or by position from 0, a number, or a text. Repeat it for several questions.")
    private List<String> answers = List.of();

    @Option(names = "--for", paramLabel = "TIME", converter = Span.class, description = "How long to hold the button, such as 2s or 500ms; by default it is released at once.")
    private @Nullable Long holdMillis;

    @Option(names = "--confirm", description = "Confirm the press of a guarded button.")
    private boolean confirm;

    @Option(names = "--hold", description = "Hold the button until “rombix release”. Needs a Rombix that has the board open.")
    private boolean hold;

    @Mixin
    private PlayOptions options = new PlayOptions();

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;
    private int unanswered;

    public PressCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        if (times < 1) {
            throw new BadCall("--times takes a whole number from 1");
        }
        if (hold && stage.deck() == null) {
            throw new BadCall(OpenDeck.nobody(worked.board()) + " Without one, the hold would end with this command.");
        }
        try (Playing play = stage.open(worked.board(), worked.button(), options)) {
            Button pressed = worked.in(play.rig());
            guard(play, pressed);
            play.settle(pressed);
            Deque<String> left = new ArrayDeque<>(answers);
            Report report = worked.report(play.rig(), spec.commandLine().getOut());
            for (int i = 0; i < times; i++) {
                if (hold) {
                    if (pressed.guard() != null && pressed.guard().kind() == Button.Guard.Kind.TWICE) {
                        play.port().press(pressed.id());
                        play.port().release(pressed.id());
                    }
                    play.port().press(pressed.id());
                    continue;
                }
                play.follow(port -> port.perform(pressed.id(), gesture, holdMillis == null ? -1 : holdMillis), pressed,
                        gesture == Gesture.PRESS, h -> {
                            report.take(h);
                            if (h instanceof Happening.Asked asked) {
                                answer(play, asked, left);
                            }
                        });
            }
            return report.faults() + unanswered == 0 ? 0 : 1;
        }
    }

    private void guard(Playing play, Button pressed) throws BadCall {
        boolean hand = gesture == Gesture.PRESS || gesture == Gesture.LONG_PRESS || gesture == Gesture.DOUBLE_PRESS;
        if (hand && !confirm && pressed.guard() != null) {
            throw new BadCall("“%s” is guarded against accidental presses (%s). Add --confirm to press it.".formatted(
                    pressed.name(), pressed.guard().kind() == Button.Guard.Kind.HOLD ? "hold to fire" : "press twice"));
        }
        if (holdMillis != null && (hold || gesture != Gesture.PRESS)) {
            throw new BadCall("--for can't be combined with --hold or another gesture.");
        }
    }

    /** Answers a question; where there is no answer left and none comes by itself, the chain is stopped. */
    private void answer(Playing play, Happening.Asked asked, Deque<String> left) {
        String answer = left.poll();
        if (answer != null) {
            Value value = answer.matches("-?\\d+(\\.\\d+)?") && !asked.options().contains(answer)
                    ? Value.of(Double.parseDouble(answer))
                    : Value.of(answer);
            play.port().answer(asked.question(), value);
        } else if (asked.timeoutMillis() < 0) {
            unanswered++;
            spec.commandLine().getErr().println("“%s” waits for an answer: give one with --answer%s".formatted(asked
                    .text(), asked.options().isEmpty() ? "" : ", one of " + String.join(", ", asked.options())));
            play.port().stop(asked.run());
        }
    }
}
