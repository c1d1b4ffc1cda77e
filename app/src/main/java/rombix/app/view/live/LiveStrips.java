package rombix.app.view.live;

import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.IndicatorRow;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.common.TimeLabel;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.StepPlaces;
import rombix.core.board.StepWords;
import rombix.core.event.Happening;
import rombix.core.twin.Figures;
import rombix.running.face.OnAir;
import rombix.running.state.DeckState;

/** The strips of Live: above the page what is on air and the time, below it what runs, what went wrong, and stop all. */
public final class LiveStrips {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");
    /** What a card takes of the strip, and what the message and the stop take at least. */
    private static final double CARD = 250;
    private static final double REST = 470;
    private static final double SMALL_CARD = 236;
    private static final double DOING_WIDTH = 150;
    private static final double SAID_SECONDS = 12;
    private static final long ABOUT_NANOS = 20_000_000_000L;

    private final Desk desk;
    private final Map<String, String> words = new HashMap<>();
    private @Nullable Board worded;
    private final OnAir onAir;
    private final HBox air = new HBox();
    private final TimeLabel first = new TimeLabel();
    private final HBox scenes = new HBox();
    private final TimeLabel clock = new TimeLabel();
    private final HBox running = new HBox();
    private final ScrollPane cards = new ScrollPane();
    private List<Node> shownCards = List.of();
    private final VBox message = new VBox(Space.S3);
    private final Label messageHead = new Label();
    private final Label messageText = new Label();
    private String about = "";
    private long aboutUntil = System.nanoTime();
    private DeckState.@Nullable Fault aboutFault;
    private final Button answer = Fields.plain("Answer", "");
    private final Button seen = Fields.plain("Dismiss", "Alt+M");
    /** What went wrong and was put away; a new fault is another one. */
    private final Set<DeckState.Fault> putAway = new HashSet<>();
    private final IndicatorRow lamps = new IndicatorRow(true);

    /**
     * @param openQuestion shows the question that waits
     * @param keyboard the switch for where keys go
     */
    public LiveStrips(Desk desk, Runnable openQuestion, Node keyboard) {
        this.desk = desk;
        onAir = new OnAir(desk.bench()::rig, desk.model()::state, desk.model()::now);
        air.getStyleClass().setAll("air-strip");
        scenes.getStyleClass().add("air-scenes");
        air.getChildren().addAll(first, scenes, lamps, keyboard, clock);
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
        stopAll.setAccessibleText("Stop all chains");
        stopAll.setFocusTraversable(false);
        stopAll.setMinWidth(Region.USE_PREF_SIZE);
        stopAll.setOnAction(_ -> desk.port().stopAll());
        messageHead.getStyleClass().add("message-head");
        messageText.getStyleClass().add("message");
        messageText.setWrapText(true);
        // A long one is set smaller rather than cut.
        messageText.textTruncatedProperty().addListener((_, _, cut) -> {
            if (cut && !messageText.getStyleClass().contains("long")) {
                messageText.getStyleClass().add("long");
            }
        });
        message.getChildren().addAll(messageHead, messageText);
        message.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        HBox.setHgrow(message, Priority.ALWAYS);
        message.setMinWidth(200);
        answer.setId("open-question");
        answer.setMinHeight(48);
        answer.setMinWidth(Region.USE_PREF_SIZE);
        answer.setOnAction(_ -> openQuestion.run());
        seen.setId("fault-seen");
        seen.setMinHeight(48);
        seen.setMinWidth(Region.USE_PREF_SIZE);
        seen.setFocusTraversable(false);
        seen.setAccessibleText("Dismiss the fault");
        seen.setOnAction(_ -> putAway());
        cards.setId("run-cards");
        cards.setFitToHeight(true);
        lay(false);
        cards.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        cards.getStyleClass().add("popover-scroll");
        HBox.setHgrow(lamps, Priority.ALWAYS);
        running.widthProperty().addListener((_, _, _) -> {
            shownCards = List.of(); // There is room for more or fewer.
            running();
        });
        running.getChildren().addAll(cards, message, answer, seen, stopAll);
        desk.model().watch(c -> {
            if (!desk.building()) {
                if (onAir.concerns(!c.whole().isEmpty(), c.readings())) {
                    air();
                }
                if (c.runs() || c.talk()) {
                    running();
                }
            }
        });
        desk.bench().watch(this::refresh);
        refresh();
    }

