package rombix.app.view.gear;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.security.GeneralSecurityException;
import java.security.cert.CertificateException;
import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Gear.Tls;
import rombix.core.edit.GearEdits;
import rombix.links.link.Pem;
import rombix.running.owner.Certificates;
import rombix.running.owner.Secrets;
import rombix.running.owner.Trust;

/** Who we are to a gear, and how the connection is kept from others. The secret itself never reaches the board. */
final class GearSecurity {
    private static final double FIELD_WIDTH = 150;

    private final BiConsumer<String, UnaryOperator<Board>> edit;
    private final Consumer<String> shown;
    private final Secrets secrets;
    private final Certificates certificates;

    /** What can be chosen of TLS. */
    private enum Way {
        NONE("Unencrypted", null), ROOTS("TLS, trusted authority", Tls.Trust.ROOTS), FIRST_SEEN(
                "TLS, first certificate seen", Tls.Trust.FIRST_SEEN), OWN("TLS, own certificate…",
                        Tls.Trust.OWN);

        private final String words;
        private final Tls.@Nullable Trust trust;

        Way(String words, Tls.@Nullable Trust trust) {
            this.words = words;
            this.trust = trust;
        }

        static Way of(@Nullable Tls tls) {
            return tls == null ? NONE : valueOf(tls.trust().name());
        }
    }

    /** @param shown shows all anew, with the hand on what has this id */
    GearSecurity(BiConsumer<String, UnaryOperator<Board>> edit, Consumer<String> shown, Secrets secrets,
            Certificates certificates) {
        this.edit = edit;
        this.shown = shown;
        this.secrets = secrets;
        this.certificates = certificates;
    }

    /** Adds a gear's fields below it. */
    void show(Gear g, VBox to) {
        if (!g.link().protocol().descriptor().secures()) {
            return;
        }
        HBox first = new HBox(Space.S8, user(g), secret(g), tls(g));
        first.setAlignment(Pos.BOTTOM_LEFT);
        VBox fields = new VBox(Space.S6, Styles.label("Login and encryption", "gear-name"), first, Fields.read(about(
                g)));
        HBox ways = ways(g);
        if (!ways.getChildren().isEmpty()) {
            fields.getChildren().add(ways);
        }
        to.getChildren().add(fields);
    }

    private VBox user(Gear g) {
        TextField user = Fields.text("gear-user-" + g.id(), g.link().user() == null ? "" : g.link().user(), text -> edit
                .accept("set the user of “" + g.name() + "”", b -> change(b, g, l -> l.withUser(text
                        .isBlank() ? null : text.strip()))));
        user.setPrefWidth(FIELD_WIDTH);
        return Fields.named("User", user);
    }

    private VBox secret(Gear g) {
        PasswordField secret = new PasswordField();
        secret.setId("gear-secret-" + g.id());
        secret.setPrefWidth(FIELD_WIDTH);
        String name = g.link().secret();
        secret.setPromptText(
                name == null ? "none" : secrets.has(name) ? "set (type to replace)" : "missing (type it here)");
        Runnable take = () -> {
            String typed = secret.getText();
            if (!typed.isEmpty()) {
                secret.clear();
                set(g, name == null ? g.id() : name, typed);
            }
        };
        secret.setOnAction(_ -> take.run());
        secret.focusedProperty().addListener((_, _, in) -> {
            if (!in) {
                take.run();
            }
        });
        return Fields.named("Password or token", secret);
    }

    private void set(Gear g, String name, String typed) {
        try {
            secrets.set(name, typed);
            edit.accept("set the secret of “" + g.name() + "”", b -> change(b, g, l -> l.withSecret(name)));
            shown.accept("gear-secret-" + g.id());
        } catch (IOException | IllegalArgumentException e) {
            trouble = "Can't save the secret: " + e.getMessage();
            shown.accept("gear-secret-" + g.id());
        }
    }

    /** What went wrong with what was tried last; said once. */
    private String trouble = "";

    private String about(Gear g) {
        String said = trouble;
        trouble = "";
        if (!said.isEmpty()) {
            return said;
        }
        String name = g.link().secret();
        if (name == null) {
            return "Secrets stay on this computer. The board only refers to them by name.";
        }
        return secrets.has(name)
                ? "The secret “" + name + "” stays on this computer. The board only refers to it by name."
                : "The board refers to the secret “" + name + "”, which isn't on this computer yet.";
    }

