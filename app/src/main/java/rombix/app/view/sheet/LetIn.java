package rombix.app.view.sheet;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.MessageTrigger;
import rombix.running.RunningDeck;
import rombix.web.BrowserPages;
import rombix.web.WebServer;
import rombix.web.access.Access;
import rombix.web.access.Invitations.Invitation;
import rombix.web.access.QrCode;
import rombix.web.access.Right;

/** Lets a device in by a code, or gives a program a token. */
final class LetIn {
    private static final int MODULE = 5;

    private final Desk desk;
    private final BrowserPages pages;
    private final VBox code = new VBox(Space.S8);
    private final Timeline timer = new Timeline(new KeyFrame(Duration.seconds(1), _ -> second()));
    private final Label left = Fields.read("");
    private Set<Right> rights = Set.of(Right.PRESS, Right.STOP_ALL);
    private Set<String> allowed = Set.of();
    private Set<Right> programRights = Set.of(Right.PRESS);
    private @Nullable Invitation shown;

    LetIn(Desk desk, BrowserPages pages) {
        this.desk = desk;
        this.pages = pages;
        timer.setCycleCount(Timeline.INDEFINITE);
    }

    /** The parts by which a device is let in: what it may do, and then its code. */
    List<Node> device() {
        invite();
        return List.of(Fields.heading("Let a device in"), code, DeviceForm.rights(Access.Kind.DEVICE, rights, r -> {
            rights = r;
            invite();
        }), DeviceForm.pages(desk, allowed, p -> {
            allowed = p;
            invite();
        }));
    }

    private void invite() {
        WebServer server = pages.server().orElse(null);
        if (server == null) {
            return;
        }
        Invitation made = server.invitations().open(allowed, rights);
        shown = made;
        ImageView picture = new ImageView(picture(QrCode.of(WebServer.withCode(server.address(), made))));
        picture.setId("invitation-picture");
        picture.setAccessibleText("QR code of the address with the code");
        Label letters = Styles.label(made.code().substring(0, 3) + " " + made.code().substring(3), "invitation-code");
        letters.setId("invitation-code");
        code.getChildren().setAll(picture, letters, left);
        second();
        timer.play();
    }

    private static WritableImage picture(QrCode code) {
        int edge = (code.size() + 2 * QrCode.QUIET) * MODULE;
        WritableImage image = new WritableImage(edge, edge);
        for (int y = 0; y < edge; y++) {
            for (int x = 0; x < edge; x++) {
                int row = y / MODULE - QrCode.QUIET;
                int column = x / MODULE - QrCode.QUIET;
                boolean dark = row >= 0 && column >= 0 && row < code.size() && column < code.size()
                        && code.dark()[row][column];
                image.getPixelWriter().setColor(x, y, dark ? Color.BLACK : Color.WHITE);
            }
        }
        return image;
    }

    private void second() {
        Invitation now = shown;
        long seconds = now == null ? 0 : (now.untilNanos() - RunningDeck.CLOCK.nanos()) / 1_000_000_000L;
        if (seconds > 0) {
            left.setText("For one device, valid for %d:%02d".formatted(seconds / 60, seconds % 60));
        } else if (now != null) {
            expired("The code has run out.");
        }
    }

    private void expired(String why) {
        shown = null;
        timer.stop();
        Button again = Fields.plain("New code", "");
        again.setId("invitation-again");
        again.setOnAction(_ -> invite());
        code.getChildren().setAll(Fields.read(why), again);
    }

    /** Somebody may have come in with the code. */
    void joined() {
        if (shown != null && pages.server().map(s -> s.invitations().current().isEmpty()).orElse(true)) {
            expired("A device was let in.");
        }
    }

    /** The code is no longer shown, and so no longer good. */
    void closed() {
        timer.stop();
        if (shown != null) {
            pages.server().ifPresent(s -> s.invitations().withdraw());
            shown = null;
        }
    }

    /** The parts by which a program gets a token. */
    List<Node> program() {
        closed();
        TextField name = Fields.text("program-name", "", _ -> {
        });
        List<String> hooks = desk.bench().board().buttons().flatMap(b -> b.triggers().stream()).filter(
                MessageTrigger.Http.class::isInstance).map(t -> ((MessageTrigger.Http) t).name()).distinct().toList();
        VBox named = Fields.named("Name", name);
        VBox rights = DeviceForm.rights(Access.Kind.PROGRAM, programRights, r -> programRights = r);
        List<String> uses = new ArrayList<>(List.of(""));
        uses.addAll(hooks);
        ComboBox<String> use = Fields.choice("program-use", uses, "", h -> h.isEmpty()
                ? "Call the interface for programs"
                : "Pull the trigger /hook/" + h, h -> {
                    named.setVisible(h.isEmpty());
                    named.setManaged(h.isEmpty());
                    rights.setVisible(h.isEmpty());
                    rights.setManaged(h.isEmpty());
                });
        VBox token = new VBox(Space.S6);
        Button add = Fields.plain("Make a token", "");
        add.setId("program-token");
        add.setOnAction(_ -> {
            try {
                boolean hook = !use.getValue().isEmpty();
                TextField made = new TextField(pages.access().add(hook ? use.getValue() : name.getText(), hook
                        ? Access.Kind.HOOK
                        : Access.Kind.PROGRAM, Set.of(), hook ? Set.of() : programRights,
                        RunningDeck.CLOCK.wall()
                                .toInstant().toEpochMilli()));
                made.setEditable(false);
                made.setId("token");
                Label help = Fields.read("Copy it now: it is not shown again.");
                token.getChildren().setAll(Fields.named("Token", made), help);
            } catch (IOException | IllegalArgumentException e) {
                token.getChildren().setAll(Styles.label(String.valueOf(e.getMessage()), "trouble"));
            }
        });
        return List.of(Fields.heading("Add a program"), Fields.named("Use", use), named, rights, add, token);
    }
}
