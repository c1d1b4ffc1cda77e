package rombix.links.desktop.machine;

import com.sun.jna.Native;
import com.sun.jna.Platform;
import com.sun.jna.platform.WindowUtils;
import com.sun.jna.platform.win32.User32;
import com.sun.jna.platform.win32.WinDef.DWORD;
import com.sun.jna.platform.win32.WinDef.HWND;
import com.sun.jna.platform.win32.WinDef.WORD;
import com.sun.jna.platform.win32.WinUser;
import com.sun.jna.platform.win32.WinUser.INPUT;
import com.sun.jna.ptr.IntByReference;
import java.awt.AWTException;
import java.awt.GraphicsDevice;
import java.awt.GraphicsEnvironment;
import java.awt.MouseInfo;
import java.awt.PointerInfo;
import java.awt.Rectangle;
import java.awt.Robot;
import java.awt.event.InputEvent;
import java.awt.event.KeyEvent;
import java.util.ArrayList;
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

/** A computer with Windows or macOS: keys and pointer by the JDK's robot, windows by the system. One thread's. */
@OwnedBy(Owner.LINK)
public final class RobotMachine extends RealMachine {
    private static final Map<String, Integer> BUTTON = Map.of("left", InputEvent.BUTTON1_DOWN_MASK, "middle",
            InputEvent.BUTTON2_DOWN_MASK, "right", InputEvent.BUTTON3_DOWN_MASK);
    /** The robot's codes by the names of their constants. */
    private static final String OTHERS = """
            Enter=ENTER, Space=SPACE, Tab=TAB, Esc=ESCAPE, Backspace=BACK_SPACE, Delete=DELETE,
            Insert=INSERT, Home=HOME, End=END, Page Up=PAGE_UP, Page Down=PAGE_DOWN, Up=UP, Down=DOWN,
            Left=LEFT, Right=RIGHT, Ctrl=CONTROL, Shift=SHIFT, Alt=ALT, Meta=META, Right Alt=ALT_GRAPH,
            Minus=MINUS, Equals=EQUALS, Open Bracket=OPEN_BRACKET, Close Bracket=CLOSE_BRACKET,
            Back Slash=BACK_SLASH, Semicolon=SEMICOLON, Quote=QUOTE, Back Quote=BACK_QUOTE, Comma=COMMA,
            Period=PERIOD, Slash=SLASH, Numpad Add=ADD, Numpad Subtract=SUBTRACT, Numpad Multiply=MULTIPLY,
            Numpad Divide=DIVIDE, Numpad Decimal=DECIMAL, Numpad Enter=ENTER, Caps Lock=CAPS_LOCK,
            Num Lock=NUM_LOCK, Scroll Lock=SCROLL_LOCK, Print Screen=PRINTSCREEN, Pause Break=PAUSE,
            Context Menu=CONTEXT_MENU""";
    private static final Map<String, Integer> CODES = codes();
    /** Windows' own codes of keys that the robot does not know (winuser.h). */
    private static final Map<String, Integer> VIRTUAL = Map.of("Mute", 0xAD, "Volume Down", 0xAE, "Volume Up", 0xAF,
            "Track Next", 0xB0, "Track Prev", 0xB1, "Stop", 0xB2, "Play", 0xB3, "Right Ctrl", 0xA3, "Right Shift", 0xA1,
            "Right Meta", 0x5C);
    private static final int UNICODE = 0x0004;
    private static final int KEY_UP = 0x0002;

    private final Robot robot;
    private final Set<String> held = new LinkedHashSet<>();

    public RobotMachine() throws Unable {
        try {
            robot = new Robot();
        } catch (AWTException | RuntimeException e) {
            throw new Unable(Platform.isMac()
                    ? "macOS hasn't given permission: allow Rombix under Privacy, Accessibility, then restart it"
                    : "this desktop doesn't let programs control each other");
        }
    }

    @Override
    public Pixels picture(Box part) {
        return PngPixels.pixels(robot.createScreenCapture(new Rectangle(part.x(), part.y(), part.width(), part
                .height())));
    }

