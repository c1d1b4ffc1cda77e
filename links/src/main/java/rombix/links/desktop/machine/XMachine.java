package rombix.links.desktop.machine;

import com.sun.jna.NativeLong;
import com.sun.jna.Pointer;
import com.sun.jna.platform.unix.X11;
import com.sun.jna.ptr.IntByReference;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Keys;
import rombix.core.sight.Pixels;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** A computer whose desktop is an X server: keys and pointer by its XTEST extension. One thread's. */
@OwnedBy(Owner.LINK)
public final class XMachine extends RealMachine {
    private static final NativeLong NOW = new NativeLong(0);
    private static final long SHIFT = 0xFFE1;
    private static final long KEYPAD_FROM = 0xFFAE;
    private static final long KEYPAD_TO = 0xFFB9;
    private static final int NUM_LOCK = X11.Mod2Mask;
    private static final int BUTTONS = 0x1F00; // Button1Mask to Button5Mask
    private static final Map<String, Integer> BUTTON = Map.of("left", 1, "middle", 2, "right", 3);
    private static final Map<String, Integer> WHEEL = Map.of("up", 4, "down", 5, "left", 6, "right", 7);

    private final XServer server;
    private final XFront top;
    private final X11.XTest test = X11.XTest.INSTANCE;
    /** The key that writes each symbol, and whether it takes Shift. */
    private final Map<Long, Key> keys = new HashMap<>();
    private final SpareKeys spare = new SpareKeys(this::map);
    /** The key that went down for each name: the layout may change before it comes up. */
    private final Map<String, Integer> pressed = new HashMap<>();

    private final X11.XEvent event = new X11.XEvent();

    private record Key(int code, boolean shift) {
    }

    public XMachine() throws Unable {
        server = new XServer();
        top = new XFront(server);
        if (!server.tests()) {
            server.close();
            throw new Unable("this X server doesn't let programs press keys (no XTEST extension)");
        }
        ready();
    }

    @Override
    public void ready() {
        boolean changed = keys.isEmpty();
        while (server.x.XPending(server.display) > 0) { // Nothing is asked for, so all that comes is about the layout.
            server.x.XNextEvent(server.display, event);
            changed |= event.type == X11.MappingNotify;
        }
        if (changed) {
            layout();
        }
    }

    private void layout() {
        IntByReference least = new IntByReference();
        IntByReference most = new IntByReference();
        server.x.XDisplayKeycodes(server.display, least, most);
        IntByReference perKey = new IntByReference();
        int count = most.getValue() - least.getValue() + 1;
        Pointer all = server.more.XGetKeyboardMapping(server.display, (byte) least.getValue(), count, perKey);
        if (all == null) {
            return;
        }
        keys.clear();
        int per = perKey.getValue();
        for (int level = Math.min(per, 2) - 1; level >= 0; level--) {
            for (int i = count - 1; i >= 0; i--) {
                long symbol = all.getNativeLong(((long) i * per + level) * NativeLong.SIZE).longValue();
                int code = least.getValue() + i;
                if (symbol != 0 && !spare.has(code)) {
                    keys.put(symbol, new Key(code, level == 1));
                }
            }
        }
        for (int i = 0; i < count; i++) {
            boolean empty = true;
            for (int j = 0; j < per && empty; j++) {
                empty = all.getNativeLong(((long) i * per + j) * NativeLong.SIZE).longValue() == 0;
            }
            if (empty) {
                spare.add(least.getValue() + i);
            }
        }
        server.free(all);
    }

    /** The key for a symbol: that of the layout, else one that has none and is lent it. */
    private Key key(long symbol) throws Unable {
        Key known = keys.get(symbol);
        if (known != null) {
            return known;
        }
        return new Key(lend(symbol), false);
    }

    private int lend(long symbol) throws Unable {
        return spare.lend(symbol, pressed.values(), System.nanoTime());
    }

    @Override
    public long keysReadyIn() {
        return spare.readyIn(System.nanoTime());
    }

    private void map(int code, long symbol) {
        X11.KeySym[] symbols = {new X11.KeySym(symbol), new X11.KeySym(symbol)};
        server.x.XChangeKeyboardMapping(server.display, code, 2, symbols, 1);
        server.x.XSync(server.display, false);
    }

    @Override
    public void key(String key, boolean down) throws Unable {
        Integer code = down ? null : pressed.remove(key);
        if (code == null) {
            code = code(key);
        }
        if (down) {
            pressed.put(key, code);
        }
        SentKeys.sent(key, down);
        fake(code, down);
        server.x.XFlush(server.display);
    }

    private int code(String key) throws Unable {
        Long symbol = XKeys.symbol(key);
        if (symbol == null) {
            throw new Unable("there is no key “" + key + "” here");
        }
        boolean digit = symbol >= KEYPAD_FROM && symbol <= KEYPAD_TO;
        if (digit && (state() & NUM_LOCK) == 0) { // Without Num Lock its key would move instead.
            return lend(symbol);
        }
        return key(symbol).code();
    }

    private void fake(int code, boolean down) {
        test.XTestFakeKeyEvent(server.display, code, down, NOW);
    }

