package rombix.web.deck;

import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.time.Clock;
import rombix.running.RunningDeck;
import rombix.running.state.Seen;
import rombix.running.state.Subscription;
import rombix.web.access.Access;

/**
 * All devices that show pages now. It follows the deck while there is one, at most thirty times a second, and waits for
 * nothing while there is none. Its loop's thread has it; only {@link #DeviceScreens the constructor} is anybody's.
 */
public final class DeviceScreens implements AutoCloseable {
    private static final long PULSE_MILLIS = 33;
    private static final long GREETING_SECONDS = 5;
    private static final long WATCH_MILLIS = 250;

    private final RunningDeck deck;
    private final ScheduledExecutorService loop;
    private final Clock clock;
    private final Map<DeviceScreen, BooleanSupplier> screens = new HashMap<>();
    private final LiveFaces faces;
    private @Nullable Subscription subscription;
    private @Nullable ScheduledFuture<?> greeting;
    private @Nullable ScheduledFuture<?> ticking;
    private @Nullable ScheduledFuture<?> watching;
    private long lookedMillis;

    /** @param loop the one thread that does all of it */
    public DeviceScreens(RunningDeck deck, ScheduledExecutorService loop, Clock clock) {
        this.deck = deck;
        this.loop = loop;
        this.clock = clock;
        faces = new LiveFaces(deck);
    }

    private long millis() {
        return clock.nanos() / 1_000_000;
    }

    private Collection<String> shown() {
        Set<String> pages = new LinkedHashSet<>();
        screens.keySet().forEach(s -> pages.add(s.page()));
        return pages;
    }

    /**
     * A device shows pages from now on.
     *
     * @param out sends it a message
     * @param ready whether it can take one now; one that can't is sent what it missed once it can
     */
    public DeviceScreen open(Access access, Consumer<String> out, BooleanSupplier ready) {
        DeviceScreen screen = new DeviceScreen(faces, deck.port(access.source()), access.source(), access, out);
        screens.put(screen, ready);
        if (subscription == null) {
            subscription = deck.feed().subscribe(this::soon, this::see);
            greeting = loop.scheduleWithFixedDelay(() -> screens.keySet().forEach(DeviceScreen::greet),
                    GREETING_SECONDS, GREETING_SECONDS, TimeUnit.SECONDS);
        } else {
            screen.send();
        }
        tick();
        return screen;
    }

    /** A device is gone. */
    public void close(DeviceScreen screen) {
        screen.close();
        screens.remove(screen);
        if (screens.isEmpty()) {
            close();
        }
    }

    /** What a device says. */
    public void take(DeviceScreen screen, String text) {
        screen.take(text, millis());
        tick();
        if (screen.holds() && watching == null) {
            watching = loop.scheduleWithFixedDelay(this::watch, WATCH_MILLIS, WATCH_MILLIS, TimeUnit.MILLISECONDS);
        }
    }

    private void watch() {
        boolean held = false;
        for (DeviceScreen s : screens.keySet()) {
            held |= s.watch(millis());
        }
        if (!held) {
            watching = cancelled(watching);
        }
    }

    /** A device can take messages again. */
    public void ready(DeviceScreen screen) {
        screen.send();
    }

    /** What a device may do has changed. */
    public void changed(DeviceScreen screen, Access now) {
        screen.access(now);
        screen.send();
    }

    /** At once after a rest, else with the next pulse. */
    private void soon(Runnable look) {
        long wait = lookedMillis + PULSE_MILLIS - millis();
        if (wait <= 0) {
            loop.execute(look);
        } else {
            loop.schedule(look, wait, TimeUnit.MILLISECONDS);
        }
    }

    private void see(Seen seen) {
        lookedMillis = millis();
        faces.see(seen, shown());
        watch(); // The deck may have left Live.
        seen.since().forEach(h -> screens.keySet().forEach(s -> s.happened(h)));
        send();
        tick();
    }

    private void send() {
        screens.forEach((screen, ready) -> {
            if (ready.getAsBoolean()) {
                screen.send();
            }
        });
    }

    /** Words such as the time of day change though nothing happens; where there are none, nothing waits for a second. */
    private void tick() {
        if (ticking == null && faces.ticks(shown())) {
            ticking = loop.scheduleWithFixedDelay(() -> {
                if (faces.ticks(shown())) {
                    faces.tick(shown());
                    send();
                } else {
                    ticking = cancelled(ticking);
                }
            }, 1, 1, TimeUnit.SECONDS);
        }
    }

    private static @Nullable ScheduledFuture<?> cancelled(@Nullable ScheduledFuture<?> timer) {
        if (timer != null) {
            timer.cancel(false);
        }
        return null;
    }

    /** Nothing is followed any more, and all that devices hold is let go. */
    @Override
    public void close() {
        screens.keySet().forEach(DeviceScreen::close);
        screens.clear();
        if (subscription != null) {
            Objects.requireNonNull(subscription).close();
            subscription = null;
        }
        greeting = cancelled(greeting);
        ticking = cancelled(ticking);
        watching = cancelled(watching);
    }
}
