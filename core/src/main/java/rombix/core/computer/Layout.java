package rombix.core.computer;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Place.Corner;
import rombix.core.value.Value;

/** Where the screens of a computer and the windows on them are, the foremost first, in pixels of all screens together. */
public record Layout(List<Box> windows, List<Box> screens) {
    /** A rectangle. @param of the application whose window it is; empty for a screen */
    public record Box(double x, double y, double width, double height, String of, String title) {
        public boolean holds(double px, double py) {
            return px >= x && py >= y && px < x + width && py < y + height;
        }
    }

    /** As the readings of a computer tell it; what is not told is taken for nothing. */
    public static Layout of(@Nullable Value windows, @Nullable Value screens) {
        return new Layout(boxes(windows), boxes(screens));
    }

    private static List<Box> boxes(@Nullable Value listed) {
        List<Box> all = new ArrayList<>();
        if (listed instanceof Value.Choices c) {
            for (Value.Choice choice : c.choices()) {
                String[] words = choice.id().split(" ", 5);
                if (choice.id().matches("(-?\\d+ ){3}-?\\d+( .*)?")) {
                    all.add(new Box(Integer.parseInt(words[0]), Integer.parseInt(words[1]), Integer.parseInt(words[2]),
                            Integer.parseInt(words[3]), words.length > 4 ? words[4] : "", choice.name()));
                }
            }
        }
        return List.copyOf(all);
    }

    /** The same without the windows that have a title. */
    public Layout without(String title) {
        return new Layout(windows.stream().filter(w -> !w.title().equals(title)).toList(), screens);
    }

    /** The title of the window at a pixel; empty where there is none. */
    public String titleAt(double x, double y) {
        return windows.stream().filter(w -> w.holds(x, y)).findFirst().map(Box::title).orElse("");
    }

    /** Ways to say a pixel as a place, the likeliest first: in the window that lies there from each corner, on its screen. */
    public List<Place> places(double x, double y, @Nullable String seen) {
        List<Place> all = new ArrayList<>();
        windows.stream().filter(w -> w.holds(x, y)).findFirst().ifPresent(w -> {
            Corner nearest = x < w.x() + w.width() / 2
                    ? y < w.y() + w.height() / 2 ? Corner.UPPER_LEFT : Corner.LOWER_LEFT
                    : y < w.y() + w.height() / 2 ? Corner.UPPER_RIGHT : Corner.LOWER_RIGHT;
            List<Corner> corners = new ArrayList<>(List.of(Corner.values()));
            corners.remove(nearest);
            corners.addFirst(nearest);
            corners.forEach(c -> all.add(new Place.InWindow(w.of(), c, (int) Math.round(c.right()
                    ? w.x() + w.width() - 1 - x
                    : x - w.x()), (int) Math.round(c.lower() ? w.y() + w.height() - 1 - y : y - w.y()), seen)));
        });
        for (int i = 0; i < screens.size(); i++) {
            Box s = screens.get(i);
            if (s.holds(x, y)) {
                all.add(new Place.OnScreen(i + 1, (int) Math.round(x - s.x()), (int) Math.round(y - s.y()), seen));
                break;
            }
        }
        return all.isEmpty() ? List.of(new Place.OnScreen(1, (int) x, (int) y, seen)) : all;
    }
}
