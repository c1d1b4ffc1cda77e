package rombix.app.view.share;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.Clipboard;
import javafx.scene.input.DataFormat;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.gear.Practice;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.bundle.Matching;
import rombix.core.bundle.PartPaste;
import rombix.core.bundle.SharedPart;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.store.BadFile;
import rombix.core.twin.Figures;

/**
 * Parts of boards on the system's clipboard, as text: what is copied here can be pasted into another board, another
 * Rombix or a chat, and comes from there. What was copied in this window is pasted as ever.
 */
public final class PartClipboard {
    /** The type of a part among what else may be on a clipboard. */
    private static final DataFormat TYPE = new DataFormat("application/vnd.rombix.part+json");
    private static final double WIDTH = 520;
    private static final double HEIGHT = 260;
    private static final int MOST_LOST = 4;

    private final Desk desk;
    private final Practice practice;
    private final BiConsumer<Board, Runnable> before;
    private final Consumer<String> notices;
    private final Supplier<int[]> cell;
    private String own = "";

    /**
     * @param before goes on with a board that something comes into, once what is new of it is agreed to
     * @param cell the empty cell that has the focus: column and row; none where none has
     */
    public PartClipboard(Desk desk, Practice practice, BiConsumer<Board, Runnable> before, Consumer<String> notices,
            Supplier<int[]> cell) {
        this.desk = desk;
        this.practice = practice;
        this.before = before;
        this.notices = notices;
        this.cell = cell;
    }

    /** Buttons were copied: their text is on the clipboard, too. */
    public void copied(List<Button> buttons) {
        Rig rig = desk.bench().rig();
        String page = rig.pageOf(buttons.getFirst().id()).map(Page::id).orElse("");
        List<Button> there = buttons.stream().filter(b -> rig.pageOf(b.id()).filter(p -> p.id().equals(page))
                .isPresent()).toList();
        if (!there.isEmpty()) {
            put(SharedPart.of(SharedPart.What.BUTTONS, rig, there));
        }
    }

    /** Puts the page that is shown on the clipboard. */
    public void copyPage() {
        put(SharedPart.page(desk.bench().rig(), desk.bench().page()));
        own = ""; // It is pasted from there in this window as well.
        notices.accept("The page “" + desk.bench().page().name()
                + "” is on the clipboard. Ctrl+V pastes it here or in another board.");
    }

    /** Puts one part of the selected button on the clipboard: its state, or the chain that is shown, or its look. */
    public void copyOnly(SharedPart.What what) {
        Rig rig = desk.bench().rig();
        desk.bench().button().ifPresent(b -> {
            State state = desk.bench().state().orElseThrow();
            List<State> states = switch (what) {
                case STATE -> List.of(state);
                case CHAIN -> List.of(state.withOn(Map.of(Gesture.PRESS, desk.bench().chain())));
                default -> b.states();
            };
            SharedPart part = SharedPart.of(what, rig, List.of(b.withStates(states)));
            put(part);
            own = "";
            notices.accept(Figures.capitalized(part.words())
                    + " is on the clipboard. Ctrl+V pastes it onto a button, here or in another board.");
        });
    }

    /** Steps were copied: their text is on the clipboard, too. */
    public void copied(Chain steps) {
        desk.bench().button().ifPresent(b -> put(SharedPart.of(SharedPart.What.CHAIN, desk.bench().rig(), List.of(b
                .withStates(List.of(desk.bench().state().orElseThrow().withOn(Map.of(Gesture.PRESS, steps))))))));
    }

    private void put(SharedPart part) {
        own = part.text();
        Clipboard.getSystemClipboard().setContent(Map.of(DataFormat.PLAIN_TEXT, own, TYPE, own));
    }

    /** Pastes a part that comes from elsewhere; else does what is done without one. */
    public void paste(Node by, Runnable otherwise) {
        paste(by, _ -> true, otherwise);
    }

    /** The same where only steps can go. */
    public void pasteSteps(Node by, Runnable otherwise) {
        paste(by, SharedPart.What.CHAIN::equals, otherwise);
    }

    private void paste(Node by, Predicate<SharedPart.What> fits, Runnable otherwise) {
        String text = Clipboard.getSystemClipboard().getString();
        if (text == null || text.equals(own)) {
            otherwise.run();
            return;
        }
        try {
            Optional<SharedPart> part = SharedPart.read(text).filter(p -> fits.test(p.what()));
            if (part.isPresent()) {
                match(by, part.get());
            } else {
                otherwise.run();
            }
        } catch (BadFile e) {
            notices.accept("What is on the clipboard can't be pasted: " + e.getMessage());
        }
    }

    private void match(Node by, SharedPart part) {
        Rig mine = desk.bench().rig();
        int[] at = cell.get();
        PartPaste.Place place = new PartPaste.Place(desk.bench().page().id(), at.length == 0 ? 0 : at[0], at.length == 0
                ? 0
                : at[1], at.length == 0 ? desk.bench().button().map(Button::id).orElse(null) : null,
                desk.bench()
                        .stateIndex(),
                Optional.ofNullable(desk.bench().part().gesture()).orElse(Gesture.PRESS));
        Thread.ofPlatform().daemon().name("matching").start(() -> {
            MatchGrid grid = new MatchGrid(part.rig(), new Matching(part.rig(), mine), practice);
            Platform.runLater(() -> {
                if (grid.clear()) {
                    bring(part, grid, place);
                } else {
                    ask(by, part, grid, place);
                }
            });
        });
    }

    private void ask(Node by, SharedPart part, MatchGrid grid, PartPaste.Place place) {
        Label about = Fields.read("Some of its gear isn't on this board, or can't do the same.");
        var paste = Fields.plain("Paste", "");
        paste.setId("part-paste");
        paste.setDefaultButton(true);
        paste.setOnAction(_ -> {
            desk.overlay().close();
            bring(part, grid, place);
        });
        var cancel = Fields.plain("Cancel", "Esc");
        cancel.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8, paste, cancel);
        foot.setAlignment(Pos.CENTER_RIGHT);
        VBox box = new VBox(Space.S10, Styles.label("Paste " + part.words(), "gear-name"), about, grid.node(HEIGHT),
                foot);
        box.setPrefWidth(WIDTH);
        box.setId("part");
        desk.overlay().show(box, by, by::requestFocus);
        paste.requestFocus();
    }

    private void bring(SharedPart part, MatchGrid grid, PartPaste.Place place) {
        Rig mine = desk.bench().rig();
        Thread.ofPlatform().daemon().name("pasting").start(() -> {
            try {
                PartPaste.Pasted pasted = PartPaste.of(mine, part, grid.carriedOut(), place);
                Platform.runLater(() -> before.accept(pasted.rig().board(), () -> {
                    if (desk.bench().rig() != mine) { // It was edited meanwhile.
                        bring(part, grid, place);
                        return;
                    }
                    desk.bench().editRig("paste " + part.words(), _ -> pasted.rig());
                    tell(pasted.lost());
                }));
            } catch (IOException e) {
                Platform.runLater(() -> notices.accept(String.valueOf(e.getMessage())));
            }
        });
    }

    private void tell(List<String> lost) {
        if (!lost.isEmpty()) {
            notices.accept("%d things have no counterpart here and were left out: %s%s".formatted(lost.size(), String
                    .join("; ", lost.subList(0, Math.min(MOST_LOST, lost.size()))),
                    lost.size() > MOST_LOST ? "…" : ""));
        }
    }
}
