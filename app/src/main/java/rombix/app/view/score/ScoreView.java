package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
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
import rombix.core.board.Paths;
import rombix.app.edit.StepEdits;
import rombix.app.edit.Uses;
import rombix.app.edit.Part;
import rombix.app.view.button.RulesPopover;
import rombix.app.view.common.Chooser;
import rombix.app.view.common.Confirm;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Fields;
import rombix.app.view.common.Shapes;
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
public final class ScoreView extends VBox {
    /** Below this width what can be told by a sign is. */
    private static final double NARROW = 860;
    private static final int MOST_TABS = 5;

    private Runnable triggers = () -> {
    };
    private final Desk desk;
    private final FinderField finder;
    private final Runnable editFace;
    private final HBox head = new HBox();
    private final ForecastStrip forecast;
    private final Supplier<Known> known;
    private final ToggleButton asList;
    private final StepEdits edits;
    private final ScoreDrawing drawing;
    private final HBox foot;
    private Consumer<Event.Try> onTwins = _ -> {
    };

    public ScoreView(Desk desk, StepEdits edits, Supplier<Known> known, Runnable editFace) {
        this.desk = desk;
        this.edits = edits;
        this.editFace = editFace;
        this.known = known;
        this.finder = new FinderField(desk);
        this.forecast = new ForecastStrip(desk, known);
        getStyleClass().add("score");
        setId("score");
        head.getStyleClass().add("score-head");
        head.setMinHeight(42);
        head.setMinWidth(0);
        head.widthProperty().addListener((_, was, is) -> {
            if (was.doubleValue() < NARROW != is.doubleValue() < NARROW) {
                Platform.runLater(this::heading);
            }
        });
        drawing = new ScoreDrawing(desk, edits);
        StepList list = new StepList(desk, edits);
        list.setVisible(false);
        StackPane middle = new StackPane(drawing, list);
        VBox.setVgrow(middle, Priority.ALWAYS);
        asList = tab("list", false, () -> showList(list));
        asList.setId("as-list");
        asList.setTooltip(new Tooltip("Read the steps as a list · F4"));
        foot = new HBox(8, finder, asList, wraps(), action("make-opposite", "Opposite", "Alt+O",
                "Make the other state with the chain that undoes this one", this::opposite),
                action("try", "Try…",
                        "Alt+T", "Run this step, from here, or all, on twins or on the gear", this::tryOut),
                action(
                        "add-always", "+ always", "Alt+E", "Add steps that run however this chain ends",
                        this::always));
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.setPadding(new Insets(6, 14, 10, 14));
        HBox.setHgrow(finder, Priority.ALWAYS);
        getChildren().addAll(head, middle, foot);
        setPrefHeight(306);
        setMinHeight(220);
        desk.bench().watch(this::heading);
        heading();
    }

    /** What opens the triggers of the selected button. */
    public void whenTriggers(Runnable open) {
        triggers = open;
    }

