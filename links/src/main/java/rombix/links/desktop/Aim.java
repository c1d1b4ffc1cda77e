package rombix.links.desktop;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Place;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Machine.Point;
import rombix.links.desktop.machine.Machine.Window;
import rombix.links.desktop.machine.Stopped;
import rombix.links.desktop.machine.Unable;

/**
 * Checks that keys and clicks arrive where they are meant to, at the moment they are sent: never in a window of Rombix,
 * in the window of a place and no other, and on a screen. One thread's.
 */
@OwnedBy(Owner.LINK)
final class Aim {
    private static final long RAISE_MILLIS = 1500;
    private static final long FREE_MILLIS = 2000;
    private static final long LOOK_MILLIS = 10;

    /** A pixel, and the window that a click there is meant for; null where it is meant for whatever lies there. */
    record Spot(Point at, @Nullable Window window) {
    }

    private final Machine machine;
    private final Eyes eyes;

    /** The window that keys are meant for; null where they are for whatever is in front. */
    private @Nullable Window only;

    Aim(Machine machine, Eyes eyes) {
        this.machine = machine;
        this.eyes = eyes;
    }

    /** @throws Unable where keys would go to Rombix */
    void keyboard() throws Unable {
        if (machine.ownWindow()) {
            throw new Unable("Rombix has the keyboard, so nothing was typed. Choose an application in the step,"
                    + " or let other programs keep the keyboard (Ctrl+Shift+P)");
        }
    }

    /** Has keys go to a window and to no other from now on; to whatever is in front where it is null. */
    void only(@Nullable Window window) {
        only = window;
    }

    /**
     * Sends keys, unless Rombix would get them, or another program than they are for; nothing can come to the front
     * between the check and the keys.
     */
    void keys(Machine.Deed keys) throws Unable, Stopped {
        machine.still(() -> {
            keyboard();
            if (only != null && !machine.keyboard(only)) {
                throw new Unable("another window took the keyboard from “%s”, so the rest was not typed".formatted(only
                        .application()));
            }
            keys.now();
        });
    }

    /**
     * The spots of a place: one, but for each place of a picture in turn.
     *
     * @param raise whether the window of the place may be brought to the front for it
     */
    List<Spot> spots(Place place, boolean raise, Eyes.Pause pause) throws Unable, Stopped {
        Window window = place instanceof Place.InWindow w ? eyes.window(w.application(), "") : null;
        List<Spot> all = new ArrayList<>();
        for (Point at : eyes.at(place, pause)) {
            all.add(new Spot(at, window));
        }
        if (window != null && raise && !machine.topmost(window, all.getFirst().at())) {
            return List.of(raised(window, place, pause));
        }
        return all;
    }

    private Spot raised(Window window, Place place, Eyes.Pause pause) throws Unable, Stopped {
        machine.raise(window);
        long began = System.nanoTime();
        boolean brought = false;
        while (true) {
            Point at = eyes.at(place, pause).getFirst(); // A window that was minimised has its place only now.
            long millis = (System.nanoTime() - began) / 1_000_000L;
            if (machine.topmost(window, at) || millis > RAISE_MILLIS) {
                return new Spot(at, window);
            }
            if (!brought && millis > RAISE_MILLIS / 4) { // Some window managers raise only what gets the keyboard.
                brought = true;
                machine.bring(window);
            }
            pause.now(LOOK_MILLIS);
        }
    }

    /** The one spot of a place. */
    Spot spot(Place place, boolean raise, Eyes.Pause pause) throws Unable, Stopped {
        return spots(place, raise, pause).getFirst();
    }

    /** A pixel that is on a screen. */
    Point onScreen(Point at) throws Unable {
        if (machine.screens().stream().noneMatch(s -> s.holds(at.x(), at.y()))) {
            throw new Unable("the position is off the screen (%d, %d)".formatted(at.x(), at.y()));
        }
        return at;
    }

    /** @throws Unable where a click at a spot would arrive elsewhere */
    void check(Spot spot) throws Unable {
        onScreen(spot.at());
        Window meant = spot.window();
        if (meant != null && machine.topmost(meant, spot.at())) {
            if (machine.ownWindow(meant)) {
                throw itself();
            }
            return;
        }
        Optional<Window> there = machine.at(spot.at());
        boolean own = there.filter(machine::ownWindow).isPresent();
        if (meant == null) {
            if (own) {
                throw itself();
            }
            return;
        }
        if (machine.minimised(meant)) {
            throw new Unable("“%s” is minimised or on another desktop".formatted(meant.application()));
        }
        throw new Unable("“%s” is covered by %s".formatted(meant.application(), own
                ? "Rombix"
                : there.map(w -> "“" + w.application() + "”").orElse("something else")));
    }

    private static Unable itself() {
        return new Unable("nothing was clicked, as Rombix itself is at that position");
    }

    /**
     * Works the pointer at a spot, unless it would arrive elsewhere; nothing can cover the spot between the check and the
     * click.
     *
     * @param held whether we hold a button ourselves, which another hand may not
     */
    void pointer(Spot spot, boolean held, Eyes.Pause pause, Machine.Deed deed) throws Unable, Stopped {
        check(spot);
        long until = System.nanoTime() + FREE_MILLIS * 1_000_000L;
        while (!held && machine.buttonDown()) { // Whatever it was pressed on would get the click.
            if (System.nanoTime() - until > 0) {
                throw new Unable("nothing was clicked, as a mouse button is already held down");
            }
            pause.now(LOOK_MILLIS);
        }
        machine.still(() -> {
            check(spot);
            deed.now();
        });
    }
}
