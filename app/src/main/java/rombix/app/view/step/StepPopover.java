package rombix.app.view.step;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.Paths;
import rombix.core.board.StepWords;
import rombix.core.chain.Step;

/** The popover of a step: its form and its options. */
public final class StepPopover {
    private static final double WIDTH = 360;

    private final Desk desk;
    private boolean more;

    public StepPopover(Desk desk) {
        this.desk = desk;
    }

    public void open(List<Integer> path, Node by, Runnable delete) {
        if (Paths.step(desk.bench().chain(), path).isEmpty()) {
            return;
        }
        VBox content = new VBox(Space.S8);
        content.setPrefWidth(WIDTH);
        content.setMaxWidth(WIDTH);
        more = false;
        fill(content, path, delete);
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        VBox box = new VBox(scroll);
        box.setId("step-popover");
        desk.overlay().show(box, by, () -> {
        });
    }

    private void fill(VBox content, List<Integer> path, Runnable delete) {
        Step step = Paths.step(desk.bench().chain(), path).orElse(null);
        if (step == null) {
            return;
        }
        Runnable anew = () -> {
            fill(content, path, delete);
            desk.overlay().requestLayout();
        };
        StepWords words = new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g));
        Label title = new Label(words.of(step));
        title.getStyleClass().add("gear-name");
        title.setWrapText(true);
        content.getChildren().setAll(title);
        content.getChildren().addAll(StepForm.of(step, desk, path, anew));
        content.getChildren().add(options(step, path, anew));
        if (more) {
            content.getChildren().addAll(new StepOptionsForm(desk, path, anew).of(step.how()));
        }
        content.getChildren().add(foot(step, path, delete));
        Runnable titled = () -> Paths.step(desk.bench().chain(), path).ifPresent(s -> title.setText(words().of(s)));
        desk.bench().watchWhile(titled, () -> title.getScene() != null);
    }

    private StepWords words() {
        return new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g));
    }

    private HBox options(Step step, List<Integer> path, Runnable anew) {
        Button open = Fields.plain(more ? "Less" : "When, failure, note…", "");
        open.setId("manner");
        open.setOnAction(_ -> {
            more = !more;
            anew.run();
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox row = new HBox(Space.S8, Fields.check("manner-off", "Switched off", step.how().off(), on -> {
            desk.bench().editChain(on ? "switch a step off" : "switch a step on",
                    c -> Paths.changed(c, path, s -> s.withHow(s.how().withOff(on))));
        }), space, open);
        row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        return row;
    }

    private HBox foot(Step step, List<Integer> path, Runnable delete) {
        Button remove = Fields.plain("Delete step", "Delete");
        remove.setId("delete-step");
        remove.setOnAction(_ -> delete.run());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox row = new HBox(Space.S6, remove, space);
        if (path.size() == 1 && path.getFirst() >= 0) {
            Button earlier = Fields.plain("Earlier", "");
            earlier.setOnAction(_ -> move(path, -1));
            Button later = Fields.plain("Later", "");
            later.setOnAction(_ -> move(path, 1));
            row.getChildren().addAll(earlier, later);
        }
        return row;
    }

    private void move(List<Integer> path, int by) {
        int from = path.getFirst();
        int to = from + by;
        if (to >= 0 && to < desk.bench().chain().steps().size()) {
            desk.overlay().close();
            desk.bench().editChain("move a step", c -> c.moved(from, to));
        }
    }
}
