package rombix.app.view;

import java.util.List;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import rombix.app.edit.Paths;
import rombix.app.edit.StepEdits;
import rombix.app.edit.Workbench.Part;
import rombix.core.board.Board;
import rombix.core.board.Edits;
import rombix.core.board.State;
import rombix.core.board.StepWords;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.engine.Event;
import rombix.core.engine.Known;
import rombix.core.forecast.Opposite;

/** The score of the chain under the hand, along the foot: whose it is, what it will do, its drawing, and the search. */
final class ScoreView extends VBox {
    private final Desk desk;
    private final FinderField finder;
    private final Runnable editFace;
    private final HBox head = new HBox();
    private final ForecastStrip forecast;
    private final Supplier<Known> known;
    private final ToggleButton asList;

    ScoreView(Desk desk, Supplier<Known> known, Runnable editFace) {
        this.desk = desk;
        this.editFace = editFace;
        this.known = known;
        this.finder = new FinderField(desk);
        this.forecast = new ForecastStrip(desk, known);
        getStyleClass().add("score");
        setId("score");
        head.getStyleClass().add("score-head");
        head.setMinHeight(42);
        StepEdits edits = new StepEdits(desk.bench());
        ScoreDrawing drawing = new ScoreDrawing(desk, edits);
        StepList list = new StepList(desk, edits);
        list.setVisible(false);
        StackPane middle = new StackPane(drawing, list);
        VBox.setVgrow(middle, Priority.ALWAYS);
        asList = tab("list", false, () -> showList(drawing, list));
        asList.setId("as-list");
        asList.setTooltip(new Tooltip("Read the steps as a list · F4"));
        HBox foot = new HBox(8, finder, asList, wraps(edits), opposite(edits), tries(), always());
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.setPadding(new Insets(6, 14, 10, 14));
        HBox.setHgrow(finder, Priority.ALWAYS);
        getChildren().addAll(head, middle, foot);
        setPrefHeight(306);
        setMinHeight(220);
        desk.bench().watch(this::heading);
        heading();
    }

    /** Puts the hand where a step is added by typing. */
    void focusFinder() {
        finder.requestFocus();
    }

    private void showList(ScoreDrawing drawing, StepList list) {
        list.setVisible(asList.isSelected());
        drawing.setVisible(!asList.isSelected());
    }

    /** Turns between the drawing and the list. */
    void toggleList() {
        asList.fire();
    }

    private Button always() {
        Button always = Fields.plain("+ always", "");
        always.setId("add-always");
        always.setMinWidth(Region.USE_PREF_SIZE);
        always.setTooltip(new Tooltip("Add steps that run however this chain ends"));
        always.setOnAction(_ -> {
            desk.bench().cursor(List.of(-1 - desk.bench().chain().always().size()));
            focusFinder();
        });
        return always;
    }

    /** Wraps the selected steps; shown while there are some. */
    private ComboBox<StepEdits.Wrap> wraps(StepEdits edits) {
        ComboBox<StepEdits.Wrap> wrap = Fields.choice("wrap", List.of(StepEdits.Wrap.values()), null,
                StepEdits.Wrap::words, w -> Platform.runLater(() -> edits.wrap(w)));
        quiet(wrap, "Wrap into…", "Wrap the selected steps into one that holds them");
        desk.bench().watch(() -> {
            boolean any = !desk.bench().steps().isEmpty();
            wrap.setVisible(any);
            wrap.setManaged(any);
            wrap.setValue(null);
        });
        wrap.setVisible(false);
        wrap.setManaged(false);
        return wrap;
    }

    private static void quiet(ComboBox<?> choice, String prompt, String what) {
        choice.setPromptText(prompt);
        choice.setAccessibleText(what);
        choice.setTooltip(new Tooltip(what));
        choice.getStyleClass().add("quiet-choice");
        choice.setPrefWidth(112);
        choice.setMinWidth(112);
    }

    private Button opposite(StepEdits edits) {
        Button opposite = Fields.plain("Opposite", "");
        opposite.setId("make-opposite");
        opposite.setMinWidth(Region.USE_PREF_SIZE);
        opposite.setTooltip(new Tooltip("Make the other state with the chain that undoes this one"));
        opposite.setOnAction(_ -> {
            List<Opposite.Left> left = edits.makeOpposite(known.get());
            if (!left.isEmpty()) {
                tellLeft(left, opposite);
            }
        });
        return opposite;
    }

    /** What could not be reversed, for the person to fill. */
    private void tellLeft(List<Opposite.Left> left, Button by) {
        StepWords words = new StepWords(desk.bench().rig(), g -> desk.model().readings(g));
        VBox box = new VBox(6);
        box.setId("opposite-left");
        Label title = new Label("These steps could not be reversed:");
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
        STEP("this step"), FROM("from here"), ALL("all");

        private final String words;

        Try(String words) {
            this.words = words;
        }
    }

    /** Runs what is under the hand on the gear, to try it. */
    private ComboBox<Try> tries() {
        ComboBox<Try> tries = Fields.choice("try", List.of(Try.values()), null, t -> t.words, this::tryOut);
        quiet(tries, "Try…", "Run this step, from here, or all on the gear, to try it");
        tries.setPrefWidth(92);
        tries.setMinWidth(92);
        return tries;
    }

