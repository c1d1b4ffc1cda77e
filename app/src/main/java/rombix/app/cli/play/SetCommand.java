package rombix.app.cli.play;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.board.Board;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.find.Nearest;
import rombix.core.value.Value;
import rombix.running.RunningDeck;

/** Sets a value in a running Rombix, or goes to an item of a run-down. */
@Command(name = "set", mixinStandardHelpOptions = true, description = {
        "Sets a value in the Rombix that has the board open, or goes to an item of a run-down.",
        "Exit code: 0 done, 2 usage error or the board isn't open."})
public final class SetCommand implements Callable<Integer> {
    private static final Set<String> YES = Set.of("yes", "true", "on", "1");
    private static final Set<String> NO = Set.of("no", "false", "off", "0");

    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "VALUE", description = {
            "Id of a value or a run-down, or BUTTON/VALUE for a value of one button."})
    private String name = "";

    @Parameters(index = "2", paramLabel = "TO", description = {
            "The new value; for a run-down: next, back, first, last, a number or an item's name."})
    private String to = "";

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public SetCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        RunningDeck deck = OpenDeck.of(stage, board);
        Board open = deck.rig().board();
        RunDown list = open.runDown(name).orElse(null);
        if (list == null) {
            int slash = name.indexOf('/');
            String owner = slash < 0 ? "" : name.substring(0, slash);
            BoardValue value = value(deck.rig(), owner, name.substring(slash + 1));
            Value given = given(value);
            deck.port(Playing.SOURCE).set(owner, value.id(), given);
            spec.commandLine().getOut().println(value.name() + ": " + given);
        } else {
            int number = number(list, deck);
            deck.port(Playing.SOURCE).set("", list.id(), Value.of(number));
            spec.commandLine().getOut().println(list.name() + ": " + (number == 0
                    ? "before the first item"
                    : number + ", " + list.items().get(number - 1).name()));
        }
        return 0;
    }

    private int number(RunDown list, RunningDeck deck) throws BadCall {
        Value at = deck.feed().state().known().named(list.id());
        try {
            return list.number(to.matches("\\d{1,4}") ? Value.of(Integer.parseInt(to)) : Value.of(to), at == null
                    ? 0
                    : (int) at.asNumber());
        } catch (IllegalArgumentException e) {
            throw new BadCall(String.valueOf(e.getMessage()));
        }
    }

    private BoardValue value(Rig rig, String owner, String id) throws BadCall {
        List<BoardValue> all = owner.isEmpty()
                ? rig.board().values()
                : rig.button(owner).map(Button::values).orElseThrow(
                        () -> new BadCall("There is no button “" + owner + "” on this board."));
        List<String> names = new ArrayList<>(all.stream().map(BoardValue::id).toList());
        if (owner.isEmpty()) {
            rig.board().runDowns().forEach(r -> names.add(r.id()));
        }
        return all.stream().filter(v -> v.id().equals(id)).findFirst().orElseThrow(() -> new BadCall(
                "There is no value “%s” here; %s.".formatted(id, Nearest.words(id, names))));
    }

    /** What is typed, as a value of the kind that it has been. */
    private Value given(BoardValue value) throws BadCall {
        String plain = to.strip().toLowerCase(Locale.ROOT);
        if (value.initial() instanceof Value.Flag) {
            if (!YES.contains(plain) && !NO.contains(plain)) {
                throw new BadCall("“%s” is yes or no, not “%s”.".formatted(value.name(), to));
            }
            return Value.of(YES.contains(plain));
        }
        if (value.initial() instanceof Value.Num) {
            try {
                return Value.of(Double.parseDouble(plain));
            } catch (NumberFormatException e) {
                throw new BadCall("“%s” is a number, not “%s”.".formatted(value.name(), to));
            }
        }
        return Value.of(to);
    }
}
