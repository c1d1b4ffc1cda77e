package rombix.app.view.common;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.geometry.Rectangle2D;
import org.junit.jupiter.api.Test;

/** The window opens wholly on its screen. */
class WindowPlaceTest {
    private static final Rectangle2D SCREEN = new Rectangle2D(0, 0, 1280, 832);

    @Test
    void aWindowThatWasNeverOpenFillsASmallScreenAndStandsInTheMiddleOfALargeOne() {
        assertThat(WindowPlace.within(null, SCREEN)).isEqualTo(SCREEN);
        assertThat(WindowPlace.within(null, new Rectangle2D(1280, 0, 1920, 1080))).isEqualTo(new Rectangle2D(1600, 124,
                1280, 832));
    }

    @Test
    void aPlaceOfAnotherScreenIsMovedOntoThisOne() {
        assertThat(WindowPlace.within(new Rectangle2D(1500, -40, 1100, 700), SCREEN)).isEqualTo(new Rectangle2D(180, 0,
                1100, 700));
        assertThat(WindowPlace.within(new Rectangle2D(-3, 10, 2000, 700), SCREEN))
                .isEqualTo(new Rectangle2D(0, 10, 1280,
                        700));
    }
}
