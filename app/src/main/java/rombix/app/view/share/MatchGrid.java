package rombix.app.view.share;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.gear.Practice;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.bundle.Matching;

/** The gear of a board from elsewhere, and for each what is done about it: mine, new, a stand-in. */
final class MatchGrid {
    private static final double NAME_WIDTH = 150;
    private static final double WAY_WIDTH = 300;
    private static final int MOST_BUTTONS = 4;
    private static final int MOST_LINES = 20;

    private final Rig theirs;
    private final Practice practice;
    private final Map<String, Matching.Choice> choices = new LinkedHashMap<>();
    private final List<Row> rows = new ArrayList<>();

    /** What can be done about a gear, in words; with what has no counterpart then. */
    private record Way(String words, Matching.Choice choice, List<String> lost) {
    }

    private record Row(Gear gear, List<Way> ways, Way proposed) {
    }

    /** It may take a second: not for the interface's thread. */
    MatchGrid(Rig theirs, Matching matching, Practice practice) {
        this.theirs = theirs;
        this.practice = practice;
        Map<String, Matching.Choice> proposed = matching.proposed();
        for (Gear g : theirs.board().gear()) {
            List<Way> ways = new ArrayList<>(matching.of(g.id()).stream().map(c -> new Way("Use my “" + c.gear().name()
                    + "”", new Matching.Choice.Mine(c.gear().id()), c.lost())).toList());
            ways.add(new Way("Add as new gear", new Matching.Choice.New(), List.of()));
            if (practice.has(g.card())) {
                ways.add(new Way("Stand-in for now", new Matching.Choice.StandIn(""), List.of()));
            }
            Way likely = ways.stream().filter(w -> w.choice().equals(proposed.get(g.id()))).findFirst().orElse(ways
                    .getFirst());
            rows.add(new Row(g, ways, likely));
            choices.put(g.id(), likely.choice());
        }
    }

    /** Whether all of it is here, and can do the same. */
    boolean clear() {
        return rows.stream().allMatch(r -> r.proposed().choice() instanceof Matching.Choice.Mine && r.proposed().lost()
                .isEmpty());
    }

    /** What is chosen now, to be carried out; it may start stand-ins. Not for the interface's thread. */
    Map<String, Matching.Choice> carriedOut() throws IOException {
        Map<String, Matching.Choice> all = new LinkedHashMap<>(choices);
        for (Map.Entry<String, Matching.Choice> e : all.entrySet()) {
            if (e.getValue() instanceof Matching.Choice.StandIn) {
                e.setValue(new Matching.Choice.StandIn(practice.standIn(theirs.board().gear(e.getKey()).orElseThrow()
                        .card())));
            }
        }
        return all;
    }

    /** Its rows, to be scrolled. */
    ScrollPane node(double height) {
        GridPane grid = new GridPane(Space.S10, Space.S8);
        grid.getColumnConstraints().setAll(new ColumnConstraints(NAME_WIDTH), new ColumnConstraints(WAY_WIDTH));
        int line = 0;
        for (Row m : rows) {
            Label lost = Fields.read("");
            lost.setWrapText(true);
            lost.setId("unpack-lost-" + m.gear().id());
            lost.managedProperty().bind(lost.textProperty().isNotEmpty());
            tell(lost, m.proposed());
            ComboBox<Way> choice = Fields.choice("unpack-gear-" + m.gear().id(), m.ways(), m.proposed(), Way::words,
                    w -> {
                        choices.put(m.gear().id(), w.choice());
                        tell(lost, w);
                    });
            choice.setMaxWidth(Double.MAX_VALUE);
            Label title = Styles.label(m.gear().name(), "read");
            String card = Objects.requireNonNull(theirs.cards().get(m.gear().card())).title();
            String protocol = m.gear().link().protocol().title();
            Label kind = Fields.help(card.equals(m.gear().name()) ? protocol : card + ", " + protocol);
            grid.addRow(line++, new VBox(title, kind), new VBox(Space.S2, choice, lost));
        }
        ScrollPane scroll = new ScrollPane(grid);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setPrefHeight(height);
        scroll.getStyleClass().add("popover-scroll");
        return scroll;
    }

    private static void tell(Label lost, Way way) {
        List<String> all = way.lost();
        List<String> buttons = all.stream().map(l -> l.replaceFirst("(?s)^(“[^”]*”): .*", "$1")).filter(l -> l
                .startsWith("“")).distinct().toList();
        String where = buttons.isEmpty()
                ? ""
                : ", in " + String.join(", ", buttons.subList(0, Math.min(MOST_BUTTONS, buttons.size()))) + (buttons
                        .size() > MOST_BUTTONS ? " and " + (buttons.size() - MOST_BUTTONS) + " more" : "");
        lost.setText(all.isEmpty() ? "" : "No counterpart for %d of its uses%s".formatted(all.size(), where));
        lost.setTooltip(all.isEmpty()
                ? null
                : new Tooltip(String.join("\n", all.subList(0, Math.min(MOST_LINES, all.size())))));
    }
}
