package rombix.app.view.window;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Places;
import rombix.app.view.common.Checking;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.check.Check;
import rombix.core.check.Fixes;

/** Finds anything on the board and goes there; lists what is wrong with it; lists every command and its key. */
final class Overview {
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final int MAX = 60;
    private static final double WIDTH = 620;
    private static final double HEIGHT = 460;

    private final Desk desk;
    private final Commands commands;

    private record Line(String words, String where, Runnable go, Fixes.@Nullable Fix fix) {
        Line(String words, String where, Runnable go) {
            this(words, where, go, null);
        }
    }

    Overview(Desk desk, Commands commands) {
        this.desk = desk;
        this.commands = commands;
    }

    /** Pages, buttons, steps, labels, notes. */
    void find(Node by) {
        open(by, "find", "Find a page, a button, a step, a label, a note", typed -> typed.isBlank()
                ? List.of()
                : Places
                        .find(typed, desk.bench(), g -> desk.model().state().readings(g), MAX).stream()
                        .map(p -> new Line(p.words(), p
                                .where(), p.go()))
                        .toList(),
                "Type part of a name or text.");
    }

    /** Everything that can be done, with its key. */
    void commands(Node by) {
        open(by, "commands", "Type what you want to do",
                typed -> commands.possible().stream().filter(c -> matches(typed, c
                        .words().get())).map(c -> new Line(c.words().get(), c.key(), c.run())).toList(),
                "No command matches.");
    }

    /** What is wrong with the board; each leads to its place, and offers the fix where there is one. */
    void check(Node by) {
        open(by, "check", "Search findings; Ctrl+Enter applies the fix", typed -> Check.of(desk.bench()
                .rig(), new Checking(desk.model().state()::readings)).stream()
                .filter(f -> matches(typed, f.where() + " " + f.message() + " " + f.kind().words()))
                .map(f -> new Line(f.where() + ": " + f.message(), f.kind().words(), () -> Places.go(desk.bench(), f),
                        Fixes.of(desk.bench().rig(), f).orElse(null)))
                .toList(), "No problems found.");
    }

    private static boolean matches(String typed, String words) {
        String all = words.toLowerCase(Locale.ROOT);
        for (String w : typed.toLowerCase(Locale.ROOT).strip().split("\\s+")) {
            if (!all.contains(w)) {
                return false;
            }
        }
        return true;
    }

    private interface Source {
        List<Line> lines(String typed);
    }

    private void open(Node by, String id, String prompt, Source source, String none) {
        TextField field = new TextField();
        field.setId("overview-" + id);
        field.setPromptText(prompt);
        field.setAccessibleText(prompt);
        VBox list = new VBox();
        list.setId("overview-list");
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        scroll.setMaxHeight(HEIGHT);
        scroll.setMinHeight(0);
        int[] picked = {0};
        List<Line> shown = new ArrayList<>();
        Runnable[] fill = new Runnable[1];
        fill[0] = () -> {
            shown.clear();
            shown.addAll(source.lines(field.getText()));
            picked[0] = 0;
            list.getChildren().clear();
            if (shown.isEmpty()) {
                list.getChildren().add(Fields.read(none));
            }
            shown.forEach(l -> list.getChildren().add(row(l, fill[0])));
            pick(list, picked[0]);
        };
        field.textProperty().addListener((_, _, _) -> fill[0].run());
        field.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                picked[0] = Math.clamp(picked[0] + (e.getCode() == KeyCode.DOWN ? 1 : -1), 0, Math.max(0, shown.size()
                        - 1));
                pick(list, picked[0]);
                scroll.setVvalue(shown.size() < 2 ? 0 : (double) picked[0] / (shown.size() - 1));
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER && !shown.isEmpty()) {
                Line line = shown.get(picked[0]);
                Fixes.Fix fix = line.fix();
                if (e.isControlDown() && fix != null) {
                    fix(fix, fill[0]);
                } else {
                    go(line);
                }
                e.consume();
            }
        });
        VBox box = new VBox(Space.S8, field, scroll);
        box.setPrefWidth(WIDTH);
        box.setId("overview");
        fill[0].run();
        desk.overlay().show(box, by, () -> {
        });
        field.requestFocus();
    }

    /** Does what is offered, and shows what is left. */
    private void fix(Fixes.Fix fix, Runnable anew) {
        desk.bench().edit(fix.words().substring(0, 1).toLowerCase(Locale.ROOT) + fix.words().substring(1), fix.edit());
        anew.run();
    }

    private HBox row(Line line, Runnable anew) {
        Label words = new Label(line.words());
        words.setWrapText(true);
        words.setMaxWidth(WIDTH - 190);
        Label where = new Label(line.where());
        where.getStyleClass().add("where");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox row = new HBox(Space.S10, words, space, where);
        Fixes.Fix fix = line.fix();
        if (fix != null) {
            Button mend = Fields.plain(fix.words(), "Ctrl+Enter");
            mend.setMinWidth(Region.USE_PREF_SIZE);
            mend.getStyleClass().add("mend");
            mend.setOnAction(_ -> fix(fix, anew));
            row.getChildren().set(2, mend);
            words.setText(line.words());
        }
        row.getStyleClass().add("found");
        row.setAccessibleRole(AccessibleRole.BUTTON);
        row.setAccessibleText(line.words() + ", " + line.where());
        row.setOnMouseClicked(_ -> go(line));
        return row;
    }

    private static void pick(VBox list, int picked) {
        for (int i = 0; i < list.getChildren().size(); i++) {
            list.getChildren().get(i).pseudoClassStateChanged(PICKED, i == picked);
        }
    }

    private void go(Line line) {
        desk.overlay().close();
        line.go().run();
    }
}
