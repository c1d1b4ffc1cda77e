package rombix.app.view.sheet;

import java.io.IOException;
import java.net.InetAddress;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.web.BrowserPages;
import rombix.web.WebServer;
import rombix.web.access.Access;
import rombix.web.http.Presence;

/** Pages in a browser: on or off, at which address, and who was let in and may do what. */
public final class DevicesView {
    private static final double WIDTH = 1120;
    private static final double HEIGHT = 600;
    private static final double SIDE = 330;
    private static final double FINGERPRINT = 300;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("d MMM HH:mm");

    /** An address to show pages at; none is off. */
    private record Where(@Nullable InetAddress at, String words) {
    }

    private final Desk desk;
    private final BrowserPages pages;
    private final TableView<Access> table = new TableView<>();
    private final VBox side = new VBox(Space.S10);
    private final HBox address = new HBox(Space.S22);
    private final Label trouble = Fields.read("");
    private final LetIn letIn;
    private boolean open;
    private boolean filling;

    public DevicesView(Desk desk, BrowserPages pages) {
        this.desk = desk;
        this.pages = pages;
        letIn = new LetIn(desk, pages);
        table.setId("devices");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_NEXT_COLUMN);
        table.setPlaceholder(Fields.read("No device was let in yet."));
        table.getColumns().setAll(List.of(Fields.<Access>column("Name", 180, Access::name),
                Fields.<Access>column("Type", 80, a -> kind(a.kind())),
                Fields.<Access>column("Pages", 150, this::pagesOf), Fields.<Access>column("Allowed to", 170,
                        DevicesView::rights),
                Fields.<Access>column("Last active", 130, this::active)));
        table.getSelectionModel().selectedItemProperty().addListener((_, _, now) -> {
            if (!filling) {
                fill(now);
            }
        });
        trouble.getStyleClass().add("trouble");
        side.setPrefWidth(SIDE);
        side.setMinWidth(SIDE);
        side.setId("device-form");
        pages.watch(() -> Platform.runLater(() -> {
            if (open) {
                refresh();
            }
        }));
    }

    private static String kind(Access.Kind of) {
        return switch (of) {
            case DEVICE -> "device";
            case PROGRAM -> "program";
            case HOOK -> "trigger";
        };
    }

    private String pagesOf(Access of) {
        return of.pages().isEmpty()
                ? "all"
                : String.join(", ", desk.bench().board().pages().stream().filter(p -> of.pages().contains(p.id())).map(
                        p -> p.name()).toList());
    }

    private static String rights(Access of) {
        return of.kind() == Access.Kind.HOOK
                ? "pull its trigger"
                : of.rights().isEmpty()
                        ? "watch"
                        : String.join(", ", of.rights().stream().sorted().map(r -> r.words()).toList());
    }

    private String active(Access of) {
        Presence.Seen seen = pages.server().map(s -> s.presence().of(of.id())).orElse(null);
        if (seen != null && seen.connections() > 0) {
            return "connected";
        }
        return seen == null || seen.lastMillis() == 0
                ? "—"
                : TIME.format(Instant.ofEpochMilli(seen.lastMillis()).atZone(ZoneId.systemDefault()));
    }

    /** Opens it. */
    public void open(Node by) {
        open = true;
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox top = new HBox(Space.S10, Styles.label("Pages in a browser", "gear-name"), gap, Fields.named("Show pages",
                where()));
        top.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(table, Priority.ALWAYS);
        ScrollPane scroll = new ScrollPane(side);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("popover-scroll");
        scroll.setMinWidth(SIDE + 16);
        scroll.setMinHeight(0);
        HBox middle = new HBox(Space.S14, table, scroll);
        middle.setMinHeight(0);
        VBox.setVgrow(middle, Priority.ALWAYS);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button add = Fields.plain("Let a device in", "");
        add.setId("let-in");
        add.setOnAction(_ -> {
            table.getSelectionModel().clearSelection();
            side.getChildren().setAll(letIn.device());
        });
        Button program = Fields.plain("Add a program", "");
        program.setId("add-program");
        program.setOnAction(_ -> {
            table.getSelectionModel().clearSelection();
            side.getChildren().setAll(letIn.program());
        });
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8, add, program, trouble, space, close);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S10, top, address, middle, foot);
        box.setId("devices-view");
        box.setPrefSize(WIDTH, HEIGHT);
        refresh();
        add.disableProperty().bind(address.visibleProperty().not());
        program.disableProperty().bind(address.visibleProperty().not());
        if (pages.server().isPresent()) {
            side.getChildren().setAll(letIn.device());
        } else {
            fill(null);
        }
        desk.overlay().show(box, by, () -> {
            open = false;
            letIn.closed();
        });
    }

    private ComboBox<Where> where() {
        List<Where> all = new ArrayList<>(List.of(new Where(null, "Off"), new Where(InetAddress.getLoopbackAddress(),
                "On this computer only")));
        WebServer.networks().forEach(a -> all.add(new Where(a, "In the network, at " + a.getHostAddress().replaceFirst(
                "%.*", ""))));
        Optional<InetAddress> now = pages.server().map(WebServer::at);
        Where chosen = all.stream().filter(w -> Objects.equals(w.at(), now.orElse(null))).findFirst().orElse(all
                .getFirst());
        return Fields.choice("show-pages", all, chosen, Where::words, this::turn);
    }

    /** It asks the system and may take a moment. */
    private void turn(Where to) {
        trouble.setText("");
        Thread.ofVirtual().start(() -> {
            String wrong = "";
            try {
                if (to.at() == null) {
                    pages.off();
                } else {
                    pages.on(to.at());
                }
            } catch (IOException e) {
                wrong = String.valueOf(e.getMessage());
            }
            String words = wrong;
            Platform.runLater(() -> {
                trouble.setText(words);
                refresh();
                if (pages.server().isPresent()) {
                    side.getChildren().setAll(letIn.device());
                } else {
                    fill(null);
                }
            });
        });
    }

    private void refresh() {
        Optional<WebServer> server = pages.server();
        address.setVisible(server.isPresent());
        address.setManaged(server.isPresent());
        server.ifPresent(s -> {
            TextField at = copied("web-address", s.address());
            address.getChildren().setAll(Fields.named("Address", Fields.wide(at, FINGERPRINT)));
            s.fingerprint().ifPresent(f -> {
                TextField print = copied("web-fingerprint", f);
                HBox.setHgrow(print, Priority.ALWAYS);
                VBox named = Fields.named("Certificate fingerprint (SHA-256): compare it with what the browser shows",
                        print);
                HBox.setHgrow(named, Priority.ALWAYS);
                address.getChildren().add(named);
            });
        });
        filling = true;
        Access before = table.getSelectionModel().getSelectedItem();
        table.getItems().setAll(pages.access().all());
        table.getItems().stream().filter(a -> before != null && a.id().equals(before.id())).findFirst().ifPresent(
                a -> table.getSelectionModel().select(a));
        filling = false;
        if (before != null && table.getSelectionModel().getSelectedItem() == null) {
            fill(null);
        }
        letIn.joined();
    }

    private static TextField copied(String id, String text) {
        TextField field = new TextField(text);
        field.setId(id);
        field.setEditable(false);
        return field;
    }

    private void fill(@Nullable Access access) {
        letIn.closed();
        if (access == null) {
            Label help = Fields.read(pages.server().isPresent()
                    ? "Select a device to change what it may do."
                    : "Phones, tablets and other computers can show the pages of this board and press its buttons. Choose where to show them.");
            help.setWrapText(true);
            side.getChildren().setAll(help);
            return;
        }
        side.getChildren().setAll(new DeviceForm(desk, access, this::change, () -> remove(access)).parts());
    }

    private void change(Access to) {
        attempt(() -> pages.access().change(to));
    }

    private void remove(Access access) {
        attempt(() -> pages.access().remove(access.id()));
    }

    private interface Write {
        void run() throws IOException;
    }

    private void attempt(Write what) {
        try {
            what.run();
            trouble.setText("");
        } catch (IOException e) {
            trouble.setText("The list of devices can't be saved: " + e.getMessage());
        }
    }
}