    private static Map<String, Integer> codes() {
        Map<String, Integer> codes = new HashMap<>();
        for (String pair : OTHERS.split(",\\s*")) {
            String[] parts = pair.strip().split("=");
            try {
                codes.put(parts[0], KeyEvent.class.getField("VK_" + parts[1]).getInt(null));
            } catch (ReflectiveOperationException e) {
                throw new IllegalStateException(e);
            }
        }
        if (Platform.isWindows()) {
            codes.put("Meta", KeyEvent.VK_WINDOWS);
        }
        return codes;
    }

    private static @Nullable Integer code(String key) {
        if (key.length() == 1) {
            return KeyEvent.getExtendedKeyCodeForChar(key.charAt(0));
        }
        if (key.matches("F\\d+")) {
            int n = Integer.parseInt(key.substring(1));
            return n <= 12 ? KeyEvent.VK_F1 + n - 1 : KeyEvent.VK_F13 + n - 13;
        }
        return key.matches("Numpad \\d") ? Integer.valueOf(KeyEvent.VK_NUMPAD0 + key.charAt(7) - '0') : CODES.get(key);
    }

    @Override
    public void key(String key, boolean down) throws Unable {
        Integer code = code(key);
        Integer virtual = VIRTUAL.get(key);
        SentKeys.sent(key, down);
        if (virtual != null && Platform.isWindows()) {
            send(virtual, 0, down ? 0 : KEY_UP);
        } else if (code == null) {
            throw new Unable("this system can't send the key “" + key + "”");
        } else if (down) {
            robot.keyPress(code);
        } else {
            robot.keyRelease(code);
        }
        if (down) {
            held.add(key);
        } else {
            held.remove(key);
        }
    }

    private static void send(int virtual, int scan, int flags) {
        INPUT input = new INPUT();
        input.type = new DWORD(INPUT.INPUT_KEYBOARD);
        input.input.setType("ki");
        input.input.ki.wVk = new WORD(virtual);
        input.input.ki.wScan = new WORD(scan);
        input.input.ki.dwFlags = new DWORD(flags);
        User32.INSTANCE.SendInput(new DWORD(1), (INPUT[]) input.toArray(1), input.size());
    }

    @Override
    public void type(int codePoint) throws Unable {
        String key = XKeys.keyOf(codePoint);
        if (Platform.isWindows() && codePoint != '\n' && codePoint != '\t') {
            for (char c : Character.toChars(codePoint)) {
                send(0, c, UNICODE);
                send(0, c, UNICODE | KEY_UP);
            }
        } else if (!key.isEmpty()) {
            boolean shift = Character.isUpperCase(codePoint);
            if (shift) {
                robot.keyPress(KeyEvent.VK_SHIFT);
            }
            key(key, true);
            key(key, false);
            if (shift) {
                robot.keyRelease(KeyEvent.VK_SHIFT);
            }
        } else { // By way of the clipboard, as its layout is not known.
            String before = clipboard();
            clipboard(Character.toString(codePoint));
            for (boolean down : new boolean[]{true, false}) {
                key(down ? "Meta" : "V", down);
                key(down ? "V" : "Meta", down);
            }
            robot.delay(40);
            clipboard(before);
        }
    }

    @Override
    public Set<String> down() {
        if (!Platform.isWindows()) { // It is not told: what is ours is known.
            Set<String> ours = new LinkedHashSet<>(held);
            ours.retainAll(Keys.MODIFIERS);
            return ours;
        }
        Map<String, Integer> codes = Map.of("Ctrl", 0xA2, "Right Ctrl", 0xA3, "Shift", 0xA0, "Right Shift", 0xA1, "Alt",
                0xA4, "Right Alt", 0xA5, "Meta", 0x5B, "Right Meta", 0x5C);
        Set<String> down = new LinkedHashSet<>();
        codes.forEach((key, code) -> {
            if (User32.INSTANCE.GetAsyncKeyState(code) < 0) {
                down.add(key);
            }
        });
        return down;
    }

    @Override
    public boolean touched() {
        if (Platform.isWindows()) {
            for (int code = 1; code < 0xA0; code++) {
                boolean modifier = code >= 0x10 && code <= 0x12 || code == 0x5B || code == 0x5C;
                if (!modifier && User32.INSTANCE.GetAsyncKeyState(code) < 0) {
                    return true;
                }
            }
        }
        return false;
    }