    /** Says for a while what stands in the way of the show that begins. */
    public void missing(String text) {
        about = text;
        aboutUntil = System.nanoTime() + ABOUT_NANOS;
        aboutFault = desk.model().state().lastFault().orElse(null); // What goes wrong from now on matters more.
        refresh();
    }

    /** Takes what went wrong off the message line; its button still shows it until it is pressed again. */
    public void putAway() {
        List<DeckState.Fault> now = desk.model().state().troubles();
        putAway.retainAll(now);
        putAway.addAll(now);
        about = "";
        refresh();
    }

    public HBox airStrip() {
        return air;
    }

    public HBox runStrip() {
        return running;
    }

    private void refresh() {
        if (!desk.building()) {
            air();
            running();
        }
    }

    /** Counts the clocks on. */
    public void tick() {
        if (!desk.building()) {
            air();
            message(desk.model().state().running());
        }
    }

    private void air() {
        List<OnAir.Indicator> indicators = onAir.indicators();
        Styles.set(air, indicators.stream().anyMatch(OnAir.Indicator::air)
                ? new String[]{"air-strip", "on"}
                : new String[]{"air-strip"});
        first.setVisible(!indicators.isEmpty());
        first.setManaged(!indicators.isEmpty());
        if (!indicators.isEmpty()) {
            IndicatorRow.on(first, indicators.getFirst());
        }
        List<String> chosen = onAir.chosen();
        while (scenes.getChildren().size() > chosen.size()) {
            scenes.getChildren().removeLast();
        }
        for (int i = 0; i < chosen.size(); i++) {
            if (i == scenes.getChildren().size()) {
                Label scene = Styles.label("", "air-scene");
                scene.setMinWidth(Region.USE_PREF_SIZE);
                scenes.getChildren().add(scene);
            }
            Styles.text((Label) scenes.getChildren().get(i), chosen.get(i));
        }
        lamps.show(indicators.stream().skip(1).toList());
        clock.show(LocalTime.now().format(TIME), "clock");
    }

    private void running() {
        List<DeckState.Running> runs = desk.model().state().running();
        boolean small = runs.size() > Math.max(1, (int) ((running.getWidth() - REST) / CARD));
        List<String> wanted = runs.stream().map(r -> small + " " + r.run()).toList();
        if (!wanted.equals(shownCards.stream().map(Node::getUserData).toList())) {
            shownCards = runs.stream().map(r -> small ? smallCard(r) : card(r)).toList();
            for (int i = 0; i < wanted.size(); i++) {
                shownCards.get(i).setUserData(wanted.get(i));
            }
            lay(small);
        }
        for (int i = 0; i < runs.size(); i++) {
            DeckState.Running run = runs.get(i);
            double gone = (desk.model().now() - run.startNanos()) / 1e9;
            if (shownCards.get(i).lookup(".run-left") instanceof Label left) {
                Styles.text(left, desk.model().state().asks(run.run())
                        ? "asks"
                        : run.expectedNanos() / 1e9 > gone ? Figures.left(run.expectedNanos() / 1e9 - gone) : "runs");
            }
            if (shownCards.get(i).lookup(".run-doing") instanceof Label doing) {
                Styles.text(doing, doing(run));
            }
        }
        message(runs);
    }

    /** Side by side as long as there is room; else two above each other, and then to be scrolled. */
    private void lay(boolean small) {
        GridPane grid = new GridPane(small ? 6 : 10, 4);
        for (int i = 0; i < shownCards.size(); i++) {
            grid.add(shownCards.get(i), small ? i / 2 : i, small ? i % 2 : 0);
        }
        int columns = small ? (shownCards.size() + 1) / 2 : shownCards.size();
        double width = small ? columns * (SMALL_CARD + 6) + 2 : columns * CARD;
        double room = Math.max(CARD, running.getWidth() - REST);
        cards.setContent(grid);
        cards.setHbarPolicy(width > room ? ScrollPane.ScrollBarPolicy.ALWAYS : ScrollPane.ScrollBarPolicy.NEVER);
        cards.setMinWidth(Math.min(width, room));
        cards.setPrefWidth(Math.min(width, room));
        cards.setVisible(!shownCards.isEmpty());
        cards.setManaged(!shownCards.isEmpty());
    }

