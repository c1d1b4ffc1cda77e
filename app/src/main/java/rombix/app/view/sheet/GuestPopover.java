package rombix.app.view.sheet;

import java.util.Arrays;
import java.util.List;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
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
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.tile.MiniPage;
import rombix.core.board.Board;
import rombix.core.board.Page;
import rombix.core.trust.Ask;
import rombix.running.owner.Trust;

/** What a board brings that was not agreed to on this computer: looked at before anything of it happens. */
public final class GuestPopover {
    private static final double WIDTH = 720;
    private static final double LIST_HEIGHT = 330;
    private static final double NAME_WIDTH = 118;
    private static final int MOST_PAGES = 3;
    private static final int MOST_ASKS = 40;

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
        HBox middle = new HBox(Space.S16, pages(board), asks(asks));
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

    private static Node pages(Board board) {
        VBox pages = new VBox(Space.S8);
        pages.setMinWidth(MiniPage.WIDTH);
        for (Page page : board.pages().stream().limit(MOST_PAGES).toList()) {
            Label name = Styles.label(page.name(), "read");
            name.setMaxWidth(MiniPage.WIDTH);
            pages.getChildren().add(new VBox(Space.S3, new MiniPage(page), name));
        }
        int more = board.pages().size() - MOST_PAGES;
        if (more > 0) {
            pages.getChildren().add(Fields.read(more == 1 ? "and one more page" : "and " + more + " more pages"));
        }
        return pages;
    }

    private static Node asks(List<Ask> asks) {
        VBox list = new VBox(Space.S4);
        for (Ask.Kind kind : Arrays.asList(Ask.Kind.values())) {
            List<Ask> of = asks.stream().filter(a -> a.kind() == kind).toList();
            if (!of.isEmpty()) {
                Label title = Styles.label(kind.title(), "gear-name");
                if (!list.getChildren().isEmpty()) {
                    VBox.setMargin(title, new Insets(Space.S8, 0, 0, 0));
                }
                list.getChildren().add(title);
                of.stream().limit(MOST_ASKS).forEach(a -> list.getChildren().add(row(a)));
                if (of.size() > MOST_ASKS) {
                    list.getChildren().add(Fields.read("and " + (of.size() - MOST_ASKS) + " more"));
                }
            }
        }
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setPrefHeight(LIST_HEIGHT);
        scroll.getStyleClass().add("popover-scroll");
        HBox.setHgrow(scroll, Priority.ALWAYS);
        return scroll;
    }

    private static Node row(Ask ask) {
        Label name = Styles.label(ask.name(), "read");
        name.setMinWidth(NAME_WIDTH);
        name.setPrefWidth(NAME_WIDTH);
        name.setMaxWidth(NAME_WIDTH);
        Label words = Fields.read(ask.words());
        words.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(words, Priority.ALWAYS);
        return new HBox(Space.S8, name, words);
    }
}
