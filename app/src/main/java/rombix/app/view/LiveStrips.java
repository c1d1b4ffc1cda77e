package rombix.app.view;

import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.core.card.Twin;
import rombix.core.engine.Event;
import rombix.core.value.Kind;
import rombix.core.value.Value;

/** The strips of Live: above the page what is on air and the time, below it what runs, what went wrong, and stop all. */
final class LiveStrips {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");
    private static final int MOST_CARDS = 3;

    private final Desk desk;
    private final HBox air = new HBox();
    private final HBox running = new HBox();
    private final HBox cards = new HBox(10);
    private final VBox message = new VBox(3);
    private final Label messageHead = new Label();
    private final Label messageText = new Label();

    LiveStrips(Desk desk) {
        this.desk = desk;
        air.getStyleClass().add("air-strip");
        running.getStyleClass().add("run-strip");
        Label word = new Label("STOP ALL");
        word.getStyleClass().add("stop-word");
        Label key = new Label("Ctrl + .");
        key.getStyleClass().add("stop-key");
        VBox words = new VBox(word, key);
        words.setAlignment(javafx.geometry.Pos.CENTER);
        Button stopAll = new Button();
        stopAll.setGraphic(words);
        stopAll.getStyleClass().add("stop-all");
        stopAll.setId("live-stop-all");
        stopAll.setAccessibleText("Stop every chain that runs");
        stopAll.setFocusTraversable(false);
        stopAll.setMinWidth(Region.USE_PREF_SIZE);
        stopAll.setOnAction(_ -> desk.post().accept(new Event.StopAll()));
        messageHead.getStyleClass().add("message-head");
        messageText.getStyleClass().add("message");
        messageText.setWrapText(true);
        message.getChildren().addAll(messageHead, messageText);
        message.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        HBox.setHgrow(message, Priority.ALWAYS);
        message.setMinWidth(200);
        running.getChildren().addAll(cards, message, stopAll);
        desk.model().watch(c -> {
            if (!desk.building()) {
                if (!c.gear().isEmpty()) {
                    air();
                }
                if (c.runs()) {
                    running();
                }
            }
        });
        desk.bench().watch(this::refresh);
        refresh();
    }

    HBox airStrip() {
        return air;
    }

    HBox runStrip() {
        return running;
    }

    private void refresh() {
        if (!desk.building()) {
            air();
            running();
        }
    }

    /** Counts the clocks on. */
    void tick() {
        if (!desk.building()) {
            air();
        }
    }

    private void air() {
        List<Label> lamps = Masthead.lamps(desk);
        boolean on = lamps.stream().anyMatch(l -> l.getStyleClass().contains("air"));
        air.getStyleClass().setAll(on ? List.of("air-strip", "on") : List.of("air-strip"));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label clock = new Label(LocalTime.now().format(TIME));
        clock.getStyleClass().add("clock");
        clock.setMinWidth(Region.USE_PREF_SIZE);
        air.getChildren().setAll(lamps);
        scenes().forEach(scene -> air.getChildren().add(Math.min(1, air.getChildren().size()), scene));
        air.getChildren().addAll(space, clock);
    }

    /** What is chosen where a card wants the choice always in sight: the scene on air. */
    private List<Label> scenes() {
        List<Label> all = new java.util.ArrayList<>();
        for (Twin twin : desk.bench().rig().twins().values()) {
            for (Twin.Known known : twin.readings(desk.model().readings(twin.gear()))) {
                Value v = desk.model().reading(twin.gear(), known.id());
                if (known.spec().lamp() && known.spec().type() == Kind.CHOICE && v != null) {
                    Label scene = new Label(twin.spoken(known, v, desk.model().readings(twin.gear())));
                    scene.getStyleClass().add("air-scene");
                    scene.setMinWidth(Region.USE_PREF_SIZE);
                    all.add(scene);
                }
            }
        }
        return all;
    }

    private void running() {
        cards.getChildren().clear();
        List<DeckModel.Running> runs = desk.model().runs();
        for (DeckModel.Running run : runs.subList(Math.max(0, runs.size() - MOST_CARDS), runs.size())) {
            cards.getChildren().add(card(run));
        }
        DeckModel.Fault fault = desk.model().lastFault();
        messageHead.setText(fault == null
                ? runs.size() > MOST_CARDS ? "and " + (runs.size() - MOST_CARDS) + " more run" : ""
                : desk.bench().board().button(fault.button()).map(b -> b.name()).orElse(fault.button()));
        messageText.setText(fault == null ? runs.isEmpty() ? "Nothing runs." : "" : fault.message());
    }

    private VBox card(DeckModel.Running run) {
        Label name = new Label(desk.bench().board().button(run.button()).map(b -> b.name()).orElse(run.button()));
        name.getStyleClass().add("run-name");
        double gone = (System.nanoTime() - run.startNanos()) / 1e9;
        Label left = new Label(run.expectedNanos() > 0 ? Shapes.left(run.expectedNanos() / 1e9 - gone) : "runs");
        left.getStyleClass().add("run-left");
        Button stop = FacePopover.plain("STOP", "");
        stop.setAccessibleText("Stop " + name.getText());
        stop.setFocusTraversable(false);
        stop.setMinHeight(48);
        stop.setOnMousePressed(_ -> desk.post().accept(new Event.StopRun(run.run())));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox top = new HBox(8, new VBox(name, left), space, stop);
        VBox card = new VBox(top);
        card.getStyleClass().add("run-card");
        return card;
    }
}