    private void tryOut(Try what) {
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
        desk.bench().button().filter(_ -> !tried.isEmpty()).ifPresent(b -> desk.post().accept(new Event.Try(b.id(),
                tried, what == Try.ALL ? desk.bench().part().place() : "try")));
    }

    private void heading() {
        head.getChildren().clear();
        boolean chain = desk.bench().hasChain();
        finder.setDisable(!chain);
        finder.prompt();
        if (!chain) {
            head.getChildren()
                    .add(Fields.read("Select a button to see its score, or click an empty cell to make one."));
            return;
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        String named = desk.bench().part().chain();
        if (named != null) {
            Label title = title(desk.bench().board().chain(named).map(Board.NamedChain::name).orElse(named));
            head.getChildren().addAll(title, Fields.read("a chain of the board, for steps that use it"), space,
                    forecast);
            return;
        }
        desk.bench().button().ifPresent(b -> head.getChildren().addAll(title(b.name()), states(b), gestures(), space,
                forecast, rules(), face()));
    }

    private static Label title(String text) {
        Label title = new Label(text);
        title.getStyleClass().add("score-title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        return title;
    }

    private Button rules() {
        Button rules = Fields.plain("Rules…", "");
        rules.setId("edit-rules");
        rules.setMinWidth(Region.USE_PREF_SIZE);
        rules.setOnAction(_ -> new RulesPopover(desk).open(rules));
        return rules;
    }

    private Button face() {
        Button face = Fields.plain("Face…", "F2");
        face.setId("edit-face");
        face.setMinWidth(Region.USE_PREF_SIZE);
        face.setOnAction(_ -> editFace.run());
        return face;
    }

    private HBox states(rombix.core.board.Button button) {
        HBox states = new HBox(2);
        states.setAlignment(Pos.CENTER_LEFT);
        for (int i = 0; i < button.states().size(); i++) {
            int index = i;
            State s = button.states().get(i);
            ToggleButton tab = tab(s.name(), desk.bench().stateIndex() == i, () -> desk.bench().selectState(index));
            tab.setGraphic(Shapes.rhombus(11, "pip", desk.bench().stateIndex() == i ? "now" : "other"));
            tab.setId("state-" + i);
            states.getChildren().add(tab);
        }
        Button add = Fields.plain("+ state", "");
        add.setId("add-state");
        add.setMinWidth(Region.USE_PREF_SIZE);
        add.setOnAction(_ -> {
            desk.bench().edit("add a state", b -> Edits.addState(b, button.id()));
            desk.bench().selectState(button.states().size());
        });
        states.getChildren().add(add);
        if (button.states().size() > 1) {
            Button remove = Fields.plain("− state", "");
            remove.setMinWidth(Region.USE_PREF_SIZE);
            remove.setTooltip(new Tooltip("Delete the state “" + button.states().get(desk.bench().stateIndex()).name()
                    + "”"));
            remove.setOnAction(_ -> desk.bench().edit("delete a state",
                    b -> Edits.removeState(b, button.id(), desk.bench().stateIndex())));
            states.getChildren().add(remove);
        }
        return states;
    }

    private static ToggleButton tab(String text, boolean on, Runnable chosen) {
        ToggleButton tab = new ToggleButton(text);
        tab.getStyleClass().setAll("toggle-button", "tab");
        tab.setSelected(on);
        tab.setMinWidth(Region.USE_PREF_SIZE);
        tab.setOnAction(_ -> chosen.run());
        return tab;
    }

    private Chain of(Part part) {
        Gesture gesture = part.gesture();
        return gesture == null
                ? desk.bench().button().map(rombix.core.board.Button::onStart).orElse(Chain.EMPTY)
                : desk.bench().state().map(s -> s.chain(gesture)).orElse(Chain.EMPTY);
    }

    private static String words(Part part) {
        return part.gesture() == null ? "at the start" : part.gesture().words();
    }

    /** A tab for press, for release, and for each gesture that the state answers; the others behind a plus. */
    private HBox gestures() {
        HBox row = new HBox(2);
        row.setAlignment(Pos.CENTER_LEFT);
        List<Part> all = new java.util.ArrayList<>();
        for (Gesture g : Gesture.values()) {
            all.add(Part.of(g));
        }
        all.add(Part.START);
        List<Part> more = new java.util.ArrayList<>();
        Part now = desk.bench().part();
        for (Part part : all) {
            int steps = of(part).steps().size() + of(part).always().size();
            if (steps > 0 || part.equals(now) || part.gesture() == Gesture.PRESS || part.gesture() == Gesture.RELEASE) {
                ToggleButton tab = tab(words(part) + (steps > 0 ? " · " + steps : ""), part.equals(now), () -> desk
                        .bench().selectPart(part));
                tab.setId("gesture-" + part.place());
                row.getChildren().add(tab);
            } else {
                more.add(part);
            }
        }
        ComboBox<Part> others = Fields.choice("more-gestures", more, null, ScoreView::words, p -> desk.bench()
                .selectPart(p));
        others.setPromptText("+ gesture");
        others.setAccessibleText("Give the button a chain for another gesture");
        others.getStyleClass().add("quiet-choice");
        others.setPrefWidth(104);
        others.setMinWidth(104);
        row.getChildren().add(others);
        return row;
    }
}
