package rombix.app.view.button;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.app.view.form.KeyField;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Button.Busy;
import rombix.core.board.Button.Guard;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.edit.Edits;

/** The rules of a button: a press while it runs, its guard, what follows its states, its key, its tag. */
public final class RulesPopover {
    private final Desk desk;
    private final @Nullable Runnable triggers;

    /** @param triggers opens the triggers of the selected button; null where they can't be opened */
    public RulesPopover(Desk desk, @Nullable Runnable triggers) {
        this.desk = desk;
        this.triggers = triggers;
    }

    private record Named(String id, String words) {
    }

    public void open(Node by) {
        VBox content = new VBox(Space.S8);
        content.setPrefWidth(340);
        fill(content);
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("popover-scroll");
        VBox box = new VBox(scroll);
        box.setId("rules-popover");
        desk.overlay().show(box, by, () -> {
        });
    }

    private void edit(UnaryOperator<Button> change) {
        desk.bench().button().ifPresent(b -> desk.bench().edit("change the rules of " + b.name(),
                board -> Edits.button(board, b.id(), change)));
    }

    private void state(UnaryOperator<State> change) {
        int index = desk.bench().stateIndex();
        desk.bench().button().ifPresent(b -> desk.bench().edit("change what follows “" + b.states().get(index).name()
                + "”", board -> Edits.state(board, b.id(), index, change)));
    }

    private void fill(VBox content) {
        Button b = desk.bench().button().orElse(null);
        if (b == null) {
            return;
        }
        Runnable anew = () -> {
            fill(content);
            desk.overlay().requestLayout();
        };
        Label title = new Label(b.name());
        title.getStyleClass().add("gear-name");
        content.getChildren().setAll(title);
        new ControlForm(desk, anew).addTo(content);
        content.getChildren().add(
                Fields.named("If pressed while its chain is running",
                        Fields.choice("rule-busy", List.of(Busy.values()), b
                                .busy(), RulesPopover::words, x -> edit(y -> y.withBusy(x)))));
        guard(b, content, anew);
        then(b, content, anew);
        held(b, content);
        content.getChildren().addAll(Fields.named("Shortcut", key(b), "Works in Live, while this window has focus"),
                triggers(b),
                Fields.named("Tag",
                        Fields.text("rule-tag", b.tag() == null ? "" : b.tag(),
                                t -> edit(y -> y.withTag(t.isBlank() ? null : t.strip()))),
                        "One step can stop all buttons with the same tag"));
        board(content);
    }

    private static String words(Busy busy) {
        return switch (busy) {
            case RESTART -> "restart the chain";
            case IGNORE -> "ignore the press";
            case QUEUE -> "run again afterwards";
            case OVERLAP -> "run a second time alongside";
            case STOP -> "stop the chain";
        };
    }

    private void guard(Button b, VBox content, Runnable anew) {
        Guard now = b.guard();
        List<Named> all = List.of(new Named("", "none"),
                new Named("HOLD", "hold to fire"), new Named("TWICE", "press twice"));
        String kind = now == null ? "" : now.kind().name();
        content.getChildren().add(Fields.named("Guard against accidental presses", Fields.choice("rule-guard", all,
                all.stream().filter(n -> n.id().equals(kind)).findFirst().orElse(null), Named::words, n -> {
                    edit(y -> y.withGuard(n.id().isEmpty() ? null : new Guard(Guard.Kind.valueOf(n.id()), 0)));
                    anew.run();
                })));
        if (now != null) {
            content.getChildren().add(Fields.named(now.kind() == Guard.Kind.HOLD
                    ? "Hold for"
                    : "Second press within",
                    Fields.span("rule-guard-ms", now.ms(), ms -> edit(y -> y.withGuard(
                            now.withMs(ms))))));
        }
    }