    /** What runs a chain on twins, to try it. */
    public void whenTried(Consumer<Event.Try> run) {
        onTwins = run;
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

    /** Shows the state so many places on, round and round. */
    public void stateBy(int by) {
        desk.bench().button().ifPresent(b -> desk.bench().selectState(Math.floorMod(desk.bench().stateIndex() + by, b
                .states().size())));
    }

    /** Adds a state behind the others. */
    public void addState() {
        desk.bench().button().ifPresent(b -> {
            desk.bench().edit("add a state", board -> Edits.addState(board, b.id()));
            desk.bench().selectState(desk.bench().button().map(x -> x.states().size() - 1).orElse(0));
        });
    }

    /** Takes the state away that is under the hand, after saying what uses it; the last one stays. */
    public void removeState() {
        desk.bench().button().filter(b -> b.states().size() > 1).ifPresent(b -> {
            int index = desk.bench().stateIndex();
            State state = b.states().get(index);
            Confirm.ask(desk, head, "Delete the state “" + state.name() + "” of “" + b.name() + "”?", Uses.of(desk
                    .bench().board(), Uses.state(b.id(), state.id())), "Delete",
                    () -> desk.bench().edit(
                            "delete a state", board -> Uses.withoutState(board, b.id(), index)));
        });
    }

    /** Asks for which gesture the chain is to be shown. */
    public void chooseGesture() {
        if (desk.bench().button().isEmpty()) {
            return;
        }
        List<Chooser.Item> items = new ArrayList<>();
        for (Part part : parts()) {
            int steps = of(part).steps().size() + of(part).always().size();
            items.add(new Chooser.Item("part-" + part.place(), words(part) + (steps > 0 ? " · " + steps : ""), "",
                    () -> desk.bench().selectPart(part)));
        }
        Chooser.open(desk, head, "Its chain for", items);
    }

    /** Opens what a press does while a chain runs, and what guards it. */
    public void editRules() {
        if (desk.bench().button().isPresent()) {
            new RulesPopover(desk, triggers).open(head.lookup("#edit-rules") instanceof Node rules ? rules : head);
        }
    }

    /** Wraps the selected steps; shown while there are some. */
    private Button wraps() {
        Button wrap = action("wrap", "Wrap into…", "Alt+W", "Wrap the selected steps into one that holds them",
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
        STEP("this step"), FROM("from here"), ALL("all of it");

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
                desk.post().accept(event);
            } else {
                onTwins.accept(event);
            }
        });
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
        rules.setOnAction(_ -> editRules());
        return rules;
    }

    private Button face() {
        Button face = Fields.plain("Face…", "F2");
        face.setId("edit-face");
        face.setMinWidth(Region.USE_PREF_SIZE);
        face.setOnAction(_ -> editFace.run());
        return face;
    }

    private boolean narrow() {
        return head.getWidth() > 0 && head.getWidth() < NARROW;
    }

    private HBox states(rombix.core.board.Button button) {
        HBox states = new HBox(2);
        states.setAlignment(Pos.CENTER_LEFT);
        if (button.states().size() > MOST_TABS) {
            states.getChildren().add(manyStates(button));
        }
        for (int i = 0; i < button.states().size() && button.states().size() <= MOST_TABS; i++) {
            int index = i;
            State s = button.states().get(i);
            ToggleButton tab = tab(s.name(), desk.bench().stateIndex() == i, () -> desk.bench().selectState(index));
            tab.setGraphic(Shapes.pip(desk.bench().stateIndex() == i));
            tab.setId("state-" + i);
            states.getChildren().add(tab);
        }
        Button add = Fields.plain(narrow() ? "+" : "+ state", "");
        add.setTooltip(new Tooltip("Add a state · Alt+Insert"));
        add.setAccessibleText("Add a state");
        add.setId("add-state");
        add.setMinWidth(Region.USE_PREF_SIZE);
        add.setOnAction(_ -> addState());
        states.getChildren().add(add);
        if (button.states().size() > 1) {
            Button remove = Fields.plain(narrow() ? "−" : "− state", "");
            remove.setAccessibleText("Delete the state");
            remove.setMinWidth(Region.USE_PREF_SIZE);
            remove.setTooltip(new Tooltip("Delete the state “" + button.states().get(desk.bench().stateIndex()).name()
                    + "”"));
            remove.setOnAction(_ -> removeState());
            states.getChildren().add(remove);
        }
        return states;
    }

    /** More states than there is room for tabs. */
    private ComboBox<Integer> manyStates(rombix.core.board.Button button) {
        List<Integer> all = new ArrayList<>();
        for (int i = 0; i < button.states().size(); i++) {
            all.add(i);
        }
        ComboBox<Integer> choice = Fields.choice("states", all, desk.bench().stateIndex(), i -> (i + 1) + " of " + all
                .size() + ": " + button.states().get(i).name(), i -> desk.bench().selectState(i));
        choice.getStyleClass().add("quiet-choice");
        choice.setAccessibleText("Which state");
        return choice;
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

    private static List<Part> parts() {
        List<Part> all = new ArrayList<>();
        for (Gesture g : Gesture.values()) {
            all.add(Part.of(g));
        }
        all.add(Part.START);
        return all;
    }

    /** A tab for press, for release, and for each gesture that the state answers; the others behind a plus. */
    private HBox gestures() {
        HBox row = new HBox(2);
        row.setAlignment(Pos.CENTER_LEFT);
        List<Part> more = new ArrayList<>();
        Part now = desk.bench().part();
        for (Part part : parts()) {
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
        others.setPromptText(narrow() ? "+" : "+ gesture");
        others.setAccessibleText("Give the button a chain for another gesture");
        others.getStyleClass().add("quiet-choice");
        others.setPrefWidth(narrow() ? 52 : 104);
        others.setMinWidth(narrow() ? 52 : 104);
        row.getChildren().add(others);
        return row;
    }
}
