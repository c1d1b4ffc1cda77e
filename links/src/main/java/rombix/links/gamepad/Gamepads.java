package rombix.links.gamepad;

import java.nio.IntBuffer;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.lwjgl.sdl.SDLError;
import org.lwjgl.sdl.SDLHints;
import org.lwjgl.sdl.SDLInit;
import org.lwjgl.sdl.SDLJoystick;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.touch.Touch;
import rombix.links.link.Loop;

/**
 * Gamepads and joysticks, whatever window is in front. They are known by their names; what of them moves is told as
 * {@link Touch.Gamepad}. Nothing is loaded or looked at as long as no board wants one. Safe to use from any thread.
 */
public final class Gamepads implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Gamepads.class);
    private static final long LOOK_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final long BEAT_MILLIS = 8;
    private static final long IDLE_MILLIS = 1000;

    private final Consumer<Touch> touched;
    private final Map<Integer, Device> open = new ConcurrentHashMap<>();
    private final Semaphore wake = new Semaphore(0);
    private volatile Set<String> wanted = Set.of();
    private volatile Set<String> here = Set.of();
    private volatile boolean all;
    private volatile @Nullable String trouble;
    private boolean begun;
    private long lookedNanos;
    private final Loop loop;

    /** @param touched told of what moves, on the thread of the gamepads; must not block */
    public Gamepads(Consumer<Touch> touched) {
        this.touched = touched;
        loop = Loop.startOften("gamepads", this::turn, e -> trouble = String.valueOf(e.getMessage()));
    }

    /**
     * Uses these from now on, by their names.
     *
     * @param every whether all others that there are, too: for learning
     */
    public void use(Collection<String> names, boolean every) {
        wanted = Set.copyOf(names);
        all = every;
        wake.release();
    }

    /** Names of the connected gamepads, as of the last scan. */
    public Set<String> connected() {
        return here;
    }

    /** Why gamepads can't be used on this computer; null if they can. */
    public @Nullable String trouble() {
        return trouble;
    }

    private boolean asked() {
        return all || !wanted.isEmpty();
    }

    private void turn() throws InterruptedException {
        if (!asked() || trouble != null) {
            closeUnused(true);
            here = Set.of();
            wake.acquire();
            return;
        }
        if (!begun && !begin()) {
            return;
        }
        SDLJoystick.SDL_UpdateJoysticks();
        if (lookedNanos == 0 || System.nanoTime() - lookedNanos > LOOK_NANOS || wake.drainPermits() > 0) {
            look();
        }
        open.values().forEach(d -> d.tell(touched));
        wake.tryAcquire(open.isEmpty() ? IDLE_MILLIS : BEAT_MILLIS, TimeUnit.MILLISECONDS);
    }

    private boolean begin() {
        try {
            SDLHints.SDL_SetHint(SDLHints.SDL_HINT_NO_SIGNAL_HANDLERS, "1");
            SDLHints.SDL_SetHint(SDLHints.SDL_HINT_JOYSTICK_ALLOW_BACKGROUND_EVENTS, "1");
            begun = SDLInit.SDL_InitSubSystem(SDLInit.SDL_INIT_GAMEPAD);
            if (!begun) {
                trouble = SDLError.SDL_GetError();
            }
        } catch (LinkageError | IllegalStateException e) { // There is no library for this computer.
            trouble = String.valueOf(e.getMessage());
        }
        if (trouble != null) {
            LOG.warn("gamepads can't be used: {}", trouble);
        }
        return begun;
    }

    private void look() {
        lookedNanos = System.nanoTime();
        Map<Integer, String> now = new LinkedHashMap<>();
        IntBuffer ids = SDLJoystick.SDL_GetJoysticks();
        for (int i = 0; ids != null && i < ids.limit(); i++) {
            String name = SDLJoystick.SDL_GetJoystickNameForID(ids.get(i));
            if (name != null) {
                now.put(ids.get(i), name);
            }
        }
        here = new TreeSet<>(now.values());
        closeUnused(false);
        now.forEach((id, name) -> {
            if ((all || wanted.contains(name)) && !open.containsKey(id)) {
                Device device = Device.open(id, name);
                if (device != null) {
                    open.put(id, device);
                }
            }
        });
    }

    /** Closes devices that are unplugged or no longer used. */
    private void closeUnused(boolean every) {
        for (Map.Entry<Integer, Device> e : List.copyOf(open.entrySet())) {
            Device device = e.getValue();
            if (every || !device.connected() || !all && !wanted.contains(device.name())) {
                open.remove(e.getKey());
                device.close();
                touched.accept(new Touch.Gone(device.name(), "gamepad"));
            }
        }
    }

    @Override
    public void close() {
        wanted = Set.of();
        all = false;
        loop.close();
    }
}
