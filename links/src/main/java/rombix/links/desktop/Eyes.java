package rombix.links.desktop;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import rombix.core.computer.Place;
import rombix.core.sight.Match;
import rombix.core.sight.Pixels;
import rombix.core.sight.Search;
import rombix.core.sight.Sights;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Machine.Box;
import rombix.links.desktop.machine.Machine.Point;
import rombix.links.desktop.machine.Machine.Window;
import rombix.links.desktop.machine.PngPixels;
import rombix.links.desktop.machine.Stopped;
import rombix.links.desktop.machine.Unable;

/** Finds things on a computer's screens: windows, places, pictures. One thread's, but for {@link #sights}. */
@OwnedBy(Owner.LINK)
final class Eyes {
    /** How many places of a picture are told of. */
    private static final int MOST = 64;
    private static final long AGAIN_MILLIS = 100;
    private static final int SCALED_EVERY = 10;
    /** What a picture may measure on a screen that is scaled otherwise. */
    private static final double[] SCALES = {1.25, 1.5, 2, 1.75, 0.8, 2.0 / 3, 0.5, 4.0 / 7};
    /** Made larger or smaller it is less alike, by so much. */
    private static final double BLUR = 0.2;
    private static final double LEAST = 0.5;

    /** Waits; ends where what is done is stopped. */
    interface Pause {
        void now(long millis) throws Stopped;
    }

    private final Machine machine;
    private final Map<String, Pixels> read = new HashMap<>();
    private volatile Sights sights = Sights.NONE;

    Eyes(Machine machine) {
        this.machine = machine;
    }

    /** What the board has it look for, from now on. From any thread. */
    void sights(Sights now) {
        sights = now;
    }

    /** The foremost window of an application, with a text in its title; each may be blank for any. */
    Window window(String application, String title) throws Unable {
        if (application.isBlank() && title.isBlank()) {
            return machine.front().orElseThrow(() -> new Unable("no window is in front"));
        }
        return machine.windows().stream().filter(w -> (application.isBlank() || w.application().equalsIgnoreCase(
                application)) && w.title().toLowerCase(java.util.Locale.ROOT).contains(title.toLowerCase(
                        java.util.Locale.ROOT)))
                .findFirst().orElseThrow(() -> new Unable(title.isBlank()
                        ? "“" + application + "” has no window: open it first"
                        : "no window has “" + title + "” in its title"));
    }

    private Box screen(int number) throws Unable {
        List<Box> screens = machine.screens();
        if (number < 1 || number > screens.size()) {
            throw new Unable("there is no screen %d".formatted(number));
        }
        return screens.get(number - 1);
    }

    private Box region(Place.Region r) throws Unable {
        Box screen = screen(r.screen());
        return new Box(screen.x() + r.x(), screen.y() + r.y(), r.width(), r.height());
    }

    /** The pixels where a place is now: one, but for every place of a picture in turn. */
    List<Point> at(Place place, Pause pause) throws Unable, Stopped {
        return switch (place) {
            case Place.Here _ -> List.of(machine.pointer());
            case Place.OnScreen s -> {
                Box screen = screen(s.screen());
                yield List.of(new Point(screen.x() + s.x(), screen.y() + s.y()));
            }
            case Place.InWindow w -> {
                Box box = window(w.application(), "").box();
                yield List.of(new Point(w.corner().right() ? box.x() + box.width() - 1 - w.x() : box.x() + w.x(), w
                        .corner().lower() ? box.y() + box.height() - 1 - w.y() : box.y() + w.y()));
            }
            case Place.Region r -> {
                Box box = region(r);
                yield List.of(new Point(box.x() + box.width() / 2, box.y() + box.height() / 2));
            }
            case Place.OnPicture p -> chosen(p, found(p, pause)).stream().map(m -> point(p, m)).toList();
        };
    }

    private Point point(Place.OnPicture p, Match m) {
        Pixels picture = read.get(p.picture());
        double scale = picture == null ? 1 : (double) m.width() / picture.width();
        return p.x() < 0
                ? new Point(m.middleX(), m.middleY())
                : new Point(m.x() + (int) Math.round(p.x() * scale), m.y() + (int) Math.round(p.y() * scale));
    }

    private String name(Place.OnPicture p) {
        return sights.names().getOrDefault(p.picture(), "the picture");
    }

    private Pixels picture(Place.OnPicture p) throws Unable {
        Pixels known = read.get(p.picture());
        if (known == null) {
            String data = sights.pictures().get(p.picture());
            if (data == null) {
                throw new Unable("that picture was deleted: capture it again");
            }
            known = PngPixels.of(data);
            read.put(p.picture(), known);
        }
        return known;
    }

    /** All that its screens show. */
    Box everywhere() throws Unable {
        List<Box> all = machine.screens();
        int left = all.stream().mapToInt(Box::x).min().orElse(0);
        int top = all.stream().mapToInt(Box::y).min().orElse(0);
        return new Box(left, top, all.stream().mapToInt(b -> b.x() + b.width()).max().orElse(1) - left, all.stream()
                .mapToInt(b -> b.y() + b.height()).max().orElse(1) - top);
    }

    private Box part(String within) throws Unable {
        Box all = everywhere();
        if (within.equals("everywhere")) {
            return all;
        }
        if (within.startsWith("screen ")) {
            return screen(Integer.parseInt(within.substring(7)));
        }
        Box box = within.startsWith("window ")
                ? window(within.substring(7), "").box()
                : region((Place.Region) Place.of(within));
        return clipped(box, all);
    }

