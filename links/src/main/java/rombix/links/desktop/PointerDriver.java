package rombix.links.desktop;

import java.util.List;
import rombix.core.computer.Place;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.links.desktop.Aim.Spot;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Machine.Point;
import rombix.links.desktop.machine.Stopped;
import rombix.links.desktop.machine.Unable;

/** Works the pointer of a computer: clicks, drags, the wheel. One thread's. */
@OwnedBy(Owner.LINK)
final class PointerDriver {
    private static final long TAP_MILLIS = 10;
    private static final long DOUBLE_MILLIS = 60;
    private static final long FRAME_MILLIS = 10;

    /** What holds keys and buttons down, and keeps the pace. */
    interface Grip {
        /** Presses a button of the pointer, as {@code button left}, and remembers it. */
        void down(String what) throws Unable;

        void up(String what);

        boolean holds(String what);

        boolean holdsButton();

        /** Waits, unless it is stopped. */
        void pause(long millis) throws Stopped;

        /** Something was done: what waited for that lets go. */
        void done();
    }

    private final Machine machine;
    private final Grip hands;
    private final Aim aim;

    PointerDriver(Machine machine, Grip hands, Aim aim) {
        this.machine = machine;
        this.hands = hands;
        this.aim = aim;
    }

    /**
     * @param raise whether the window of the place may be brought to the front
     * @param pace milliseconds between one place and the next, where there are several
     */
    void click(String button, int times, Place place, boolean back, boolean raise, long pace) throws Unable, Stopped {
        Point before = machine.pointer();
        List<Spot> spots = aim.spots(place, raise, hands::pause);
        for (int i = 0; i < spots.size(); i++) {
            if (i > 0) {
                hands.pause(pace);
            }
            click(button, times, place, spots.get(i));
        }
        hands.done();
        if (back) {
            machine.move(before);
        }
    }

    private void click(String button, int times, Place place, Spot spot) throws Unable, Stopped {
        for (int i = 0; i < times; i++) {
            if (i > 0) {
                hands.pause(DOUBLE_MILLIS);
            }
            press(button, place, spot);
            try {
                hands.pause(TAP_MILLIS);
            } finally {
                hands.up("button " + button);
            }
        }
    }

    private void press(String button, Place place, Spot spot) throws Unable, Stopped {
        aim.pointer(spot, hands.holdsButton(), hands::pause, () -> {
            go(place, spot.at());
            hands.down("button " + button);
        });
    }

    private void go(Place place, Point at) throws Unable {
        if (!(place instanceof Place.Here)) {
            machine.move(at);
        }
    }

    void move(Place place) throws Unable, Stopped {
        go(place, aim.onScreen(aim.spot(place, false, hands::pause).at()));
    }

    /** Moves the pointer by so many pixels, to the right and up. */
    void moveBy(int across, int up) throws Unable {
        Point now = machine.pointer();
        machine.move(new Point(now.x() + across, now.y() - up));
    }

    /** Turns the wheel by so many notches, to the right and up. */
    void roll(int across, int up) throws Unable, Stopped {
        if (up != 0) {
            wheel(up > 0 ? "up" : "down", Math.abs(up), Place.HERE, false);
        }
        if (across != 0) {
            wheel(across > 0 ? "right" : "left", Math.abs(across), Place.HERE, false);
        }
    }

    void hold(String button, Place place, boolean raise) throws Unable, Stopped {
        press(button, place, aim.spot(place, raise, hands::pause));
    }

    void release(String button, Place place) throws Unable, Stopped {
        if (hands.holds("button " + button)) {
            try {
                move(place);
            } finally {
                hands.up("button " + button);
            }
        }
    }

    void drag(Place from, Place to, String button, long millis, boolean back, boolean raise) throws Unable, Stopped {
        Point before = machine.pointer();
        Spot start = aim.spot(from, raise, hands::pause);
        Spot end = aim.spot(to, false, hands::pause);
        aim.check(new Spot(end.at(), null)); // Where it is dropped may lie under what is dragged.
        machine.move(aim.onScreen(start.at()));
        hands.pause(TAP_MILLIS);
        press(button, from, start);
        try {
            long began = System.nanoTime();
            for (double part = 0; part < 1;) {
                hands.pause(FRAME_MILLIS);
                part = millis <= 0 ? 1 : Math.min(1, (System.nanoTime() - began) / (millis * 1e6));
                machine.move(between(start.at(), end.at(), part));
            }
            hands.pause(TAP_MILLIS);
        } finally {
            hands.up("button " + button);
        }
        hands.done();
        if (back) {
            machine.move(before);
        }
    }

    private static Point between(Point from, Point to, double part) {
        return new Point((int) Math.round(from.x() + part * (to.x() - from.x())), (int) Math.round(from.y() + part * (to
                .y() - from.y())));
    }

    void wheel(String way, int clicks, Place place, boolean raise) throws Unable, Stopped {
        Spot spot = aim.spot(place, raise, hands::pause);
        for (int i = 0; i < clicks; i++) {
            aim.pointer(spot, hands.holdsButton(), hands::pause, () -> {
                go(place, spot.at());
                machine.wheel(way);
            });
            hands.pause(FRAME_MILLIS);
        }
        hands.done();
    }
}
