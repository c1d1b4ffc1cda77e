package rombix.core.sight;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Finds a picture in a larger one. Pixel for pixel that takes little longer than reading all pixels once. By
 * what is alike, both are made smaller, and the likeliest places of the small one are looked at closely. Safe to use from any
 * thread; nothing is kept.
 */
public final class Search {
    /** Of how many places of the small picture every pixel is looked at. */
    private static final int LIKELY = 32;
    /** The shorter side of the picture that is sought is made no smaller than this. */
    private static final int LEAST_SIDE = 6;
    private static final int MOST_SMALLER = 6;
    private static final double EXACT = 0.9999;
    /** A picture with less in it than this is taken to have that much: else nothing would be like a plain one. */
    private static final double LEAST_CONTRAST = 12;

    /** In a picture of so many pixels some of them say where it is most alike. */
    private static final int MANY = 600;
    private static final int SOME = 3;
    private static final double SLACK = 1.3;

    /** How far what is cut out around a pixel goes. */
    private static final int LEAST_HALF = 18;
    private static final int MOST_HALF = 72;
    private static final double SOLE = 0.9;

    private final Pixels screen;
    private final Pixels sought;

    private Search(Pixels screen, Pixels sought) {
        this.screen = screen;
        this.sought = sought;
    }

    /**
     * Where a picture is to be seen, in reading order: from above, then from the left. Places that cover more than half of
     * each other count as one.
     *
     * @param alike from 0 to 1: how much alike it must be; 1 for the same in every pixel
     * @param most how many at most
     */
    public static List<Match> all(Pixels screen, Pixels sought, double alike, int most) {
        if (sought.width() > screen.width() || sought.height() > screen.height()) {
            return List.of();
        }
        Search search = new Search(screen, sought);
        List<Match> found = alike < EXACT ? apart(search.alike(alike, most), most) : List.of();
        if (found.isEmpty()) {
            found = search.exact(most);
        }
        return found.stream().sorted(Comparator.comparingInt(Match::y).thenComparingInt(Match::x)).toList();
    }

    /**
     * The smallest part around a pixel that is to be seen nowhere else on the screen; empty where there is none of a
     * useful size.
     */
    public static Optional<Match> sole(Pixels screen, int x, int y) {
        for (int half = LEAST_HALF; half <= MOST_HALF; half *= 2) {
            int left = Math.max(0, x - half);
            int top = Math.max(0, y - half * 2 / 3);
            int width = Math.min(screen.width(), x + half) - left;
            int height = Math.min(screen.height(), y + half * 2 / 3) - top;
            if (width > 0 && height > 0) {
                Pixels part = screen.part(left, top, width, height);
                if (all(screen, part, 1, 2).size() == 1 && all(screen, part, SOLE, 2).size() == 1) {
                    return Optional.of(new Match(left, top, width, height, 1));
                }
            }
        }
        return Optional.empty();
    }

    /** Those that do not cover each other, the first of the list first. */
    private static List<Match> apart(List<Match> all, int most) {
        List<Match> apart = new ArrayList<>();
        for (Match m : all) {
            if (apart.size() < most && apart.stream().noneMatch(a -> covers(a, m))) {
                apart.add(m);
            }
        }
        return apart;
    }

    private static boolean covers(Match a, Match b) {
        return Math.abs(a.x() - b.x()) * 2 < a.width() && Math.abs(a.y() - b.y()) * 2 < a.height();
    }

    /** Looks for two pixels beside each other that are rare in the picture, and compares all where they stand. */
    List<Match> exact(int most) {
        int probe = probe();
        int px = probe % sought.width();
        int py = probe / sought.width();
        int[] rgb = screen.rgb();
        int first = sought.rgb()[probe];
        int second = sought.rgb()[probe + (sought.width() > 1 ? 1 : 0)];
        int next = sought.width() > 1 ? 1 : 0;
        List<Match> found = new ArrayList<>();
        for (int y = 0; y <= screen.height() - sought.height(); y++) {
            int from = (y + py) * screen.width() + px;
            int to = from + screen.width() - sought.width();
            for (int i = from; i <= to; i++) {
                if (rgb[i] == first && rgb[i + next] == second && same(i - from, y)) {
                    Match m = new Match(i - from, y, sought.width(), sought.height(), 1);
                    if (found.stream().noneMatch(f -> covers(f, m))) {
                        found.add(m);
                        if (found.size() >= most) {
                            return found;
                        }
                    }
                }
            }
        }
        return found;
    }