    private static Box clipped(Box box, Box to) throws Unable {
        int left = Math.max(box.x(), to.x());
        int top = Math.max(box.y(), to.y());
        int width = Math.min(box.x() + box.width(), to.x() + to.width()) - left;
        int height = Math.min(box.y() + box.height(), to.y() + to.height()) - top;
        if (width < 1 || height < 1) {
            throw new Unable("that area is off the screen");
        }
        return new Box(left, top, width, height);
    }

    /**
     * Where a picture is now, in reading order.
     *
     * @param scaled whether it is also looked for as another scaling of the screen shows it, where it is not there as it is
     */
    List<Match> now(Place.OnPicture p, boolean scaled) throws Unable {
        Box part = part(p.within());
        Pixels seen = machine.picture(part);
        Pixels sought = picture(p);
        double alike = p.alike() / 100.0;
        List<Match> found = Search.all(seen, sought, alike, MOST);
        for (int i = 0; scaled && found.isEmpty() && i < SCALES.length; i++) {
            Pixels other = PngPixels.scaled(sought, SCALES[i]);
            found = Search.all(seen, other, Math.max(LEAST, alike - BLUR), MOST);
        }
        return found.stream().map(m -> new Match(m.x() + part.x(), m.y() + part.y(), m.width(), m.height(), m.alike()))
                .toList();
    }

    /** Waits until it is there, as long as it may stay away. Empty where it did not come. */
    private List<Match> found(Place.OnPicture p, Pause pause) throws Unable, Stopped {
        long until = System.nanoTime() + p.millis() * 1_000_000L;
        for (int i = 0;; i++) {
            List<Match> found = now(p, i % SCALED_EVERY == 0);
            if (!found.isEmpty() || System.nanoTime() - until >= 0) {
                return found;
            }
            pause.now(AGAIN_MILLIS);
        }
    }

    private List<Match> chosen(Place.OnPicture p, List<Match> found) throws Unable {
        if (found.isEmpty()) {
            throw new Unable("“%s” isn't on the screen".formatted(name(p)) + (p.within().equals("everywhere")
                    ? ""
                    : " there") + (p.millis() > 0 ? " within %s s".formatted(p.millis() / 1000.0) : ""));
        }
        return switch (p.which()) {
            case SOLE -> {
                if (found.size() > 1) {
                    throw new Unable("“%s” was found %d times: choose in the step which one to use".formatted(name(
                            p), found.size()));
                }
                yield found;
            }
            case BEST -> List.of(found.stream().max(Comparator.comparingDouble(Match::alike)).orElseThrow());
            case CLOSEST -> {
                Point pointer = machine.pointer();
                yield List.of(found.stream().min(Comparator.comparingDouble(m -> Math.hypot(m.middleX() - pointer.x(), m
                        .middleY() - pointer.y()))).orElseThrow());
            }
            case FIRST -> List.of(found.getFirst());
            case EACH -> found;
        };
    }

    /** Waits for a picture to appear and returns its places. Fails if it doesn't appear, or if the match isn't unique as required. */
    List<Match> awaitPicture(Place.OnPicture p, Pause pause) throws Unable, Stopped {
        List<Match> found = found(p, pause);
        chosen(p, found);
        return found;
    }

    /** Waits for a picture to go. Fails where it stays. */
    void go(Place.OnPicture p, Pause pause) throws Unable, Stopped {
        long until = System.nanoTime() + p.millis() * 1_000_000L;
        while (!now(p, false).isEmpty()) {
            if (System.nanoTime() - until >= 0) {
                throw new Unable("“%s” is still on the screen after %s s".formatted(name(p), p.millis() / 1000.0));
            }
            pause.now(AGAIN_MILLIS);
        }
    }

    /** Whether each picture that is asked for by a condition is to be seen, by its id. */
    Map<String, Boolean> watched() {
        Map<String, Boolean> all = new HashMap<>();
        Sights looked = sights;
        for (String id : looked.watched()) {
            Optional.ofNullable(looked.places().get(id)).ifPresent(p -> {
                try {
                    all.put(id, !now(p, false).isEmpty());
                } catch (Unable e) {
                    all.put(id, false); // The window that it is looked for in is not there.
                }
            });
        }
        return all;
    }

    /** What is to be seen at a place: of a region that, of another the window or the screen that it lies in. */
    Pixels seen(Place place, String of, Pause pause) throws Unable, Stopped {
        Box all = everywhere();
        if (of.equals("everything")) {
            return machine.picture(all);
        }
        if (of.equals("front")) {
            return machine.picture(clipped(window("", "").box(), all));
        }
        if (place instanceof Place.Region r) {
            return machine.picture(clipped(region(r), all));
        }
        if (place instanceof Place.InWindow w) {
            return machine.picture(clipped(window(w.application(), "").box(), all));
        }
        Point at = at(place, pause).getFirst();
        List<Box> screens = new ArrayList<>(machine.screens());
        return machine.picture(screens.stream().filter(s -> s.holds(at.x(), at.y())).findFirst().orElse(all));
    }

    /** The colour at a place, as {@code #RRGGBB}. */
    String colour(Place place, Pause pause) throws Unable, Stopped {
        Point at = at(place, pause).getFirst();
        return "#%06X".formatted(machine.picture(clipped(new Box(at.x(), at.y(), 1, 1), everywhere())).at(0, 0));
    }

    /** A pixel as places write it. */
    String words(Point p) throws Unable {
        List<Box> screens = machine.screens();
        for (int i = 0; i < screens.size(); i++) {
            Box s = screens.get(i);
            if (s.holds(p.x(), p.y())) {
                return new Place.OnScreen(i + 1, p.x() - s.x(), p.y() - s.y(), null).toString();
            }
        }
        return new Place.OnScreen(1, p.x(), p.y(), null).toString();
    }
}