    /** What matters most now: a question that waits, a message, a press that waits for more, a fault. */
    private void message(List<DeckState.Running> runs) {
        Happening.Asked ask = desk.model().state().questions().isEmpty()
                ? null
                : desk.model().state().questions().getFirst();
        Happening.Said said = desk.model().state().lastMessage(SAID_SECONDS, desk.model().now());
        DeckState.Fault fault = desk.model().state().troubles().reversed().stream().filter(f -> !putAway.contains(f))
                .findFirst()
                .orElse(null);
        boolean missing = System.nanoTime() < aboutUntil && Objects.equals(desk.model().state().lastFault(), aboutFault)
                && !about
                        .isEmpty();
        boolean shown = ask == null && said == null && guarding() == null && (missing || fault != null);
        seen.setVisible(shown);
        seen.setManaged(shown);
        answer.setVisible(ask != null);
        answer.setManaged(ask != null);
        if (ask != null) {
            tell(name(ask.button()) + " asks", ask.text(), "talk");
        } else if (said != null) {
            tell(name(said.button()), said.text(), "talk");
        } else if (guarding() != null) {
            tell(name(guarding()),
                    desk.model().state().guarding(String.valueOf(guarding())) instanceof DeckState.Guarding g && g
                            .hold() ? "Keep holding to fire." : "Press again to fire.",
                    "talk");
        } else if (missing) {
            tell("Live, with problems", about, "");
        } else if (fault != null) {
            tell(name(fault.button()), fault.message(), "");
        } else {
            tell("", runs.isEmpty() ? "Nothing is running." : "", "");
        }
    }

    private @Nullable String guarding() {
        return desk.bench().board().buttons().map(b -> b.id()).filter(id -> desk.model().state().guarding(id) != null)
                .findFirst().orElse(null);
    }

    private void tell(String head, String text, String style) {
        Styles.text(messageHead, head);
        messageHead.setManaged(!head.isEmpty());
        if (!text.equals(messageText.getText())) {
            messageText.getStyleClass().remove("long");
            messageText.setText(text);
        }
        Styles.set(messageHead, style.isEmpty()
                ? new String[]{"label", "message-head"}
                : new String[]{"label", "message-head", style});
    }

    private String name(@Nullable String button) {
        return button == null ? "" : desk.bench().rig().button(button).map(b -> b.name()).orElse(button);
    }

    /** What a chain is at, in words. */
    private String doing(DeckState.Running run) {
        String place = run.step();
        Board board = desk.bench().board();
        if (board != worded) {
            worded = board;
            words.clear();
        }
        return place.isEmpty()
                ? ""
                : words.computeIfAbsent(run.button() + " " + place,
                        _ -> StepPlaces.step(desk.bench().rig(), run.button(),
                                place).map(new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g))::of)
                                .orElse(""));
    }

    private Button stop(DeckState.Running run) {
        Button stop = Fields.plain("STOP", "");
        stop.setAccessibleText("Stop " + name(run.button()));
        stop.setFocusTraversable(false);
        stop.setMinHeight(48);
        stop.setMinWidth(Region.USE_PREF_SIZE);
        stop.setId("stop-run-" + run.button());
        stop.setOnAction(_ -> desk.port().stop(run.run()));
        return stop;
    }

    private Node card(DeckState.Running run) {
        Label left = Styles.label("", "run-left");
        left.setMinWidth(Region.USE_PREF_SIZE);
        Label doing = Styles.label("", "run-doing");
        doing.setMaxWidth(DOING_WIDTH);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        VBox card = new VBox(
                new HBox(Space.S8, new VBox(Styles.label(name(run.button()), "run-name"), left, doing), space, stop(
                        run)));
        card.getStyleClass().add("run-card");
        return card;
    }

    /** Its name, the time left and its stop in one line. */
    private Node smallCard(DeckState.Running run) {
        Label name = Styles.label(name(run.button()), "run-name");
        Label left = Styles.label("", "run-left");
        left.setMinWidth(Region.USE_PREF_SIZE);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox card = new HBox(Space.S8, name, space, left, stop(run));
        card.getStyleClass().addAll("run-card", "small-run");
        card.setMinWidth(SMALL_CARD);
        card.setMaxWidth(SMALL_CARD);
        return card;
    }
}
