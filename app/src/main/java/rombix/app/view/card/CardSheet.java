package rombix.app.view.card;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.app.view.gear.Discovery;
import rombix.app.view.gear.GearAddress;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.core.edit.GearEdits;
import rombix.core.event.Status;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.running.Player;

/**
 * The card of a gear in the making: where it is, what it says when it is worked by hand, what it answers when something
 * is sent to it, and all that the card has by now. Whatever is made works at once and can be undone. The interface's
 * thread's.
 */
@OwnedBy(Owner.INTERFACE)
public final class CardSheet {
    private static final double WIDTH = 1160;
    private static final double HEIGHT = 660;
    private static final double NAME_WIDTH = 190;
    private static final double KIND_WIDTH = 150;
    private static final double ADDRESS_WIDTH = 230;
    private static final double PORT_WIDTH = 110;
    /** What is set beside the address where a gear is to be heard. */
    private static final List<String> EARS = List.of("receive", "listen");

    private final Desk desk;
    private final Player player;
    private final CardEdits edits;
    private final Discovery discovery;
    private final Label status = Styles.label("", "read", "quiet");
    private final HBox head = new HBox(Space.S8);
    private final StackPane middle = new StackPane();
    private final ListenTab listen;
    private final TryTab attempt;
    private final LoginTab login;
    private final RowsTab rows;
    private final ToggleGroup tabs = new ToggleGroup();
    private final Timeline timer = new Timeline(new KeyFrame(Duration.millis(250), _ -> tick()));
    private Consumer<String> toTraffic = _ -> {
    };
    private final StackPane others = new StackPane();
    private String gear = "";
    private @Nullable Node anchor;
    private boolean open;

    /** @param discovery where gear was found */
    public CardSheet(Desk desk, Player player, Discovery discovery) {
        this.desk = desk;
        this.player = player;
        this.discovery = discovery;
        this.edits = new CardEdits(desk.bench());
        this.listen = new ListenTab(player::traffic, edits);
        this.attempt = new TryTab(player, edits);
        this.login = new LoginTab(player, edits);
        this.rows = new RowsTab(desk, edits);
        head.setAlignment(Pos.BOTTOM_LEFT);
        timer.setCycleCount(Timeline.INDEFINITE);
        desk.bench().watchWhile(() -> {
            if (open) {
                refresh();
            }
        }, () -> true);
    }

    /** @param shown shows the packets of a gear, by its id */
    public void whenTraffic(Consumer<String> shown) {
        toTraffic = shown;
    }

    /** Opens it on gear that is added for it. */
    public void add(Node by) {
        open(by, edits.add());
    }

    /** Opens it on the card of a gear. */
    public void open(Node by, String of) {
        desk.overlay().close();
        gear = of;
        anchor = by;
        open = true;
        player.overhear(gear, true);
        listen.begin(gear);
        attempt.begin(gear);
        login.begin(gear);
        ToggleButton first = tab("Listen", "operate the device and name what changes", listen.node());
        ToggleButton second = tab("Try", "send a command and see the reply", attempt.node());
        ToggleButton third = tab("Login", "the messages exchanged after connecting", login.node());
        ToggleButton fourth = tab("The card", "all readings and commands", rows.node());
        tabs.selectToggle(first);
        middle.getChildren().setAll(listen.node());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button packets = Fields.plain("Traffic…", "");
        packets.setId("card-traffic");
        packets.setOnAction(_ -> toTraffic.accept(gear));
        Button close = Fields.plain("Close", "Esc");
        close.setId("card-close");
        close.setOnAction(_ -> desk.overlay().close());
        HBox choice = new HBox(Space.S6, first, second, third, fourth, space, Fields.read("Card"), others, packets,
                close);
        choice.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(middle, Priority.ALWAYS);
        VBox box = new VBox(Space.S10, head, choice, middle);
        box.setId("card-sheet");
        box.setPrefSize(WIDTH, HEIGHT);
        refresh();
        timer.play();
        desk.overlay().show(box, by, () -> {
            open = false;
            timer.stop();
            player.overhear(gear, false);
        });
    }

    /** The card that describes it, and those that could instead. */
    private Node others(Gear g, Card now) {
        List<Card> all = desk.bench().rig().cards().values().stream()
                .filter(c -> c.equals(now) || c.protocols().stream()
                        .anyMatch(p -> p.descriptor().reach() != Reach.HERE))
                .toList();
        var choice = Fields.choice("card-other", all, now, Card::title, card -> {
            if (!card.id().equals(now.id())) {
                exchange(g, card);
            }
        });
        choice.setAccessibleText("Card for " + g.name());
        wide(choice, KIND_WIDTH);
        return choice;
    }