    private boolean same(int x, int y) {
        int width = sought.width();
        for (int row = 0; row < sought.height(); row++) {
            int from = (y + row) * screen.width() + x;
            if (Arrays.mismatch(screen.rgb(), from, from + width, sought.rgb(), row * width, (row + 1)
                    * width) >= 0) {
                return false;
            }
        }
        return true;
    }

    /** Where in the picture two pixels stand beside each other, other than each other, the first of a rare colour. */
    private int probe() {
        Map<Integer, Integer> counts = new HashMap<>();
        for (int c : sought.rgb()) {
            counts.merge(c, 1, Integer::sum);
        }
        int best = 0;
        int fewest = Integer.MAX_VALUE;
        for (int i = 0; i < sought.rgb().length; i++) {
            boolean last = i % sought.width() == sought.width() - 1;
            if (last && sought.width() > 1) {
                continue;
            }
            int count = counts.getOrDefault(sought.rgb()[i], 0)
                    + (last || sought.rgb()[i] != sought.rgb()[i + 1] ? 0 : 1 << 20);
            if (count < fewest) {
                fewest = count;
                best = i;
            }
        }
        return best;
    }

    /** What is alike, the most alike first; places may cover each other. */
    private List<Match> alike(double least, int most) {
        int smaller = Math.clamp(Math.min(sought.width(), sought.height()) / LEAST_SIDE, 1, MOST_SMALLER);
        double contrast = contrast();
        List<Match> found = new ArrayList<>();
        Grey small = small(screen, smaller);
        // A place halfway between two pixels of the small screen is blurred there. So the picture is also made smaller from
        // half such a pixel on: one of the two is nearly in step with any place.
        for (int from : IntStream.of(0, smaller / 2).distinct().toArray()) {
            Grey part = small(sought.part(from, from, sought.width() - from, sought.height() - from), smaller);
            for (Likely l : likely(small, part, Math.max(LIKELY, most))) {
                Match m = near(l.x * smaller - from, l.y * smaller - from, smaller, least, contrast);
                if (m != null) {
                    found.add(m);
                }
            }
        }
        found.sort(Comparator.comparingDouble(Match::alike).reversed());
        return found;
    }

    /** A picture in shades of grey from 0 to 255, row by row. */
    private record Grey(int width, int height, int[] shades) {
    }

    /** A place of the small picture, with how far it is off. */
    private record Likely(int x, int y, int off) {
    }

    /** The places of the small screen that are less off than all around them, the least off of them. */
    private static Collection<Likely> likely(Grey small, Grey part, int most) {
        Grey off = off(small, part);
        PriorityQueue<Likely> best = new PriorityQueue<>(Comparator.comparing(Likely::off).reversed());
        for (int y = 0; y < off.height; y++) {
            for (int x = 0; x < off.width; x++) {
                int now = off.shades[y * off.width + x];
                if ((best.size() < most || now < best.element().off) && least(off, x, y)) {
                    best.add(new Likely(x, y, now));
                    if (best.size() > most) {
                        best.remove();
                    }
                }
            }
        }
        return best;
    }

    /** How far the part is off at each place: the sum of the differences of all its pixels. */
    private static Grey off(Grey small, Grey part) {
        int width = small.width - part.width + 1;
        int height = small.height - part.height + 1;
        int[] off = new int[width * height];
        int[] row = new int[width];
        for (int y = 0; y < height; y++) {
            Arrays.fill(row, 0);
            for (int i = 0; i < part.shades.length; i++) {
                differ(row, small.shades, (y + i / part.width) * small.width + i % part.width, part.shades[i]);
            }
            System.arraycopy(row, 0, off, y * width, width);
        }
        return new Grey(width, height, off);
    }

    /** One pixel of the part at all places of a row at once: a loop that the JVM makes into vectors. */
    private static void differ(int[] row, int[] shades, int from, int shade) {
        for (int x = 0; x < row.length; x++) {
            row[x] += Math.abs(shades[from + x] - shade);
        }
    }

