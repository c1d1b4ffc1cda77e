package rombix.app.view.share;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.gear.Practice;
import rombix.app.view.sheet.BoardLooks;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.bundle.Bundle;
import rombix.core.bundle.Matching;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.trust.Ask;
import rombix.core.trust.Asks;

/**
 * A bundle before it is unpacked: its pages, what it asks for, its files, and its gear beside one's own. Nothing of it is
 * on the disk, connected or run until that is agreed to; what is unpacked opens as a guest.
 */
public final class BundleSheet {
    private static final double WIDTH = 1140;
    private static final double HEIGHT = 560;
    private static final double GEAR_HEIGHT = 330;
    private static final double MATCH_WIDTH = 500;
    private static final int MOST_BUTTONS = 4;
    private static final int MOST_LINES = 20;

    private final Desk desk;
    private final Practice practice;
    private final Consumer<Path> open;
    private final Consumer<String> notices;

    /** @param open opens the board that was unpacked */
    public BundleSheet(Desk desk, Practice practice, Consumer<Path> open, Consumer<String> notices) {
        this.desk = desk;
        this.practice = practice;
        this.open = open;
        this.notices = notices;
    }

    /** What can be done about a gear, in words; with what has no counterpart then. */
    private record Way(String words, Matching.Choice choice, List<String> lost) {
    }

    /** A gear of theirs, what can be done about it, and what is proposed. */
    private record Matched(Gear gear, List<Way> ways, Way proposed) {
    }

