package rombix.app.view.sheet;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.trust.Ask;
import rombix.running.owner.Trust;

/** What a board brings that was not agreed to on this computer: looked at before anything of it happens. */
public final class GuestPopover {
    private static final double WIDTH = 720;

    private final Desk desk;

    public GuestPopover(Desk desk) {
        this.desk = desk;
    }

    /**
     * @param board what brings it
     * @param asks what it brings
     * @param known whether the rest of it was agreed to before
     * @param trust agrees to it, and {@code now} until Rombix is closed; closing it in any other way does not
     */
    public void show(Node by, Board board, List<Ask> asks, boolean known, Runnable trust, Runnable now,
            Runnable closed) {
        Label title = Styles.label(known
                ? "“%s” brings something new".formatted(board.name())
                : "“%s” is a guest on this computer".formatted(board.name()), "gear-name");
        Label about = Fields.read(known
                ? "You trusted the rest before. None of the following has happened yet."
                : "Nothing has been connected, listened to or run yet. The board asks for:");
        HBox middle = new HBox(Space.S16, BoardLooks.pages(board), BoardLooks.asks(asks));
        Button look = Fields.plain("View only", "Esc");
        look.setId("guest-look");
        look.setOnAction(_ -> desk.overlay().close());
        Button yes = Fields.plain(known ? "Trust these, too" : "Trust this board", "");
        yes.setId("guest-trust");
        yes.setOnAction(_ -> {
            trust.run();
            desk.overlay().close();
        });
        Button once = Fields.plain("Only this time", "");
        once.setId("guest-now");
        once.setOnAction(_ -> {
            now.run();
            desk.overlay().close();
        });
        Label means = Fields.read("View only: pages, chains and rehearsal on twins, without connecting to gear.");
        means.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(means, Priority.ALWAYS);
        for (Button b : List.of(look, yes, once)) {
            b.setMinWidth(Region.USE_PREF_SIZE);
        }
        HBox foot = new HBox(Space.S8, means, yes, once, look);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S10, title, about, middle, foot);
        box.setPrefWidth(WIDTH);
        box.setId("guest");
        desk.overlay().show(box, by, closed);
        look.requestFocus();
    }
}
