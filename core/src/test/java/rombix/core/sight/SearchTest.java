package rombix.core.sight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.SplittableRandom;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class SearchTest {
    private static final int GROUND = 0x203038;

    /** A plain screen with boxes, and letters of a kind, on it. */
    private static Pixels screen(long seed) {
        SplittableRandom chance = new SplittableRandom(seed);
        int[] rgb = new int[400 * 300];
        java.util.Arrays.fill(rgb, GROUND);
        for (int box = 0; box < 30; box++) {
            int x = chance.nextInt(340);
            int y = chance.nextInt(260);
            int colour = chance.nextInt(1 << 24);
            for (int i = 0; i < 2400; i++) {
                rgb[(y + i / 60) * 400 + x + i % 60] = chance.nextInt(5) == 0 ? 0xEEEEEE : colour;
            }
        }
        return new Pixels(400, 300, rgb);
    }

    private static Pixels changed(Pixels of, int by, long seed) {
        SplittableRandom chance = new SplittableRandom(seed);
        int[] rgb = of.rgb().clone();
        for (int i = 0; i < rgb.length; i++) {
            int c = rgb[i];
            int d = chance.nextInt(-by, by + 1);
            rgb[i] = Math.clamp((c >> 16 & 255) + d, 0, 255) << 16 | Math.clamp((c >> 8 & 255) + d, 0, 255) << 8 | Math
                    .clamp((c & 255) + d, 0, 255);
        }
        return new Pixels(of.width(), of.height(), rgb);
    }

    private static Pixels with(Pixels screen, Pixels stamp, int x, int y) {
        int[] rgb = screen.rgb().clone();
        for (int row = 0; row < stamp.height(); row++) {
            System.arraycopy(stamp.rgb(), row * stamp.width(), rgb, (y + row) * screen.width() + x, stamp.width());
        }
        return new Pixels(screen.width(), screen.height(), rgb);
    }

    private static Pixels stamp() {
        return screen(99).part(100, 100, 40, 30);
    }

    @Property(tries = 60)
    void whatIsCutOutIsFoundWhereItWasPixelForPixel(@ForAll @IntRange(max = 360) int x,
            @ForAll @IntRange(max = 270) int y) {
        Pixels screen = with(screen(5), changed(stamp(), 30, 7), x, y);
        assertThat(Search.all(screen, screen.part(x, y, 40, 30), 1, 9)).containsExactly(new Match(x, y, 40, 30, 1));
    }

    @Property(tries = 60)
    void whatHasChangedALittleIsFoundWhereItIs(@ForAll @IntRange(max = 360) int x, @ForAll @IntRange(max = 270) int y) {
        Pixels stamp = changed(stamp(), 30, 7);
        Pixels screen = with(screen(5), changed(stamp, 8, 3), x, y);
        List<Match> found = Search.all(screen, stamp, 0.8, 9);
        assertThat(found).singleElement().satisfies(m -> {
            assertThat(m.x()).isEqualTo(x);
            assertThat(m.y()).isEqualTo(y);
            assertThat(m.alike()).isBetween(0.8, 0.99);
        });
        assertThat(Search.all(screen, stamp, 1, 9)).isEmpty();
    }

    @Test
    void whatStandsHalfwayBetweenThePixelsOfTheSmallScreenIsNotMissed() {
        whatHasChangedALittleIsFoundWhereItIs(127, 62);
        whatHasChangedALittleIsFoundWhereItIs(163, 67);
    }

    @Test
    void everyPlaceIsFoundInReadingOrder() {
        Pixels screen = with(with(with(screen(5), stamp(), 300, 20), stamp(), 10, 20), stamp(), 120, 200);
        for (double alike : new double[]{1, 0.9}) {
            assertThat(Search.all(screen, stamp(), alike, 9)).extracting(m -> m.x() + " " + m.y()).containsExactly(
                    "10 20", "300 20", "120 200");
        }
        assertThat(Search.all(screen, stamp(), 1, 2)).hasSize(2);
    }

    @Test
    void whatIsNotThereOrHalfHiddenIsNotFound() {
        assertThat(Search.all(screen(5), stamp(), 0.9, 9)).isEmpty();
        Pixels hidden = with(with(screen(5), stamp(), 50, 50), screen(5).part(0, 0, 20, 30), 70, 50);
        assertThat(Search.all(hidden, stamp(), 0.9, 9)).isEmpty();
        assertThat(Search.all(hidden, stamp().part(0, 0, 20, 30), 0.9, 9)).extracting(Match::x).contains(50);
    }

    @Test
    void aPictureLargerThanTheScreenOrOfOneColourIsNoReasonToFail() {
        assertThat(Search.all(stamp(), screen(5), 0.9, 9)).isEmpty();
        int[] one = new int[100];
        java.util.Arrays.fill(one, GROUND);
        assertThat(Search.all(screen(5), new Pixels(10, 10, one), 0.9, 5)).isNotEmpty();
        assertThat(Search.all(screen(5), screen(5).part(3, 3, 1, 1), 1, 1)).hasSize(1);
    }

    @Test
    void whatIsCutOutAroundAPixelIsToBeSeenNowhereElse() {
        Pixels screen = with(with(screen(5), stamp(), 300, 20), stamp(), 10, 20);
        Match around = Search.sole(screen, 320, 35).orElseThrow();
        assertThat(around.width()).isGreaterThan(40); // The stamp itself is there twice.
        assertThat(Search.all(screen, screen.part(around.x(), around.y(), around.width(), around.height()), 0.9, 9))
                .hasSize(1);
        int[] plain = new int[400 * 300];
        assertThat(Search.sole(new Pixels(400, 300, plain), 100, 100)).isEmpty();
    }
}