    private void then(Button b, VBox content, Runnable anew) {
        if (b.states().size() < 2) {
            return;
        }
        State s = b.states().get(desk.bench().stateIndex());
        List<Named> all = new ArrayList<>(List.of(new Named(State.NEXT, "the next state, in a cycle"),
                new Named(State.STAY, "stay in this state"), new Named(State.RANDOM, "a random other state")));
        b.states().forEach(x -> all.add(new Named(x.id(), x.name())));
        content.getChildren().add(Fields.named("After a press in “" + s.name() + "”, go to", Fields.choice("rule-then",
                all, all.stream().filter(n -> n.id().equals(s.then())).findFirst().orElse(null), Named::words,
                n -> state(y -> y.withThen(n.id())))));
        State.FallBack fall = s.fallBack();
        List<Named> back = new ArrayList<>(List.of(new Named("", "stay in this state")));
        b.states().stream().filter(x -> x != s).forEach(x -> back.add(new Named(x.id(), "back to " + x.name())));
        content.getChildren()
                .add(Fields.named("Return to another state",
                        Fields.choice("rule-fall-back", back, back.stream()
                                .filter(n -> n.id().equals(fall == null ? "" : fall.to())).findFirst().orElse(null),
                                Named::words,
                                n -> {
                                    state(y -> y.withFallBack(n.id().isEmpty()
                                            ? null
                                            : fall == null ? new State.FallBack(n.id(), 10_000) : fall.withTo(n.id())));
                                    anew.run();
                                })));
        if (fall != null) {
            content.getChildren().add(Fields.named("Return after", Fields.span("rule-fall-back-ms", fall.ms(),
                    ms -> state(y -> y.withFallBack(fall.withMs(ms))))));
        }
    }

    private void held(Button b, VBox content) {
        if (b.states().size() > 1) {
            content.getChildren()
                    .add(Fields.check("rule-springs-back", "Toggle on a tap, momentary while held",
                            b.springsBack(), on -> edit(y -> y.withSpringsBack(on))));
        }
        content.getChildren().add(Fields.check("rule-press-also", "A long press also runs the press chain", b
                .pressAlso(), on -> edit(y -> y.withPressAlso(on))));
        content.getChildren().add(Fields.named("Repeat the held chain every", Fields.span("rule-repeat", b
                .repeatMillis(), ms -> edit(y -> y.withRepeat(ms)))));
    }

    /** The key of this window that presses it; the other triggers stand in their own view. */
    private TextField key(Button b) {
        String now = b.triggers().stream().filter(t -> t instanceof Trigger.Key k && !k.everywhere()).map(
                t -> ((Trigger.Key) t).key()).findFirst().orElse("");
        return KeyField.of("rule-key", now, key -> edit(y -> {
            List<Trigger> all = new ArrayList<>(y.triggers().stream().filter(t -> !(t instanceof Trigger.Key k) || k
                    .everywhere()).toList());
            if (!key.isEmpty()) {
                all.add(new Trigger.Key(key));
            }
            return y.withTriggers(all);
        }));
    }

    private Node triggers(Button b) {
        long others = b.triggers().stream().filter(t -> !(t instanceof Trigger.Key k) || k.everywhere()).count();
        javafx.scene.control.Button open = Fields.plain(others == 0
                ? "Global keys, controllers, clocks…"
                : "Other triggers: " + others + "…", "Ctrl+T");
        open.setId("rule-triggers");
        open.setVisible(triggers != null);
        open.setManaged(triggers != null);
        open.setOnAction(_ -> {
            if (triggers != null) {
                triggers.run();
            }
        });
        return open;
    }

    private void board(VBox content) {
        Board board = desk.bench().board();
        content.getChildren().addAll(Fields.heading("All buttons on this board"),
                Fields.row(Fields.named("Long press after", Fields.span("rule-long", board.longPressMillis(),
                        ms -> desk.bench().edit("change the long press", x -> x.withLongPress(ms)))),
                        Fields.named("Double press within", Fields.span("rule-double", board.doublePressMillis(),
                                ms -> desk.bench().edit("change the double press", x -> x.withDoublePress(ms))))));
    }
}