    @Override
    public void type(int codePoint) throws Unable {
        Key key = key(XKeys.symbolOf(codePoint));
        String name = XKeys.keyOf(codePoint);
        if (!name.isEmpty()) {
            SentKeys.sent(name, true);
            SentKeys.sent(name, false);
        }
        boolean shift = key.shift() != ((state() & X11.LockMask) != 0 && Character.isLetter(codePoint));
        int shiftCode = shift ? key(SHIFT).code() : 0;
        if (shift) {
            fake(shiftCode, true);
        }
        fake(key.code(), true);
        fake(key.code(), false);
        if (shift) {
            fake(shiftCode, false);
        }
        server.x.XSync(server.display, false);
    }

    private int state() {
        return asked()[2];
    }

    /** Where the pointer is, and what is down. */
    private int[] asked() {
        IntByReference left = new IntByReference();
        IntByReference top = new IntByReference();
        IntByReference unused = new IntByReference();
        IntByReference mask = new IntByReference();
        server.x.XQueryPointer(server.display, server.root, new X11.WindowByReference(), new X11.WindowByReference(),
                left, top, unused, unused, mask);
        return new int[]{left.getValue(), top.getValue(), mask.getValue()};
    }

    private boolean isDown(byte[] map, @Nullable Key key) {
        return key != null && (map[key.code() / 8] >> key.code() % 8 & 1) != 0;
    }

    @Override
    public Set<String> down() {
        byte[] map = new byte[32];
        server.x.XQueryKeymap(server.display, map);
        Set<String> down = new LinkedHashSet<>();
        for (String modifier : Keys.MODIFIERS) {
            if (isDown(map, keys.get(XKeys.symbol(modifier)))) {
                down.add(modifier);
            }
        }
        return down;
    }

    @Override
    public boolean touched() {
        byte[] map = new byte[32];
        server.x.XQueryKeymap(server.display, map);
        for (String modifier : Keys.MODIFIERS) {
            Key key = keys.get(XKeys.symbol(modifier));
            if (key != null) {
                map[key.code() / 8] &= (byte) ~(1 << key.code() % 8);
            }
        }
        for (byte b : map) {
            if (b != 0) {
                return true;
            }
        }
        return (state() & BUTTONS) != 0;
    }

    @Override
    public Point pointer() {
        int[] at = asked();
        return new Point(at[0], at[1]);
    }

    @Override
    public void move(Point to) {
        test.XTestFakeMotionEvent(server.display, -1, to.x(), to.y(), NOW);
        server.x.XSync(server.display, false);
    }

    @Override
    public void button(String button, boolean down) {
        test.XTestFakeButtonEvent(server.display, BUTTON.getOrDefault(button, 1), down, NOW);
        server.x.XSync(server.display, false);
    }

    @Override
    public void wheel(String way) {
        SentKeys.wheel(way);
        int button = WHEEL.getOrDefault(way, 5);
        test.XTestFakeButtonEvent(server.display, button, true, NOW);
        test.XTestFakeButtonEvent(server.display, button, false, NOW);
        server.x.XSync(server.display, false);
    }

    @Override
    public List<Box> screens() {
        return server.screens();
    }

    @Override
    public List<Window> windows() {
        return server.windows();
    }

    @Override
    public Optional<Window> front() {
        return server.front();
    }

    @Override
    public Pixels picture(Box part) throws Unable {
        return server.picture(part);
    }

    @Override
    public boolean ownWindow() {
        return top.ownWindow(top.keyboard());
    }

    @Override
    public boolean ownWindow(Window window) {
        return top.ownWindow(window);
    }

    @Override
    public boolean keyboard(Window window) {
        return top.within(top.keyboard(), window);
    }

    @Override
    public Optional<Window> at(Point point) {
        return top.at(point.x(), point.y());
    }

    @Override
    public boolean topmost(Window window, Point point) {
        return top.topmost(window, point.x(), point.y());
    }

    @Override
    public boolean minimised(Window window) {
        return !top.shown(window);
    }

    @Override
    public void still(Deed deed) throws Unable, Stopped {
        server.more.XGrabServer(server.display);
        try {
            deed.now();
            server.x.XSync(server.display, false);
        } finally {
            server.more.XUngrabServer(server.display);
            server.x.XFlush(server.display);
        }
    }

    @Override
    public boolean buttonDown() {
        return (state() & BUTTONS) != 0;
    }

    @Override
    public void bring(Window window) {
        server.bring(window);
    }

    @Override
    public void raise(Window window) {
        if (top.shown(window)) {
            server.raise(window);
        } else {
            server.bring(window); // It is minimised, or on another desktop.
        }
    }

    @Override
    public void close(Window window) {
        server.close(window);
    }

    @Override
    public void minimise(Window window) {
        server.minimise(window);
    }

    @Override
    public void place(Window window, Box box) {
        server.place(window, box);
    }

    @Override
    public void close() {
        spare.lent().forEach(code -> map(code, 0)); // The layout is left as it was found.
        server.close();
        super.close();
    }
}
