package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import rombix.app.edit.StepEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Chooser;
import rombix.app.view.form.Fields;
import rombix.core.board.Paths;
import rombix.core.board.StepWords;
import rombix.core.chain.Chain;
import rombix.core.event.Event;
import rombix.core.event.Known;
import rombix.core.forecast.Opposite;

/** The score of the chain under the hand, along the foot: whose it is, what it will do, its drawing, and the search. */
public final class ScoreView extends VBox {
    private final Desk desk;
    private final FinderField finder;
    private final ScoreHead head;
    private final Supplier<Known> known;
    private final ToggleButton asList;
    private final StepEdits edits;
    private final ScoreDrawing drawing;
    private final HBox foot;
    private Consumer<Event.Try> onTwins = _ -> {
    };
    private final Button attempt;

    public ScoreView(Desk desk, StepEdits edits, Supplier<Known> known, Runnable editFace) {
        this.desk = desk;
        this.edits = edits;
        this.known = known;
        this.finder = new FinderField(desk);
        this.head = new ScoreHead(desk, new ForecastStrip(desk, known), editFace);
        getStyleClass().add("score");
        setId("score");
        drawing = new ScoreDrawing(desk, edits);
        StepList list = new StepList(desk, edits);
        list.setVisible(false);
        StackPane middle = new StackPane(drawing, list);
        VBox.setVgrow(middle, Priority.ALWAYS);
        asList = ScoreHead.tab("list", false, () -> showList(list));
        asList.setId("as-list");
        asList.setTooltip(new Tooltip("Show the steps as a list · F4"));
        attempt = action("try", "Try…", "Alt+T", "Run this step, from here or everything, on twins or on the gear",
                this::tryOut);
        foot = new HBox(Space.S8, finder, asList, wraps(), action("make-opposite", "Opposite", "Alt+O",
                "Make the other state, with the chain that undoes this one", this::opposite),
                attempt,
                action(
                        "add-always", "+ always", "Alt+E", "Add steps that always run at the end",
                        this::always),
                putsBack());
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.setPadding(new Insets(Space.S6, Space.S14, Space.S10, Space.S14));
        HBox.setHgrow(finder, Priority.ALWAYS);
        getChildren().addAll(head, middle, foot);
        setPrefHeight(306);
        setMinHeight(220);
        desk.bench().watch(this::finder);
        finder();
    }

    private void finder() {
        finder.setDisable(!desk.bench().hasChain());
        finder.prompt();
    }

    /** Whose chain it is: the button, its states, its gestures. */
    public ScoreHead head() {
        return head;
    }

    /** What runs a chain on twins, to try it. */
    public void whenTried(Consumer<Event.Try> run) {
        onTwins = run;
    }

    /** Has nothing run from here. */
    public void withoutTrial() {
        attempt.setVisible(false);
        attempt.setManaged(false);
    }

    /** What is done where the search is left and nothing was typed. */
    public void whenAbandoned(Runnable next) {
        finder.whenAbandoned(next);
    }

    /** Puts the hand where a step is added by typing. */
    public void focusFinder() {
        finder.requestFocus();
    }

    /** Puts the hand on the steps: on the selected one, else on the first. */
    public void focusSteps() {
        if (asList.isSelected()) {
            lookupAll(".list-step").stream().findFirst().ifPresent(javafx.scene.Node::requestFocus);
        } else {
            drawing.focusSelected();
        }
    }

    /** The drawing of the chain. */
    public ScoreDrawing drawing() {
        return drawing;
    }

    private void showList(StepList list) {
        list.setVisible(asList.isSelected());
        drawing.setVisible(!asList.isSelected());
    }

    /** Turns between the drawing and the list. */
    public void toggleList() {
        asList.fire();
    }

    /** Has the next step go where it runs however the chain ends. */
    public void always() {
        desk.bench().cursor(List.of(-1 - desk.bench().chain().always().size()));
        focusFinder();
    }

    /** Whether what the chain changed is put back where it is stopped. */
    private CheckBox putsBack() {
        CheckBox back = Fields.check("chain-put-back", "Put back if stopped", false, on -> desk.bench().editChain(
                "put back if stopped", c -> c.withPutBack(on)));
        back.setMinWidth(USE_PREF_SIZE);
        back.setTooltip(new Tooltip("If this chain is stopped, everything it changed is restored"));
        desk.bench().watch(() -> {
            back.setDisable(!desk.bench().hasChain());
            back.setSelected(desk.bench().hasChain() && desk.bench().chain().putBack());
        });
        return back;
    }

