package rombix.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.sight.Match;
import rombix.core.sight.Pixels;
import rombix.core.sight.Search;

/** A picture of 60×40 found on a screen of 1920×1080, the same in every pixel and only alike, against one copy of its pixels. */
final class Seeing implements Measured {
    private static final int WIDTH = 1920;
    private static final int HEIGHT = 1080;
    private static final int WARM_UP = 60;
    private static final int ROUNDS = 200;
    private static final int LETTERS = 40_000;
    private static final int NOISE = 4;

    private final SplittableRandom chance = new SplittableRandom(4);

    @Override
    public List<Figure> measure() {
        Pixels screen = screen();
        Pixels same = screen.part(1200, 700, 60, 40);
        Pixels alike = noisy(same);
        int[] copy = new int[WIDTH * HEIGHT];
        List<Long> copied = new ArrayList<>();
        List<Long> exact = new ArrayList<>();
        List<Long> tolerant = new ArrayList<>();
        for (int i = 0; i < WARM_UP + ROUNDS; i++) {
            long start = System.nanoTime();
            System.arraycopy(screen.rgb(), 0, copy, 0, copy.length);
            long once = System.nanoTime();
            found(Search.all(screen, same, 1, 64));
            long twice = System.nanoTime();
            found(Search.all(screen, alike, 0.85, 64));
            long end = System.nanoTime();
            if (i >= WARM_UP) {
                copied.add(once - start);
                exact.add(twice - once);
                tolerant.add(end - twice);
            }
        }
        double bare = Figure.percentile(copied, 0.95) / 1e6;
        return List.of(Figure.of("picture-exact-p95", Figure.percentile(exact, 0.95) / 1e6, bare, "ms", 3), Figure.of(
                "picture-alike-p95", Figure.percentile(tolerant, 0.95) / 1e6, bare, "ms", 10));
    }

    private static void found(List<Match> all) {
        if (all.size() != 1 || all.getFirst().x() != 1200 || all.getFirst().y() != 700) {
            throw new IllegalStateException("it was found at " + all);
        }
    }

    /** Windows of many colours, with strokes of letters on them. */
    private Pixels screen() {
        int[] rgb = new int[WIDTH * HEIGHT];
        Arrays.fill(rgb, 0x202830);
        for (int window = 0; window < 60; window++) {
            int x = window == 59 ? 1180 : chance.nextInt(WIDTH - 200); // The last one lies where the picture is cut out.
            int y = window == 59 ? 715 : chance.nextInt(HEIGHT - 100);
            int width = chance.nextInt(50, 200);
            int height = chance.nextInt(20, 100);
            int colour = chance.nextInt(1 << 24);
            for (int row = 0; row < height; row++) {
                Arrays.fill(rgb, (y + row) * WIDTH + x, (y + row) * WIDTH + x + width, colour);
            }
        }
        for (int letter = 0; letter < LETTERS; letter++) {
            int at = chance.nextInt(HEIGHT - 10) * WIDTH + chance.nextInt(WIDTH - 8);
            int ink = chance.nextBoolean() ? 0xE0E0E0 : 0x101010;
            for (int i = 0; i < 5; i++) {
                rgb[at + i * 7 % 9 * WIDTH + i] = ink;
            }
        }
        return new Pixels(WIDTH, HEIGHT, rgb);
    }

    private Pixels noisy(Pixels of) {
        int[] rgb = of.rgb().clone();
        for (int i = 0; i < rgb.length; i++) {
            int off = chance.nextInt(-NOISE, NOISE + 1);
            int c = rgb[i];
            rgb[i] = Math.clamp((c >> 16 & 255) + off, 0, 255) << 16 | Math.clamp((c >> 8 & 255) + off, 0, 255) << 8
                    | Math.clamp((c & 255) + off, 0, 255);
        }
        return new Pixels(of.width(), of.height(), rgb);
    }
}