    private VBox tls(Gear g) {
        var choice = Fields.choice("gear-tls-" + g.id(), List.of(Way.values()), Way.of(g.link().tls()), w -> w.words,
                w -> chosen(g, w));
        return Fields.named("Encryption", choice);
    }

    private void chosen(Gear g, Way way) {
        if (way == Way.OWN) {
            certificate(g);
            return;
        }
        Tls tls = way.trust == null ? null : new Tls(way.trust, null, client(g));
        edit.accept("reach “" + g.name() + "” " + (tls == null ? "without TLS" : "over TLS"), b -> change(b, g, l -> l
                .withTls(tls)));
    }

    private void certificate(Gear g) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Certificate of " + g.name() + ", or of its authority");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Certificates", "*.pem", "*.crt", "*.cer"));
        File file = chooser.showOpenDialog(null);
        if (file != null) {
            try {
                String pem = Files.readString(file.toPath());
                readable(pem);
                edit.accept("set the certificate of “" + g.name() + "”", b -> change(b, g, l -> l.withTls(
                        new Tls(Tls.Trust.OWN, pem, client(g)))));
            } catch (IOException | CertificateException e) {
                trouble = "“" + file.getName() + "” isn't a PEM certificate: " + e.getMessage();
            }
        }
        shown.accept("gear-tls-" + g.id());
    }

    private static @Nullable String client(Gear g) {
        return g.link().tls() == null ? null : g.link().tls().client();
    }

    /** Our own certificate, which gear may want to see: it is kept with its key among the secrets. */
    private void ours(Gear g, Tls tls) throws IOException {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Client certificate and key for " + g.name());
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Certificates with keys", "*.pem"));
        File file = chooser.showOpenDialog(null);
        if (file == null) {
            return;
        }
        String pem = Files.readString(file.toPath());
        String name = tls.client() == null ? g.id() + "-certificate" : tls.client();
        try {
            Pem.keys(pem);
        } catch (GeneralSecurityException e) {
            trouble = "“" + file.getName() + "” can't be used: " + e.getMessage();
            return;
        }
        secrets.set(name, pem.strip());
        edit.accept("use a client certificate for “" + g.name() + "”", b -> change(b, g, l -> l.withTls(tls.withClient(
                name))));
    }

    /** @throws CertificateException where there is none in it */
    private static void readable(String pem) throws CertificateException {
        if (!pem.contains("BEGIN CERTIFICATE")) {
            throw new CertificateException("it has no BEGIN CERTIFICATE line");
        }
    }

    private HBox ways(Gear g) {
        HBox ways = new HBox(Space.S8);
        String name = g.link().secret();
        if (name != null) {
            ways.getChildren().add(way("gear-secret-forget-" + g.id(), secrets.has(name)
                    ? "Forget the secret"
                    : "Use no secret", () -> {
                        secrets.forget(name);
                        edit.accept("name no secret for “" + g.name() + "”", b -> change(b, g, l -> l.withSecret(
                                null)));
                    }));
        }
        String at = g.link().address().toLowerCase(Locale.ROOT);
        if (g.link().tls() != null && g.link().tls().trust() == Tls.Trust.FIRST_SEEN
                && certificates.firstSeen(at).isPresent()) {
            ways.getChildren().add(way("gear-certificate-forget-" + g.id(), "Forget the first certificate",
                    () -> certificates.forget(at)));
        }
        Tls tls = g.link().tls();
        if (tls != null) {
            ways.getChildren().add(tls.client() == null
                    ? way("gear-client-" + g.id(), "Add client certificate…", () -> ours(g, tls))
                    : way("gear-client-" + g.id(), "Remove client certificate", () -> edit.accept("reach “" + g
                            .name() + "” without a client certificate",
                            b -> change(b, g, l -> l.withTls(tls.withClient(
                                    null))))));
        }
        return ways;
    }

    private interface Act {
        void run() throws IOException;
    }

    private Button way(String id, String words, Act act) {
        Button way = Fields.plain(words, "");
        way.setId(id);
        way.setMinWidth(Region.USE_PREF_SIZE);
        way.setOnAction(_ -> {
            try {
                act.run();
            } catch (IOException e) {
                trouble = "That failed: " + e.getMessage();
            }
            shown.accept(id);
        });
        return way;
    }

    private static Board change(Board board, Gear g, UnaryOperator<Gear.Link> change) {
        return GearEdits.change(board, g.id(), x -> x.withLink(change.apply(x.link())));
    }
}