    @Override
    public Point pointer() throws Unable {
        PointerInfo at = MouseInfo.getPointerInfo();
        if (at == null) {
            throw new Unable("this system doesn't report the pointer's position");
        }
        return new Point(at.getLocation().x, at.getLocation().y);
    }

    @Override
    public void move(Point to) {
        robot.mouseMove(to.x(), to.y());
    }

    @Override
    public void button(String button, boolean down) {
        int mask = BUTTON.getOrDefault(button, InputEvent.BUTTON1_DOWN_MASK);
        if (down) {
            robot.mousePress(mask);
        } else {
            robot.mouseRelease(mask);
        }
    }

    @Override
    public void wheel(String way) throws Unable {
        SentKeys.wheel(way);
        if (way.equals("left") || way.equals("right")) {
            throw new Unable("this system can't scroll sideways");
        }
        robot.mouseWheel(way.equals("up") ? -1 : 1);
    }

    @Override
    public List<Box> screens() {
        List<Box> all = new ArrayList<>();
        for (GraphicsDevice d : GraphicsEnvironment.getLocalGraphicsEnvironment().getScreenDevices()) {
            Rectangle r = d.getDefaultConfiguration().getBounds();
            all.add(new Box(r.x, r.y, r.width, r.height));
        }
        return all;
    }

    @Override
    public List<Window> windows() {
        List<Window> all = new ArrayList<>();
        if (Platform.isWindows()) {
            WindowUtils.getAllWindows(true).forEach(w -> all.add(of(w.getHWND())));
        }
        return all;
    }

    private static Window of(HWND window) {
        char[] title = new char[512];
        char[] kind = new char[512];
        User32.INSTANCE.GetWindowText(window, title, title.length);
        User32.INSTANCE.GetClassName(window, kind, kind.length);
        Rectangle r = WindowUtils.getWindowLocationAndSize(window);
        return new Window(com.sun.jna.Pointer.nativeValue(window.getPointer()), Native.toString(kind), Native.toString(
                title), new Box(r.x, r.y, r.width, r.height));
    }

    @Override
    public Optional<Window> front() {
        HWND window = Platform.isWindows() ? User32.INSTANCE.GetForegroundWindow() : null;
        return window == null ? Optional.empty() : Optional.of(of(window));
    }

    /** Under Windows; macOS tells no program of this kind. */
    @Override
    public boolean ownWindow(Window window) {
        IntByReference process = new IntByReference();
        User32.INSTANCE.GetWindowThreadProcessId(new HWND(new com.sun.jna.Pointer(window.id())), process);
        return process.getValue() == ProcessHandle.current().pid();
    }

    @Override
    public boolean minimised(Window window) {
        WinUser.WINDOWPLACEMENT placement = new WinUser.WINDOWPLACEMENT();
        return Platform.isWindows()
                && User32.INSTANCE.GetWindowPlacement(new HWND(new com.sun.jna.Pointer(window.id())),
                        placement).booleanValue()
                && placement.showCmd == WinUser.SW_SHOWMINIMIZED;
    }

    private static HWND handle(Window window) throws Unable {
        if (!Platform.isWindows()) {
            throw new Unable("macOS doesn't let programs of this kind control windows of others");
        }
        return new HWND(new com.sun.jna.Pointer(window.id()));
    }

    @Override
    public void bring(Window window) throws Unable {
        User32.INSTANCE.SetForegroundWindow(handle(window));
    }

    @Override
    public void close(Window window) throws Unable {
        User32.INSTANCE.PostMessage(handle(window), WinUser.WM_CLOSE, null, null);
    }

    @Override
    public void minimise(Window window) throws Unable {
        User32.INSTANCE.ShowWindow(handle(window), WinUser.SW_MINIMIZE);
    }

    @Override
    public void place(Window window, Box box) throws Unable {
        User32.INSTANCE.MoveWindow(handle(window), box.x(), box.y(), box.width(), box.height(), true);
    }
}
