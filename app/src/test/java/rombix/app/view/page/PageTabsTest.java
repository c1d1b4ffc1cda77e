package rombix.app.view.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.MenuButton;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.show.Session;
import rombix.core.board.Page;

class PageTabsTest {
    private static final List<Page> MANY = IntStream.range(0, 20).mapToObj(i -> Page.empty("p" + i, "Page " + i))
            .toList();

    private final List<String> chosen = new ArrayList<>();
    private PageTabs tabs;

    @BeforeAll
    static void toolkit() {
        Session.startToolkit(true);
    }

    /** The ids of the tabs in sight, from left to right, when there is so much room. */
    private List<String> inSight(List<Page> pages, String shown, double width, boolean live) {
        return WaitForAsyncUtils.waitForAsyncFx(60_000, () -> {
            tabs = new PageTabs(chosen::add);
            tabs.show(pages, shown, live);
            new Scene(tabs);
            tabs.applyCss();
            tabs.resize(width, 40);
            tabs.layout();
            assertThat(tabs.getChildren().stream().filter(Node::isVisible)).allSatisfy(n -> {
                assertThat(n.getLayoutX()).isNotNegative();
                assertThat(n.getBoundsInParent().getMaxX()).isLessThanOrEqualTo(width);
            });
            return tabs.getChildren().stream().filter(Node::isVisible).map(Node::getId).toList();
        });
    }

    @Test
    void allStandInARowWhereThereIsRoom() {
        assertThat(inSight(MANY.subList(0, 3), "p1", 2000, false)).containsExactly("page-p0", "page-p1", "page-p2");
    }

    @Test
    void inBuildTheRestIsInTheListOfAllPages() {
        assertThat(inSight(MANY, "p17", 500, false)).startsWith("page-p0", "page-p1").contains("page-p17")
                .doesNotContain(
                        "pages-rest");
    }

    @Test
    void inLiveWhereThereIsNoRoomTheRestIsInAMenuAndTheOneThatIsShownStays() {
        List<String> row = inSight(MANY, "p17", 500, true);
        assertThat(row).startsWith("page-p0", "page-p1").contains("page-p17").endsWith("pages-rest")
                .hasSizeLessThan(12);
        MenuButton rest = (MenuButton) tabs.getChildren().getLast();
        assertThat(rest.getText()).isEqualTo("+" + (20 - row.size() + 1));
        WaitForAsyncUtils.waitForAsyncFx(60_000, () -> {
            rest.getOnShowing().handle(null);
            rest.getItems().getLast().fire();
            return true;
        });
        assertThat(rest.getItems()).hasSize(20 - row.size() + 1);
        assertThat(chosen).containsExactly("p19");
    }
}
