package rombix.app.view.window;

import java.util.List;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.Draft;
import rombix.app.edit.StepEdits;
import rombix.app.view.button.FacePopover;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Chooser;
import rombix.app.view.form.Fields;
import rombix.app.view.page.PageView;
import rombix.app.view.score.ScoreView;
import rombix.app.view.tile.Tile;
import rombix.app.view.window.Command.Where;
import rombix.core.event.Mode;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.running.Player;

/**
 * The score of one button over the page in Live: it is edited as a draft, while everything runs on, and takes effect when
 * it is applied. The page keeps its place beneath, and its buttons press. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
final class EditOnAir {
    private static final double LOWEST = 220;
    private static final double HIGHEST = 306;
    private static final double BAND = 56;

    private final Desk desk;
    private final Player player;
    private final PageView page;
    private final Consumer<String> trouble;
    private final Draft draft;
    private final StackPane over;
    private final Button apply = new Button("Apply");
    private @Nullable Panel panel;

    /** Made once, as what it is made of watches the deck from then on. */
    private record Panel(VBox box, Button discard, ScoreView score, Commands commands) {
    }

    /** @param trouble told in words of what can't be done */
    EditOnAir(Desk desk, Player player, PageView page, Consumer<String> trouble) {
        this.desk = desk;
        this.player = player;
        this.page = page;
        this.trouble = trouble;
        this.draft = new Draft(desk.bench());
        this.over = new StackPane(page);
        apply.setId("on-air-apply");
        apply.setDefaultButton(true);
        apply.setMinWidth(Region.USE_PREF_SIZE);
        apply.setOnAction(_ -> apply());
        VBox.setVgrow(over, Priority.ALWAYS);
        page.addEventHandler(ContextMenuEvent.CONTEXT_MENU_REQUESTED, e -> {
            Tile tile = tile(e.getTarget());
            if (desk.bench().mode() == Mode.LIVE && tile != null) {
                String button = tile.button().id();
                Chooser.open(desk, tile, tile.button().name(), List.of(new Chooser.Item("edit-on-air", "Edit on air…",
                        "Ctrl+E", () -> begin(button))));
                e.consume();
            }
        });
        desk.bench().watch(this::changed);
    }

    /** The page, with the score over it while a button is edited. */
    Node node() {
        return over;
    }

    private static @Nullable Tile tile(@Nullable Object at) {
        for (Node n = at instanceof Node node ? node : null; n != null; n = n.getParent()) {
            if (n instanceof Tile tile) {
                return tile;
            }
        }
        return null;
    }

    /** Edits the button under the pointer, else the one that has the focus. */
    void begin() {
        if (desk.bench().mode() != Mode.LIVE) {
            return;
        }
        Tile focused = over.getScene() == null ? null : tile(over.getScene().getFocusOwner());
        Tile tile = page.getChildren().stream().filter(n -> n instanceof Tile && n.isHover()).map(Tile.class::cast)
                .findFirst().orElse(focused);
        if (tile != null) {
            begin(tile.button().id());
        } else {
            trouble.accept("Point at a button, then press Ctrl+E to edit it on air.");
        }
    }

    /** Edits a button; a draft of another one is asked for first. */
    void begin(String button) {
        if (draft.changed()) {
            finish(() -> open(button));
        } else {
            open(button);
        }
    }

    private void open(String button) {
        end();
        Panel p = panel == null ? panel() : panel;
        panel = p;
        draft.begin(button, desk.model().state().play(button).state());
        p.score().setPrefHeight(Math.clamp(page.getHeight() / 2 - BAND, LOWEST, HIGHEST)); // The button stays in sight.
        Node tile = page.tileOf(button);
        boolean low = tile.getBoundsInParent().getCenterY() > page.getHeight() / 2 && tile != page;
        StackPane.setAlignment(p.box(), low ? Pos.TOP_CENTER : Pos.BOTTOM_CENTER);
        over.getChildren().add(p.box());
        shown();
        p.discard().requestFocus(); // In the score, though not in the search, whose proposals would cover what is there.
        Platform.runLater(p.score()::focusSteps);
    }

    private Panel panel() {
        Desk own = new Desk(draft.bench(), desk.model(), desk.overlay(), player);
        StepEdits steps = new StepEdits(draft.bench());
        FacePopover face = new FacePopover(own, new ButtonEdits(draft.bench()), trouble);
        Runnable editFace = () -> face.open(page.tileOf(draft.button().id()));
        ScoreView score = new ScoreView(own, steps, player::known, editFace);
        score.withoutTrial();
        Commands keys = new Commands(own);
        ScoreCommands.chain(keys, score);
        ScoreCommands.steps(keys, score, steps, steps::paste);
        keys.add(new Command(() -> "Undo", List.of("Ctrl+Z"), Where.BUILD, draft.bench()::undo));
        keys.add(new Command(() -> "Redo", List.of("Ctrl+Shift+Z", "Ctrl+Y"), Where.BUILD, draft.bench()::redo));
        keys.add(new Command(() -> "Apply", List.of("Ctrl+Enter"), Where.BUILD, this::apply));
        keys.add(new Command(() -> "Edit the face of the button", List.of("F2"), Where.BUILD, editFace));
        Label word = Styles.label("EDITING ON AIR", "rehearsal-word");
        word.setMinWidth(Region.USE_PREF_SIZE);
        Label words = Styles.label("The show keeps running. Changes take effect when you apply them.", "read");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button discard = Fields.plain("Discard", "Esc");
        discard.setId("on-air-discard");
        discard.setMinWidth(Region.USE_PREF_SIZE);
        discard.setOnAction(_ -> end());
        HBox band = new HBox(word, words, space, discard, apply);
        band.getStyleClass().add("edit-band");
        VBox box = new VBox(band, score);
        box.setId("on-air");
        box.setMaxHeight(Region.USE_PREF_SIZE);
        draft.bench().watch(this::shown);
        return new Panel(box, discard, score, keys);
    }

    private void shown() {
        apply.setDisable(!draft.changed());
    }

    /** The board or its mode changed: a draft goes with its button, and with Live. */
    private void changed() {
        if (draft.begun() && (desk.bench().mode() != Mode.LIVE || !draft.stands())) {
            end();
        }
    }

    /** What leaving Live would lose, in a sentence; empty where nothing. */
    String unapplied() {
        return draft.changed()
                ? "The edit of “" + draft.button().name() + "” was discarded."
                : "";
    }

    private void apply() {
        if (draft.changed()) {
            close();
            draft.apply();
        }
    }

    private void end() {
        draft.end();
        close();
    }

    private void close() {
        desk.overlay().close();
        if (panel != null) {
            over.getChildren().remove(panel.box());
        }
    }

    /** Closes the draft, and asks first where something was changed. Whether there was one. */
    boolean escape() {
        if (!draft.begun()) {
            return false;
        }
        if (draft.changed()) {
            finish(this::end);
        } else {
            end();
        }
        return true;
    }

    private void finish(Runnable next) {
        Chooser.open(desk, apply, "Apply the edit of “" + draft.button().name() + "”?", List.of(new Chooser.Item(
                "on-air-keep", "Keep editing", "Esc", () -> {
                }), new Chooser.Item("on-air-take", "Apply", "Ctrl+Enter", () -> {
                    apply();
                    next.run();
                }), new Chooser.Item("on-air-drop", "Discard", "", () -> {
                    end();
                    next.run();
                })));
    }

    /** Whether the hand is in the score: keys are for it, and press no button. */
    boolean has(@Nullable Node focus) {
        for (Node n = draft.begun() ? focus : null; n != null; n = n.getParent()) {
            if (panel != null && n == panel.box()) {
                return true;
            }
        }
        return false;
    }

    /** Does what a key is for in the score; whether there was anything. */
    boolean run(KeyEvent e, @Nullable Node focus) {
        return panel != null && has(focus) && e.getCode() != KeyCode.ESCAPE && panel.commands().run(e, focus);
    }
}
