package rombix.app.view.page;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.Pane;
import rombix.core.board.Page;

/**
 * The pages in a row, as many as there is room for; in Live the rest are in a menu at its end. The page that is shown is always
 * in the row.
 */
public final class PageTabs extends Pane {
    private static final PseudoClass LIVE = PseudoClass.getPseudoClass("live");
    private static final double GAP = 2;
    private static final double MIN = 420;
    private static final double REST = 58;

    private final List<ToggleButton> tabs = new ArrayList<>();
    private final MenuButton rest = new MenuButton();
    private final Consumer<String> show;
    private List<List<String>> pages = List.of();
    /** Whether the pages without room are in a menu; in Build another lists all pages. */
    private boolean counted;

    /** @param show told the id of the page that is chosen */
    public PageTabs(Consumer<String> show) {
        this.show = show;
        rest.setId("pages-rest");
        rest.getStyleClass().add("quiet-choice");
        rest.setOnShowing(_ -> rest.getItems().setAll(tabs.stream().filter(t -> !t.isVisible()).map(t -> {
            MenuItem item = new MenuItem(t.getText());
            item.setOnAction(_ -> show.accept(String.valueOf(t.getUserData())));
            return item;
        }).toList()));
        rest.getItems().add(new MenuItem());
    }

    /** @param large whether they are to be read from afar, with a menu of those that there is no room for */
    public void show(List<Page> now, String shown, boolean large) {
        List<List<String>> names = now.stream().map(p -> List.of(p.id(), p.name())).toList();
        if (!names.equals(pages)) {
            pages = names;
            tabs.clear();
            now.forEach(p -> tabs.add(tab(p)));
            getChildren().setAll(tabs);
            getChildren().add(rest);
        }
        counted = large;
        for (ToggleButton tab : tabs) {
            tab.setSelected(shown.equals(tab.getUserData()));
            tab.pseudoClassStateChanged(LIVE, large);
        }
        requestLayout();
    }

    private ToggleButton tab(Page page) {
        ToggleButton tab = new ToggleButton(page.name());
        tab.getStyleClass().add("page-tab");
        tab.setId("page-" + page.id());
        tab.setUserData(page.id());
        tab.setOnAction(_ -> {
            tab.setSelected(true);
            show.accept(page.id());
        });
        return tab;
    }

    @Override
    protected double computePrefWidth(double height) {
        return tabs.stream().mapToDouble(t -> Math.ceil(t.prefWidth(-1)) + GAP).sum();
    }

    @Override
    protected double computeMinWidth(double height) {
        return Math.min(MIN, computePrefWidth(height));
    }

    @Override
    protected double computePrefHeight(double width) {
        return tabs.stream().mapToDouble(t -> t.prefHeight(-1)).max().orElse(0);
    }

    @Override
    protected void layoutChildren() {
        double all = computePrefWidth(-1);
        boolean fits = all <= getWidth() + GAP;
        double room = fits ? all : getWidth() - (counted ? REST + GAP : 0);
        for (ToggleButton t : tabs) {
            if (t.isSelected()) {
                room -= Math.ceil(t.prefWidth(-1)) + GAP;
            }
        }
        double x = 0;
        boolean full = false;
        int hidden = 0;
        for (ToggleButton t : tabs) {
            double w = Math.ceil(t.prefWidth(-1));
            full |= !t.isSelected() && w > room;
            t.setVisible(t.isSelected() || !full);
            if (t.isVisible()) {
                double h = t.prefHeight(-1);
                t.resizeRelocate(x, Math.rint((getHeight() - h) / 2), w, h);
                x += w + GAP;
                room -= t.isSelected() ? 0 : w + GAP;
            } else {
                hidden++;
            }
        }
        rest.setVisible(counted && hidden > 0);
        if (rest.isVisible()) {
            rest.setText("+" + hidden);
            rest.setAccessibleText(hidden + " more pages");
            double h = rest.prefHeight(-1);
            rest.resizeRelocate(x, Math.rint((getHeight() - h) / 2), REST, h);
        }
    }
}