    /** Whether all around it are off by more, or by as much and come after it. */
    private static boolean least(Grey off, int x, int y) {
        int now = off.shades[y * off.width + x];
        for (int ny = Math.max(0, y - 1); ny <= Math.min(off.height - 1, y + 1); ny++) {
            for (int nx = Math.max(0, x - 1); nx <= Math.min(off.width - 1, x + 1); nx++) {
                int other = off.shades[ny * off.width + nx];
                boolean before = ny < y || ny == y && nx < x;
                if (other < now || before && other == now) {
                    return false;
                }
            }
        }
        return true;
    }

    /** A smaller picture in shades of grey; what is left over at the right and below is left out. */
    private static Grey small(Pixels of, int smaller) {
        int width = of.width() / smaller;
        int height = of.height() / smaller;
        int[] shades = new int[width * height];
        int[] rgb = of.rgb();
        int[] redBlue = new int[width]; // Two sums in each: no more than 36 times 255 comes to either.
        int[] green = new int[width];
        for (int y = 0; y < height; y++) {
            Arrays.fill(redBlue, 0);
            Arrays.fill(green, 0);
            for (int line = 0; line < smaller; line++) {
                int i = (y * smaller + line) * of.width();
                for (int x = 0; x < redBlue.length; x++) {
                    int rb = redBlue[x];
                    int g = green[x];
                    for (int end = i + smaller; i < end; i++) {
                        rb += rgb[i] & 0xFF00FF;
                        g += rgb[i] >> 8 & 0xFF;
                    }
                    redBlue[x] = rb;
                    green[x] = g;
                }
            }
            for (int x = 0; x < redBlue.length; x++) {
                shades[y * redBlue.length + x] = ((redBlue[x] >>> 16) + 2 * green[x] + (redBlue[x] & 0xFFFF))
                        / (4 * smaller * smaller);
            }
        }
        return new Grey(width, height, shades);
    }

    /** How far the picture's pixels are from their mean, summed over pixels and colours. */
    private double contrast() {
        long[] sums = new long[3];
        for (int c : sought.rgb()) {
            sums[0] += c >> 16 & 255;
            sums[1] += c >> 8 & 255;
            sums[2] += c & 255;
        }
        int n = sought.rgb().length;
        double all = 0;
        for (int c : sought.rgb()) {
            all += Math.abs((c >> 16 & 255) - (double) sums[0] / n) + Math.abs((c >> 8 & 255) - (double) sums[1] / n)
                    + Math.abs((c & 255) - (double) sums[2] / n);
        }
        return Math.max(all, 3 * LEAST_CONTRAST * n);
    }

    /** The place near another where the picture is most alike; null where it is nowhere alike enough. */
    private @Nullable Match near(int aboutX, int aboutY, int reach, double least, double contrast) {
        int apart = sought.rgb().length < MANY ? 1 : SOME;
        long limit = (long) ((1 - least) * contrast) + 1;
        long best = (long) (limit * (apart == 1 ? 1 : SLACK) / (apart * apart));
        int x = -1;
        int y = -1;
        for (int ty = Math.max(0, aboutY - reach); ty <= Math.min(screen.height() - sought.height(), aboutY
                + reach); ty++) {
            for (int tx = Math.max(0, aboutX - reach); tx <= Math.min(screen.width() - sought.width(), aboutX
                    + reach); tx++) {
                long off = off(tx, ty, best, apart);
                if (off < best) {
                    best = off;
                    x = tx;
                    y = ty;
                }
            }
        }
        long off = x < 0 ? limit : off(x, y, limit, 1);
        return off >= limit
                ? null
                : new Match(x, y, sought.width(), sought.height(), Math.max(0, 1 - off
                        / contrast));
    }

    /**
     * How far the pixels at a place are from the picture's; any number from the limit on where it is no less than that.
     *
     * @param apart every how manieth pixel of each row and column is looked at
     */
    private long off(int x, int y, long limit, int apart) {
        long off = 0;
        int width = sought.width();
        int[] there = screen.rgb();
        int[] here = sought.rgb();
        for (int row = 0; row < sought.height() && off < limit; row += apart) {
            int a = (y + row) * screen.width() + x;
            int b = row * width;
            for (int i = 0; i < width; i += apart) {
                int c = there[a + i];
                int d = here[b + i];
                off += Math.abs((c >> 16 & 255) - (d >> 16 & 255)) + Math.abs((c >> 8 & 255) - (d >> 8 & 255))
                        + Math.abs(
                                (c & 255) - (d & 255));
            }
        }
        return off;
    }
}
