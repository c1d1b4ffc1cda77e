package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.MessageTrigger;
import rombix.core.board.StepWords;
import rombix.core.board.Trigger;
import rombix.core.check.Check;
import rombix.core.check.Finding;
import rombix.core.edit.Edits;
import rombix.core.twin.Twin.Readings;

/** All triggers of a board in one place: what each is, which button it presses, what is wrong with it; and edits. */
public final class TriggerEdits {
    private final Workbench bench;

    public TriggerEdits(Workbench bench) {
        this.bench = bench;
    }

    /**
     * A trigger in its place.
     *
     * @param index which of its button's triggers it is
     * @param trouble what is wrong with it, in a sentence; empty where nothing is
     */
    public record Row(Button button, String page, int index, Trigger trigger, String trouble) {
    }

    /** All of them, page by page. */
    public List<Row> rows() {
        Board board = bench.board();
        List<Finding> findings = Check.ofTriggers(bench.rig());
        List<Row> rows = new ArrayList<>();
        for (int p = 0; p < board.pages().size(); p++) {
            List<Button> buttons = board.pages().get(p).buttons();
            for (int b = 0; b < buttons.size(); b++) {
                Button button = buttons.get(b);
                for (int t = 0; t < button.triggers().size(); t++) {
                    String at = "/pages/%d/buttons/%d/triggers/%d".formatted(p, b, t);
                    Trigger trigger = button.triggers().get(t);
                    // Of two that are the same the check names the later one; both are wrong here.
                    String trouble = findings.stream().filter(f -> f.pointer().equals(at)).map(Finding::message)
                            .findFirst().or(() -> twin(board, button, trigger)).orElse("");
                    rows.add(new Row(button, board.pages().get(p).name(), t, trigger, trouble));
                }
            }
        }
        return rows;
    }

    private static Optional<String> twin(Board board, Button of, Trigger trigger) {
        return board.buttons().filter(b -> b != of && b.triggers().stream().anyMatch(t -> t.normal().equals(trigger
                .normal()))).findFirst().map(b -> "also presses “%s”".formatted(b.name()));
    }

    /** What a trigger is, with the names of what it names. */
    public static String words(Trigger trigger, Workbench bench, Function<String, Readings> readings) {
        return switch (trigger) {
            case Trigger.Key k -> k.key() + (k.everywhere() ? ", everywhere" : ", in this window");
            case Trigger.Midi m -> "%s %d, channel %d, %s".formatted(m.message().name().toLowerCase(Locale.ROOT), m
                    .number(), m.channel(), m.port());
            case Trigger.Gamepad g -> g.part() + ", " + g.device();
            case Trigger.Osc o -> o.address();
            case MessageTrigger.Http h -> "/hook/" + h.name() + (h.values().isEmpty()
                    ? ""
                    : ", with " + String.join(", ", h.values()));
            case MessageTrigger.Mqtt m ->
                m.topic() + (m.text() == null ? "" : ": " + m.text()) + ", " + bench.rig().twin(m
                        .gear()).map(t -> t.title()).orElse(m.gear());
            case Trigger.Clock c -> c.at().words() + (c.late() ? ", late if missed" : "");
            case Trigger.Becomes b -> new StepWords(bench.rig(), readings).of(b.condition()) + (b.each()
                    ? ", each time"
                    : "");
            case Trigger.When w -> w.what().words() + (w.gear() == null
                    ? ""
                    : ": " + bench.rig().twin(w.gear()).map(t -> t.title()).orElse(w.gear()));
        };
    }

    /** What kind of thing pulls it. */
    public static String kind(Trigger trigger) {
        return switch (trigger) {
            case Trigger.Key _ -> "key";
            case Trigger.Midi _ -> "controller";
            case Trigger.Gamepad _ -> "gamepad";
            case Trigger.Osc _ -> "OSC";
            case MessageTrigger.Http _ -> "HTTP";
            case MessageTrigger.Mqtt _ -> "MQTT";
            case Trigger.Clock _ -> "clock";
            case Trigger.Becomes _ -> "condition";
            case Trigger.When _ -> "event";
        };
    }

    /** A name for a call over HTTP that no other trigger has. */
    public String freshHook() {
        Set<String> taken = bench.board().buttons().flatMap(b -> b.triggers().stream()).filter(
                MessageTrigger.Http.class::isInstance).map(t -> ((MessageTrigger.Http) t).name()).collect(Collectors
                        .toSet());
        return Edits.freshId("hook", "hook", taken::contains);
    }

    public void add(String button, Trigger trigger) {
        edit(button, "add a trigger to", all -> {
            List<Trigger> more = new ArrayList<>(all);
            more.add(trigger);
            return more;
        });
    }

    public void remove(Row row) {
        edit(row.button().id(), "remove a trigger", all -> {
            List<Trigger> left = new ArrayList<>(all);
            left.remove(row.index());
            return left;
        });
    }

    public void replace(Row row, Trigger by) {
        edit(row.button().id(), "change a trigger of", all -> {
            List<Trigger> changed = new ArrayList<>(all);
            changed.set(row.index(), by);
            return changed;
        });
    }

    /** Has it press another button. */
    public void moveTo(Row row, String button) {
        if (!button.equals(row.button().id())) {
            String name = bench.rig().button(button).map(Button::name).orElse(button);
            bench.edit("have a trigger press “" + name + "”", b -> with(with(b, row.button().id(), all -> {
                List<Trigger> left = new ArrayList<>(all);
                left.remove(row.index());
                return left;
            }), button, all -> {
                List<Trigger> more = new ArrayList<>(all);
                more.add(row.trigger());
                return more;
            }));
        }
    }

    private void edit(String button, String what, UnaryOperator<List<Trigger>> change) {
        bench.rig().button(button)
                .ifPresent(b -> bench.edit(what + " “" + b.name() + "”", board -> with(board, button,
                        change)));
    }

    private static Board with(Board board, String button, UnaryOperator<List<Trigger>> change) {
        return Edits.button(board, button, b -> b.withTriggers(change.apply(b.triggers())));
    }
}