    /** Takes bundles that are dropped anywhere on the window while the board is built. */
    public void takeDrops(Node window) {
        window.addEventFilter(DragEvent.DRAG_OVER, e -> {
            if (dropped(e)) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        window.addEventFilter(DragEvent.DRAG_DROPPED, e -> {
            if (dropped(e)) {
                open(e.getDragboard().getFiles().getFirst().toPath(), window);
                e.setDropCompleted(true);
                e.consume();
            }
        });
    }

    private boolean dropped(DragEvent e) {
        return desk.building() && e.getDragboard().hasFiles() && Bundle.named(e.getDragboard().getFiles().getFirst()
                .toPath());
    }

    /** Looks at a bundle off the interface's thread, and shows what is in it. */
    public void open(Path file, Node by) {
        Rig mine = desk.bench().rig();
        Thread.ofPlatform().daemon().name("bundle").start(() -> {
            try {
                Bundle bundle = Bundle.read(file);
                Matching matching = new Matching(bundle.rig(), mine);
                List<Matched> gear = matched(bundle, matching);
                List<Ask> asks = Asks.of(bundle.rig(), List.of());
                Platform.runLater(() -> show(by, bundle, matching, gear, asks));
            } catch (BadFile e) {
                Platform.runLater(() -> notices.accept(String.valueOf(e.getMessage())));
            }
        });
    }

    private List<Matched> matched(Bundle bundle, Matching matching) {
        Map<String, Matching.Choice> proposed = matching.proposed();
        List<Matched> all = new ArrayList<>();
        for (Gear g : bundle.rig().board().gear()) {
            List<Way> ways = new ArrayList<>(matching.of(g.id()).stream().map(c -> new Way("Use my “" + c.gear().name()
                    + "”", new Matching.Choice.Mine(c.gear().id()), c.lost())).toList());
            ways.add(new Way("Add as new gear", new Matching.Choice.New(), List.of()));
            if (practice.has(g.card())) {
                ways.add(new Way("Stand-in for now", new Matching.Choice.StandIn(""), List.of()));
            }
            all.add(new Matched(g, ways, ways.stream().filter(w -> w.choice().equals(proposed.get(g.id()))).findFirst()
                    .orElse(ways.getFirst())));
        }
        return all;
    }

    private void show(Node by, Bundle bundle, Matching matching, List<Matched> gear, List<Ask> asks) {
        Map<String, Matching.Choice> choices = new LinkedHashMap<>();
        gear.forEach(m -> choices.put(m.gear().id(), m.proposed().choice()));
        VBox match = new VBox(Space.S8, Styles.label(gear.isEmpty() ? "It has no gear" : "Its gear, and yours",
                "gear-name"), gear(bundle, gear, choices));
        match.setPrefWidth(MATCH_WIDTH);
        match.setMinWidth(MATCH_WIDTH);
        ScrollPane asked = BoardLooks.asks(asks);
        VBox about = new VBox(Space.S8, Styles.label("What it asks for", "gear-name"), asked);
        HBox.setHgrow(about, Priority.ALWAYS);
        HBox middle = new HBox(Space.S16, BoardLooks.pages(bundle.rig().board()), match, about);
        VBox.setVgrow(middle, Priority.ALWAYS);
        TextField folder = Fields.text("unpack-folder", fresh(bundle).toString(), _ -> {
        });
        folder.setMinWidth(MATCH_WIDTH);
        Label trouble = Styles.label("", "trouble");
        trouble.setWrapText(true);
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        Button unpack = Fields.plain("Unpack and open", "");
        unpack.setId("unpack");
        unpack.setOnAction(_ -> unpack(bundle, matching, choices, Path.of(folder.getText().strip()), trouble));
        Button cancel = Fields.plain("Cancel", "Esc");
        cancel.setId("unpack-cancel");
        cancel.setOnAction(_ -> desk.overlay().close());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox foot = new HBox(Space.S8, new Label("Folder"), folder, gap, unpack, cancel);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S10, Styles.label("“%s”, from %s".formatted(bundle.manifest().name(), bundle.file()
                .getFileName()), "gear-name"), Fields.read(files(bundle)), middle, trouble, foot);
        box.setPrefSize(WIDTH, HEIGHT);
        box.setId("bundle");
        desk.overlay().show(box, by, by::requestFocus);
        cancel.requestFocus();
    }

    private static String files(Bundle bundle) {
        long sounds = bundle.manifest().files().stream().filter(f -> !f.file().endsWith(".json")).count();
        long cards = bundle.manifest().files().stream().filter(f -> f.file().startsWith("cards/")).count();
        String missing = bundle.missing().isEmpty() ? "" : " Missing: " + String.join(", ", bundle.missing()) + ".";
        return "Nothing has been unpacked, connected or run yet. %d files, %d kB: the board, %d cards, %d sounds.%s"
                .formatted(bundle.manifest().files().size(), bundle.bytes() / 1000, cards, sounds, missing);
    }

    private static ScrollPane gear(Bundle bundle, List<Matched> gear, Map<String, Matching.Choice> choices) {
        GridPane grid = new GridPane(Space.S10, Space.S8);
        ColumnConstraints name = new ColumnConstraints(150);
        ColumnConstraints way = new ColumnConstraints(300);
        grid.getColumnConstraints().setAll(name, way);
        int line = 0;
        for (Matched m : gear) {
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
            String card = Objects.requireNonNull(bundle.rig().cards().get(m.gear().card())).title();
            Label kind = Fields.help(card.equals(m.gear().name())
                    ? m.gear().link().protocol().title()
                    : card + ", " + m.gear().link().protocol().title());
            grid.addRow(line++, new VBox(title, kind), new VBox(Space.S2, choice, lost));
        }
        ScrollPane scroll = new ScrollPane(grid);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setPrefHeight(GEAR_HEIGHT);
        scroll.getStyleClass().add("popover-scroll");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        return scroll;
    }

    private static void tell(Label lost, Way way) {
        List<String> all = way.lost();
        List<String> buttons = all.stream().map(l -> l.replaceFirst("(?s)^(“[^”]*”): .*", "$1"))
                .filter(l -> l.startsWith(
                        "“"))
                .distinct().toList();
        lost.setText(all.isEmpty()
                ? ""
                : "No counterpart for %d of its uses%s%s%s".formatted(all.size(), buttons.isEmpty() ? "" : ", in ",
                        String
                                .join(", ", buttons.subList(0, Math.min(MOST_BUTTONS, buttons.size()))),
                        buttons
                                .size() > MOST_BUTTONS ? " and " + (buttons.size() - MOST_BUTTONS) + " more" : ""));
        lost.setTooltip(all.isEmpty()
                ? null
                : new Tooltip(String.join("\n", all.subList(0, Math.min(MOST_LINES, all.size())))));
    }

    /** A folder that is not there yet. */
    private static Path fresh(Bundle bundle) {
        Path home = Path.of(System.getProperty("user.home"), "Rombix");
        String name = bundle.manifest().board().replaceFirst("\\.json$", "");
        return home.resolve(Edits.freshId(name, "board", id -> Files.exists(home.resolve(id))));
    }

    private void unpack(Bundle bundle, Matching matching, Map<String, Matching.Choice> choices, Path folder,
            Label trouble) {
        Map<String, Matching.Choice> chosen = new LinkedHashMap<>(choices);
        Thread.ofPlatform().daemon().name("unpacking").start(() -> {
            try {
                for (Map.Entry<String, Matching.Choice> e : chosen.entrySet()) {
                    if (e.getValue() instanceof Matching.Choice.StandIn) {
                        e.setValue(new Matching.Choice.StandIn(practice.standIn(bundle.rig().board().gear(e.getKey())
                                .orElseThrow().card())));
                    }
                }
                Path board = bundle.unpack(folder, matching.applied(chosen).rig());
                Platform.runLater(() -> {
                    desk.overlay().close();
                    open.accept(board);
                });
            } catch (IOException e) {
                Platform.runLater(() -> trouble.setText(String.valueOf(e.getMessage())));
            }
        });
    }
}
