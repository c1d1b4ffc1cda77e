package rombix.core.card;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import rombix.core.card.Channel.Kind;

/** What a fixture can do, as its channels say: channels that belong together are one ability. */
public final class Personality {
    private static final int COLOURS = 3;
    private static final Map<Kind, double[]> USUAL = Map.of(Kind.PAN, new double[]{-270, 270}, Kind.TILT, new double[]{
            -135, 135}, Kind.WARMTH, new double[]{2700, 6500});

    /**
     * Something that a fixture can do.
     *
     * @param key what is the same for all fixtures that can do the same in the same way
     * @param label what people call it
     * @param slots which of the fixture's slots it takes, from 0: coarse and fine, or red, green, blue and white
     * @param wide whether it has 16 bits
     * @param together whether its slots stand one after the other
     * @param from the value at the lowest level, and {@code to} that at the highest
     */
    public record Ability(String key, Kind kind, String label, List<Integer> slots, boolean wide, boolean together,
            double from, double to, List<Channel.Step> steps) {
    }

    private Personality() {
    }

    /** How many slots a fixture takes. */
    public static int width(Card card) {
        return card.channels().size();
    }

    /** All that a fixture of such a card can do. */
    public static List<Ability> abilities(Card card) {
        List<Channel> all = card.channels();
        List<Ability> abilities = new ArrayList<>();
        boolean colour = colour(all, abilities);
        for (int i = 0; i < all.size(); i++) {
            Channel c = all.get(i);
            boolean mixed = colour && (c.is() == Kind.RED || c.is() == Kind.GREEN || c.is() == Kind.BLUE || c
                    .is() == Kind.WHITE && abilities.getFirst().slots().contains(i));
            if (!mixed && !c.fine() && c.is() != Kind.FIXED) {
                abilities.add(ability(card, all, i));
            }
        }
        return abilities;
    }

    private static Ability ability(Card card, List<Channel> all, int at) {
        Channel c = all.get(at);
        int fine = fine(all, at);
        boolean together = fine < 0 || fine == at + 1;
        double[] usual = USUAL.getOrDefault(c.is(), new double[]{0, 100});
        Double low = c.from();
        Double high = c.to();
        double from = low == null ? usual[0] : low;
        double to = high == null ? usual[1] : high;
        String key = switch (c.is()) {
            case WHEEL -> "wheel-" + card.id() + "-" + c.slug();
            case LEVEL, RED, GREEN, BLUE, WHITE -> "level-" + c.slug();
            default -> c.slugOfKind();
        } + (fine < 0 ? "" : together ? "-16" : "-16-apart") + (from == usual[0] && to == usual[1]
                ? ""
                : "-" + figure(from) + "-" + figure(to));
        Kind kind = key.startsWith("level-") ? Kind.LEVEL : c.is();
        return new Ability(key, kind, c.label(), fine < 0 ? List.of(at) : List.of(at, fine), fine >= 0, together, from,
                to, c.steps());
    }

    private static String figure(double number) {
        return (number < 0 ? "m" : "") + Math.round(Math.abs(number));
    }

    /** The slot of a channel's fine part; -1 where it has none. */
    public static int fine(List<Channel> all, int coarse) {
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i).fines(all.get(coarse))) {
                return i;
            }
        }
        return -1;
    }

    /** Red, green and blue are one colour, with the white that stands right behind them. */
    private static boolean colour(List<Channel> all, List<Ability> to) {
        int red = first(all, Kind.RED);
        int green = first(all, Kind.GREEN);
        int blue = first(all, Kind.BLUE);
        if (red < 0 || green < 0 || blue < 0) {
            return false;
        }
        boolean together = green == red + 1 && blue == red + 2;
        boolean white = together && first(all, Kind.WHITE) == red + COLOURS;
        List<Integer> slots = white ? List.of(red, green, blue, red + COLOURS) : List.of(red, green, blue);
        to.add(new Ability(white ? "rgbw" : together ? "rgb" : "rgb-apart", Kind.RED, "colour", slots, false, together,
                0, 100, List.of()));
        return true;
    }

    private static int first(List<Channel> all, Kind kind) {
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i).is() == kind && !all.get(i).fine()) {
                return i;
            }
        }
        return -1;
    }
}
