package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.core.board.Paths;
import rombix.core.board.StepWords;
import rombix.core.card.Card;
import rombix.core.chain.Step;
import rombix.core.edit.GearEdits;
import rombix.core.find.Finder;
import rombix.core.find.Found;
import rombix.core.find.Likely;

/** Adds steps by typing a few words and choosing from what the present gear can do. */
final class FinderField extends TextField {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final int MAX = 7;
    private static final String START = "Add a step";

    private final Desk desk;
    private final VBox list = new VBox();
    private List<Found> found = List.of();
    private int picked;
    /** Whether what usually comes next is shown while nothing is typed. */
    private boolean offering;
    private @Nullable Finder finder;
    private @Nullable Object finderOf;
    /** What is done where Escape is pressed and nothing was added. */
    private Runnable abandoned = () -> {
    };
    /** Whose chain the words are typed for. */
    private @Nullable Object typedFor;

    FinderField(Desk desk) {
        this.desk = desk;
        getStyleClass().add("finder");
        setId("finder");
        prompt();
        setAccessibleText("Add a step by typing what it should do");
        list.setId("found");
        list.setPrefWidth(460);
        textProperty().addListener((_, _, _) -> search());
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        focusedProperty().addListener((_, _, in) -> {
            if (!in && desk.overlay().showing(this)) {
                desk.overlay().close();
            } else if (in) {
                offering = true;
                search();
            }
        });
    }

    /** What is done where Escape is pressed and nothing was typed. */
    void whenAbandoned(Runnable next) {
        abandoned = next;
    }

    /** Says where the next step goes. Words that were typed for another chain and not used are gone. */
    void prompt() {
        Object now = List.of(desk.bench().button().map(b -> b.id()), desk.bench().stateIndex(), desk.bench().part());
        if (!now.equals(typedFor)) {
            typedFor = now;
            clear();
        }
        List<Integer> at = desk.bench().cursor();
        StepWords words = new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g));
        String where = START;
        if (at.size() > 2 && at.getLast() == 0) {
            List<Integer> within = at.subList(0, at.size() - 2);
            where = Paths.step(desk.bench().chain(), within).map(s -> "Add a step into “" + words.of(s) + "”").orElse(
                    where);
        } else if (at.size() > 1 || at.getFirst() < desk.bench().chain().steps().size()) {
            List<Integer> before = new java.util.ArrayList<>(at);
            int last = before.removeLast();
            before.add(last < 0 ? last + 1 : last - 1);
            where = last == -1
                    ? "Add a step that always runs at the end"
                    : Paths.step(desk.bench().chain(), before).map(s -> "Add a step after “" + words.of(s) + "”")
                            .orElse(where);
        }
        setPromptText(where + (where.equals(START)
                ? ": type “mute host”, “desk key 40 %”, “wait 2 s”…  ( / )"
                : "   ( / )"));
    }

    private void search() {
        if (getText().isBlank() && !(offering && isFocused())) {
            found = List.of();
            if (desk.overlay().showing(this)) {
                desk.overlay().close();
            }
            return;
        }
        Object now = List.of(System.identityHashCode(desk.bench().rig()),
                desk.bench().rig().twins().keySet().stream().map(g -> desk.model()
                        .state().lists(g)).toList());
        if (finder == null || !now.equals(finderOf)) {
            finder = new Finder(desk.bench().rig(), g -> desk.model().state().readings(g));
            finderOf = now;
        }
        boolean preset = getText().isBlank();
        found = preset
                ? Likely.next(desk.bench().rig(), g -> desk.model().state().readings(g), before(),
                        desk.bench().recent(), MAX)
                : finder.find(getText(), MAX, desk.bench().recent());
        picked = preset ? -1 : 0; // What was not asked for is not added by a slip.
        list.getChildren().clear();
        if (found.isEmpty()) {
            String known = finder.misunderstood(getText());
            Label none = new Label(known.isEmpty()
                    ? "No match. Try the name of a scene, channel, lamp or door, or “wait 2 s”."
                    : known);
            none.getStyleClass().addAll("read", "quiet");
            none.setWrapText(true);
            list.getChildren().add(none);
        }
        if (preset && !found.isEmpty()) {
            Label head = new Label("suggestions, or type");
            head.getStyleClass().addAll("found-head", "quiet");
            list.getChildren().add(head);
        }
        for (int i = 0; i < found.size(); i++) {
            int index = i;
            Found f = found.get(i);
            Label title = new Label(f.title());
            Label where = new Label(f.where());
            where.getStyleClass().add("where");
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            HBox row = new HBox(title, space, where);
            row.getStyleClass().add("found");
            row.setOnMousePressed(e -> {
                picked = index;
                add();
                e.consume();
            });
            list.getChildren().add(row);
        }
        pick();
        if (!desk.overlay().showing(this)) {
            desk.overlay().show(list, this, () -> {
            });
        }
        desk.overlay().requestLayout();
    }

    private void pick() {
        List<javafx.scene.Node> rows = list.getChildren().stream().filter(n -> n instanceof HBox).toList();
        for (int i = 0; i < rows.size(); i++) {
            rows.get(i).pseudoClassStateChanged(PICKED, i == picked);
        }
    }

    private void key(KeyEvent e) {
        if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
            if (getText().isBlank() && !offering) {
                offering = true;
                search();
            } else if (!found.isEmpty()) {
                picked = Math.floorMod(
                        Math.max(picked, e.getCode() == KeyCode.DOWN ? -1 : 0) + (e.getCode() == KeyCode.DOWN ? 1 : -1),
                        found.size());
                pick();
            }
            e.consume();
        } else if (e.getCode() == KeyCode.ENTER) {
            add();
            e.consume();
        } else if (e.getCode() == KeyCode.ESCAPE && getText().isBlank()) {
            abandoned.run();
            e.consume();
        }
    }

    private void add() {
        if (picked < 0 || picked >= found.size()) {
            return;
        }
        Found f = found.get(picked);
        String name = "add “" + f.title() + "”";
        desk.bench().asOne(name, () -> {
            Card adds = f.adds();
            if (adds != null) {
                desk.bench().edit("add " + adds.title(), b -> GearEdits.add(b, adds, adds.protocols().iterator()
                        .next()));
            }
            desk.bench().add(name, List.of(f.step()));
        });
        offering = false; // The score is to be seen; the down arrow brings the offers back.
        if (getText().isEmpty()) {
            search();
        }
        clear();
    }

    /** The step that the next one comes behind; null at the start of a chain. */
    private @Nullable Step before() {
        List<Integer> at = new ArrayList<>(desk.bench().cursor());
        int last = at.removeLast();
        at.add(last < 0 ? last + 1 : last - 1);
        return last == 0 || last == -1 ? null : Paths.step(desk.bench().chain(), at).orElse(null);
    }
}
