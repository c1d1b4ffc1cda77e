package rombix.app.view.sheet;

import java.util.Arrays;
import java.util.List;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.tile.MiniPage;
import rombix.core.board.Board;
import rombix.core.board.Page;
import rombix.core.trust.Ask;

/** A board from elsewhere as it is shown before anything of it happens: its pages, and what it asks for. */
public final class BoardLooks {
    private static final double LIST_HEIGHT = 330;
    private static final double NAME_WIDTH = 118;
    private static final int MOST_PAGES = 3;
    private static final int MOST_ASKS = 40;

    private BoardLooks() {
    }

    /** Small pictures of its first pages. */
    public static Node pages(Board board) {
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

    /** What it asks for, by kind, to be scrolled. */
    public static ScrollPane asks(List<Ask> asks) {
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