    /** Takes another card for the gear; what of the board does not fit it is said first. */
    private void exchange(Gear g, Card card) {
        Node over = anchor;
        if (over != null) {
            Confirm.ask(desk, over, "Use another card for “" + g.name() + "”: “" + card.title() + "”?",
                    edits.lost(g.id(),
                            card),
                    "Use the card", () -> {
                        edits.exchange(g.id(), card);
                        open(over, g.id());
                    });
        }
    }

    private ToggleButton tab(String text, String what, Node content) {
        ToggleButton tab = new ToggleButton(text);
        tab.getStyleClass().setAll("toggle-button", "tab");
        tab.setId("card-" + text.toLowerCase(Locale.ROOT).replace(' ', '-'));
        tab.setAccessibleText(text + ": " + what);
        tab.setMinWidth(Region.USE_PREF_SIZE);
        tab.setToggleGroup(tabs);
        tab.setOnAction(_ -> {
            tab.setSelected(true);
            middle.getChildren().setAll(content);
        });
        return tab;
    }

    private void tick() {
        Status now = desk.model().state().status(gear);
        status.setText(now.words() + (now.hint().isBlank() ? "" : ". " + now.hint()));
        Styles.set(status, "label", "read", now.well() ? "quiet" : "trouble");
        listen.look();
        attempt.look();
        login.look();
    }

    /** Shows the gear and its card as they are now. */
    private void refresh() {
        Gear g = desk.bench().board().gear(gear).orElse(null);
        Twin twin = desk.bench().rig().twin(gear).orElse(null);
        if (g == null || twin == null) {
            desk.overlay().close(); // It was undone.
            return;
        }
        player.overhear(gear, true);
        Node hand = head.getScene() == null ? null : head.getScene().getFocusOwner();
        String under = hand == null ? null : hand.getId();
        TextField name = Fields.text("card-name", g.name(), text -> edits.name(gear, text));
        wide(name, NAME_WIDTH);
        List<Protocol> all = Protocol.all().stream().filter(CardEdits::ownable).toList();
        var protocol = Fields.choice("card-protocol", all, g.link().protocol(), Protocol::title, p -> desk.bench().edit(
                "reach “" + g.name() + "” over " + p.title(), b -> GearEdits.reached(b, gear, p, p.descriptor()
                        .presetAddress())));
        wide(protocol, KIND_WIDTH);
        Node address = GearAddress.of(g, discovery, (words, edit) -> desk.bench().edit(words, edit));
        wide(address, ADDRESS_WIDTH);
        status.setWrapText(true);
        status.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(status, Priority.ALWAYS);
        VBox where = Fields.named("Status", status);
        HBox.setHgrow(where, Priority.ALWAYS);
        head.getChildren().setAll(Fields.named("Gear", name), Fields.named("Protocol", protocol), Fields.named(
                "Address", address));
        twin.settings().stream().filter(s -> EARS.contains(s.id())).forEach(s -> head.getChildren().add(ear(g, s)));
        head.getChildren().add(where);
        if (under != null && head.lookup("#" + under) instanceof Node field) {
            field.requestFocus(); // The hand stays where it was.
        }
        others.getChildren().setAll(others(g, twin.card()));
        listen.card(g, twin);
        attempt.card(g, twin);
        login.card(g, twin);
        rows.card(g, twin);
        tick();
    }

    /** Whatever the status says, the fields stay where they are. */
    private static void wide(Node node, double width) {
        if (node instanceof Region region) {
            Fields.wide(region, width);
        }
    }

    /** The port at which it is heard. */
    private Node ear(Gear g, Setting setting) {
        Value now = g.link().settings().getOrDefault(setting.id(), setting.preset());
        TextField port = Fields.text("card-" + setting.id(), now == null ? "" : now.toString(), text -> {
            double number = Fields.parsed(text, Double.NaN);
            desk.bench().edit("receive “" + g.name() + "” at port " + text,
                    b -> GearEdits.change(b, gear, x -> x.withLink(x
                            .link().withSetting(setting.id(), Double.isNaN(number) ? null : Value.of(number)))));
        });
        wide(port, PORT_WIDTH);
        return Fields.named(setting.label(), port);
    }
}
