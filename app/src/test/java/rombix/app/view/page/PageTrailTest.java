package rombix.app.view.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.app.edit.UsageWords;
import rombix.app.edit.Workbench;
import rombix.core.store.BoardFile;

class PageTrailTest {
    private Workbench bench;
    private PageTrail trail;

    @BeforeEach
    void open() throws Exception {
        bench = new Workbench(Path.of("b.json"), BoardFile.read(Path.of("../demo/star-night.json")));
        trail = new PageTrail(bench);
    }

    private String shown() {
        return bench.page().id();
    }

    @Test
    void backGoesTheWayThatLedHere() {
        assertThat(trail.previous()).isNull();
        trail.back();
        assertThat(shown()).isEqualTo("doors");
        bench.showPage("observing");
        bench.showPage("trouble");
        assertThat(trail.previous()).isEqualTo("observing");
        trail.back();
        trail.back();
        assertThat(shown()).isEqualTo("doors");
        assertThat(trail.previous()).isNull();
    }

    @Test
    void fromAPageThatWasOnlyPassedThroughThereIsNoWayBackToIt() {
        bench.showPage("trouble"); // It followed something…
        bench.showPage("close"); // …the hand went on…
        trail.backFrom("trouble"); // …and what it followed is over.
        assertThat(shown()).isEqualTo("close");
        trail.back();
        assertThat(shown()).isEqualTo("doors");
    }

    @Test
    void pagesThatAreGoneAreLeftOut() {
        bench.showPage("trouble");
        bench.showPage("close");
        bench.edit("delete", b -> UsageWords.withoutPage(b, "trouble"));
        trail.back();
        assertThat(shown()).isEqualTo("doors");
    }

    @Test
    void theSameOverAndOverIsNotForgottenTooSoonNorKeptForEver() {
        for (int i = 0; i < 500; i++) {
            bench.showPage(i % 2 == 0 ? "observing" : "close");
        }
        int steps = 0;
        while (trail.previous() != null) {
            trail.back();
            steps++;
        }
        assertThat(steps).isEqualTo(50);
    }
}
