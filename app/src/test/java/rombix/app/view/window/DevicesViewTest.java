package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Set;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import rombix.web.BrowserPages;
import rombix.web.access.Access;
import rombix.web.access.Right;

/** Pages are shown in a browser, and a device is let in, changed and removed, in the window, offscreen. */
class DevicesViewTest extends AtTheWindow {
    private static final HttpClient BROWSER = HttpClient.newHttpClient();

    private BrowserPages pages() {
        return session.pages();
    }

    @AfterEach
    void turnOff() throws Exception {
        pages().off();
        for (Access a : pages().access().all()) {
            pages().access().remove(a.id());
        }
    }

    private String code() {
        return ((Label) find("#invitation-code")).getText();
    }

    private int join(String code, String name) throws Exception {
        String address = pages().server().orElseThrow().address();
        return BROWSER.send(HttpRequest.newBuilder(URI.create(address + "join")).header("Origin", address.substring(0,
                address.length() - 1)).POST(HttpRequest.BodyPublishers.ofString(
                        "{\"code\":\"" + code
                                + "\",\"name\":\"" + name + "\"}"))
                .build(), HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    /** What stands in the part that scrolls may be out of sight. */
    private void fire(String id) {
        robot.interact(() -> ((ButtonBase) find(id)).fire());
    }

    @Test
    void aDeviceIsLetInWithTheCodeAndMayDoWhatIsTicked() throws Exception {
        key(KeyCode.W, KeyCode.ALT);
        choose("#show-pages", "On this computer only");
        soon(() -> pages().server().isPresent() && find("#invitation-code") != null);
        assertThat(((TextField) find("#web-address")).getText()).startsWith("http://127.0.0.1:");
        String first = code();
        fire("#right-stop_all");
        assertThat(code()).as("another code, for other rights").isNotEqualTo(first);
        assertThat(join(first, "Thief")).isEqualTo(403);
        assertThat(join(code(), "Door phone")).isEqualTo(204);
        soon(() -> find("#invitation-again") != null);
        TableView<?> table = (TableView<?>) find("#devices");
        soon(() -> table.getItems().size() == 1);
        assertThat(pages().access().all().getFirst().rights()).isEqualTo(Set.of(Right.PRESS));
        robot.interact(() -> table.getSelectionModel().select(0));
        fire("#page-of-device-doors");
        soon(() -> pages().access().all().getFirst().pages().equals(Set.of("doors")));
        assertThat(((CheckBox) find("#pages-all")).isSelected()).isFalse();
        fire("#device-remove");
        soon(() -> table.getItems().isEmpty());
        assertThat(pages().access().all()).isEmpty();
    }

    @Test
    void aProgramGetsATokenThatIsShownOnce() throws Exception {
        key(KeyCode.W, KeyCode.ALT);
        choose("#show-pages", "On this computer only");
        soon(() -> pages().server().isPresent() && find("#invitation-code") != null);
        click(find("#add-program"));
        robot.interact(() -> ((TextField) find("#program-name")).setText("Dome sensor"));
        fire("#program-token");
        soon(() -> find("#token") != null);
        String token = ((TextField) find("#token")).getText();
        assertThat(pages().access().holder(token)).hasValueSatisfying(a -> assertThat(a.kind()).isEqualTo(
                Access.Kind.PROGRAM));
        choose("#show-pages", "Off");
        soon(() -> pages().server().isEmpty());
    }
}
