package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.event.ActionEvent;
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
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Part;
import rombix.app.edit.UsageWords;
import rombix.app.view.button.RulesPopover;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Chooser;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.edit.Edits;

/** The head of the score: whose chain it is, and which state's and gesture's; the ways to its rules and its face. */
public final class ScoreHead extends HBox {
    /** Below this width what can be told by a sign is. */
    private static final double NARROW = 860;
    private static final int MAX_TABS = 5;

    private final Desk desk;
    private final ForecastStrip forecast;
    private final Runnable editFace;
    private @Nullable Runnable triggers;
    private final Label title = Styles.label("", "score-title");
    private @Nullable Shown shown;

    ScoreHead(Desk desk, ForecastStrip forecast, Runnable editFace) {
        this.desk = desk;
        this.forecast = forecast;
        this.editFace = editFace;
        getStyleClass().add("score-head");
        title.setMinWidth(Region.USE_PREF_SIZE);
        setMinHeight(42);
        setMinWidth(0);
        widthProperty().addListener((_, was, is) -> {
            if (was.doubleValue() < NARROW != is.doubleValue() < NARROW) {
                Platform.runLater(this::heading);
            }
        });
        desk.bench().watch(this::heading);
        heading();
    }

    /** What opens the triggers of the selected button; they can't be opened from here where nothing does. */
    public void whenTriggers(Runnable open) {
        triggers = open;
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
            Confirm.ask(desk, this, "Delete the state “" + state.name() + "” of “" + b.name() + "”?", UsageWords.of(desk
                    .bench().board(), UsageWords.state(b.id(), state.id())), "Delete",
                    () -> desk.bench().edit(
                            "delete a state", board -> UsageWords.withoutState(board, b.id(), index)));
        });
    }

    /** Asks for which gesture the chain is to be shown. */
    public void chooseGesture() {
        if (desk.bench().button().isEmpty()) {
            return;
        }
        List<Chooser.Item> items = new ArrayList<>();
        for (Part part : parts()) {
            int steps = steps(part);
            items.add(new Chooser.Item("part-" + part.place(), words(part) + (steps > 0 ? " · " + steps : ""), "",
                    () -> desk.bench().selectPart(part)));
        }
        Chooser.open(desk, this, "Show the chain for", items);
    }

    /** Shows the state so many places on, round and round. */
    public void stateBy(int by) {
        desk.bench().button().ifPresent(b -> desk.bench().selectState(Math.floorMod(desk.bench().stateIndex() + by, b
                .states().size())));
    }

    /** Opens what a press does while a chain runs, and what guards it. */
    public void editRules() {
        if (desk.bench().button().isPresent()) {
            new RulesPopover(desk, triggers).open(lookup("#edit-rules") instanceof Node rules ? rules : this);
        }
    }

    /** All that the head shows, but for the name and the forecast. */
    private record Shown(boolean chain, @Nullable String named, List<String> states, int state, Part part,
            List<Integer> steps, boolean narrow) {
    }

    private Shown showing() {
        return new Shown(desk.bench().hasChain(), desk.bench().part().chain(), desk.bench().button().map(b -> b.states()
                .stream().map(State::name).toList()).orElse(List.of()), desk.bench().stateIndex(), desk.bench().part(),
                parts().stream().map(this::steps).toList(), narrow());
    }

    /** The button's name, or the chain's. */
    private String named() {
        String chain = desk.bench().part().chain();
        return chain != null
                ? desk.bench().board().chain(chain).map(Board.NamedChain::name).orElse(chain)
                : desk.bench().button().map(rombix.core.board.Button::name).orElse("");
    }

    private int steps(Part part) {
        return of(part).steps().size() + of(part).always().size();
    }

    private void heading() {
        Styles.text(title, named());
        Shown now = showing();
        if (now.equals(shown)) {
            return; // A click that lies across an edit keeps its target.
        }
        shown = now;
        getChildren().clear();
        boolean chain = desk.bench().hasChain();
        if (!chain) {
            getChildren()
                    .add(Fields.read("Select a button to see its score, or click an empty cell to make one."));
            return;
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        if (desk.bench().part().chain() != null) {
            getChildren().addAll(title, Fields.read("a chain of the board that steps can use"), space,
                    forecast);
            return;
        }
        desk.bench().button().ifPresent(b -> getChildren().addAll(title, states(b), gestures(), space,
                forecast, rules(), face()));
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
        return getWidth() > 0 && getWidth() < NARROW;
    }

    private HBox states(rombix.core.board.Button button) {
        HBox states = new HBox(Space.S2);
        states.setAlignment(Pos.CENTER_LEFT);
        if (button.states().size() > MAX_TABS) {
            states.getChildren().add(manyStates(button));
        }
        for (int i = 0; i < button.states().size() && button.states().size() <= MAX_TABS; i++) {
            int index = i;
            State s = button.states().get(i);
            ToggleButton tab = either(s.name(), desk.bench().stateIndex() == i, () -> desk.bench().selectState(index));
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

    /** A tab for press, for release, and for each gesture that the state answers; the others behind a plus. */
    private HBox gestures() {
        HBox row = new HBox(Space.S2);
        row.setAlignment(Pos.CENTER_LEFT);
        List<Part> more = new ArrayList<>();
        Part now = desk.bench().part();
        for (Part part : parts()) {
            int steps = steps(part);
            if (steps > 0 || part.equals(now) || part.gesture() == Gesture.PRESS || part.gesture() == Gesture.RELEASE) {
                ToggleButton tab = either(words(part) + (steps > 0 ? " · " + steps : ""), part.equals(now), () -> desk
                        .bench().selectPart(part));
                tab.setId("gesture-" + part.place());
                row.getChildren().add(tab);
            } else {
                more.add(part);
            }
        }
        ComboBox<Part> others = Fields.choice("more-gestures", more, null, ScoreHead::words, p -> desk.bench()
                .selectPart(p));
        others.setPromptText(narrow() ? "+" : "+ gesture");
        others.setAccessibleText("Add a chain for another gesture");
        others.getStyleClass().add("quiet-choice");
        others.setPrefWidth(narrow() ? 52 : 104);
        others.setMinWidth(narrow() ? 52 : 104);
        row.getChildren().add(others);
        return row;
    }

    /** One of several of which one is on always. */
    private static ToggleButton either(String text, boolean on, Runnable chosen) {
        ToggleButton tab = tab(text, on, chosen);
        tab.addEventFilter(ActionEvent.ACTION, _ -> tab.setSelected(true));
        return tab;
    }

    static ToggleButton tab(String text, boolean on, Runnable chosen) {
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
}