    /** Wraps the selected steps; shown while there are some. */
    private Button wraps() {
        Button wrap = action("wrap", "Wrap into…", "Alt+Shift+W", "Wrap the selected steps in another step",
                this::wrap);
        Runnable shown = () -> {
            boolean any = !desk.bench().steps().isEmpty();
            wrap.setVisible(any);
            wrap.setManaged(any);
        };
        desk.bench().watch(shown);
        shown.run();
        return wrap;
    }

    private static Button action(String id, String text, String key, String what, Runnable run) {
        Button action = Fields.plain(text, key);
        action.setId(id);
        action.setMinWidth(Region.USE_PREF_SIZE);
        action.setTooltip(new Tooltip(what + " · " + key));
        action.setOnAction(_ -> run.run());
        return action;
    }

    /** Asks what the selected steps are to be wrapped into. */
    public void wrap() {
        List<Chooser.Item> items = new ArrayList<>();
        for (StepEdits.Wrap w : StepEdits.Wrap.values()) {
            items.add(new Chooser.Item("wrap-" + w.name().toLowerCase(Locale.ROOT).replace('_', '-'), w.words(), "",
                    () -> edits.wrap(w)));
        }
        if (!desk.bench().steps().isEmpty()) {
            Chooser.open(desk, foot, "Wrap into", items);
        }
    }

    /** Makes the other state with the chain that undoes this one. */
    public void opposite() {
        List<Opposite.Left> left = edits.makeOpposite(known.get());
        if (!left.isEmpty()) {
            tellLeft(left, foot);
        }
    }

    /** What could not be reversed, for the person to fill. */
    private void tellLeft(List<Opposite.Left> left, javafx.scene.Node by) {
        StepWords words = new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g));
        VBox box = new VBox(Space.S6);
        box.setId("opposite-left");
        Label title = new Label("These steps can't be reversed:");
        title.getStyleClass().add("gear-name");
        box.getChildren().add(title);
        left.forEach(l -> {
            Label line = Fields.read(words.of(l.what()) + " — " + l.why());
            line.setMaxWidth(460);
            box.getChildren().add(line);
        });
        desk.overlay().show(box, by, () -> {
        });
    }

    private enum Try {
        STEP("this step"), FROM("from here"), ALL("everything");

        private final String words;

        Try(String words) {
            this.words = words;
        }
    }

    /** Asks what is to be tried, and on what. */
    public void tryOut() {
        if (desk.bench().button().isEmpty() || desk.bench().chain().isEmpty()) {
            return;
        }
        boolean one = desk.bench().step().isPresent();
        List<Chooser.Item> items = new ArrayList<>();
        for (boolean real : new boolean[]{false, true}) {
            for (Try t : one ? Try.values() : new Try[]{Try.ALL}) {
                items.add(new Chooser.Item("try-" + t.name().toLowerCase(Locale.ROOT) + (real ? "-real" : ""), t.words
                        + (real ? ", on the real gear" : ", on twins"), "", () -> tryOut(t, real)));
            }
        }
        Chooser.open(desk, foot, "Try", items);
    }

    private void tryOut(Try what, boolean real) {
        List<Integer> path = desk.bench().step().orElse(null);
        Chain chain = desk.bench().chain();
        Chain tried = switch (what) {
            case ALL -> chain;
            case STEP -> path == null ? Chain.EMPTY : new Chain(Paths.steps(chain, List.of(path)));
            case FROM -> path == null
                    ? chain
                    : Paths.holding(chain, path).map(c -> new Chain(c.steps().subList(Math.max(
                            0, path.getLast()), c.steps().size()))).orElse(chain);
        };
        desk.bench().button().filter(_ -> !tried.isEmpty()).ifPresent(b -> {
            Event.Try event = new Event.Try(b.id(), tried, what == Try.ALL ? desk.bench().part().place() : "try");
            if (real) {
                desk.run(event);
            } else {
                onTwins.accept(event);
            }
        });
    }
}
