package rombix.links.gamepad;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.lwjgl.sdl.SDLGamepad;
import org.lwjgl.sdl.SDLJoystick;
import rombix.core.touch.GamepadParts;
import rombix.core.touch.Touch;

/**
 * One that is open. A gamepad's parts have the names of their places; of a joystick that is none they are numbered.
 * Owned by the thread of the gamepads.
 */
final class Device {
    /** What moves less than this is not told. */
    private static final double FINE = 1.0 / 256;
    private static final double LEAST = 1.0 / 50;
    private static final int UP = 1;
    private static final int RIGHT = 2;
    private static final int DOWN = 4;
    private static final int LEFT = 8;

    private final String name;
    private final long stick;
    private final boolean gamepad;
    private final Map<String, double[]> told = new HashMap<>();

    private Device(String name, long stick, boolean gamepad) {
        this.name = name;
        this.stick = stick;
        this.gamepad = gamepad;
    }

    static @Nullable Device open(int id, String name) {
        boolean gamepad = SDLGamepad.SDL_IsGamepad(id);
        long stick = gamepad ? SDLGamepad.SDL_OpenGamepad(id) : SDLJoystick.SDL_OpenJoystick(id);
        return stick == 0 ? null : new Device(name, stick, gamepad);
    }

    String name() {
        return name;
    }

    boolean connected() {
        return gamepad ? SDLGamepad.SDL_GamepadConnected(stick) : SDLJoystick.SDL_JoystickConnected(stick);
    }

    void close() {
        if (gamepad) {
            SDLGamepad.SDL_CloseGamepad(stick);
        } else {
            SDLJoystick.SDL_CloseJoystick(stick);
        }
    }

    /** Tells what has moved since it was told last. */
    void tell(Consumer<Touch> to) {
        if (gamepad) {
            for (int b = 0; b < GamepadParts.BUTTONS.size(); b++) {
                tell(to, GamepadParts.BUTTONS.get(b), SDLGamepad.SDL_GetGamepadButton(stick, b) ? 1 : 0, 0);
            }
            tell(to, GamepadParts.LEFT_STICK, axis(SDLGamepad.SDL_GAMEPAD_AXIS_LEFTX), 0 - axis(
                    SDLGamepad.SDL_GAMEPAD_AXIS_LEFTY));
            tell(to, GamepadParts.RIGHT_STICK, axis(SDLGamepad.SDL_GAMEPAD_AXIS_RIGHTX), 0 - axis(
                    SDLGamepad.SDL_GAMEPAD_AXIS_RIGHTY));
            tell(to, GamepadParts.LEFT_TRIGGER, axis(SDLGamepad.SDL_GAMEPAD_AXIS_LEFT_TRIGGER), 0);
            tell(to, GamepadParts.RIGHT_TRIGGER, axis(SDLGamepad.SDL_GAMEPAD_AXIS_RIGHT_TRIGGER), 0);
            return;
        }
        for (int b = 0; b < SDLJoystick.SDL_GetNumJoystickButtons(stick); b++) {
            tell(to, "button " + (b + 1), SDLJoystick.SDL_GetJoystickButton(stick, b) ? 1 : 0, 0);
        }
        for (int a = 0; a < SDLJoystick.SDL_GetNumJoystickAxes(stick); a++) {
            tell(to, "axis " + (a + 1), scaled(SDLJoystick.SDL_GetJoystickAxis(stick, a)), 0);
        }
        for (int h = 0; h < SDLJoystick.SDL_GetNumJoystickHats(stick); h++) {
            int hat = SDLJoystick.SDL_GetJoystickHat(stick, h);
            tell(to, "hat " + (h + 1), ((hat & RIGHT) != 0 ? 1 : 0) - ((hat & LEFT) != 0 ? 1 : 0), ((hat & UP) != 0
                    ? 1
                    : 0) - ((hat & DOWN) != 0 ? 1 : 0));
        }
    }

    private double axis(int axis) {
        return scaled(SDLGamepad.SDL_GetGamepadAxis(stick, axis));
    }

    private static double scaled(short raw) {
        return Math.max(-1, raw / (double) Short.MAX_VALUE);
    }

    private void tell(Consumer<Touch> to, String part, double x, double y) {
        double[] before = told.computeIfAbsent(part, _ -> new double[]{Double.NaN, Double.NaN});
        boolean first = Double.isNaN(before[0]);
        boolean middle = Math.abs(x) < LEAST && Math.abs(y) < LEAST;
        boolean back = middle && (before[0] != 0 || before[1] != 0);
        if (first && middle) {
            before[0] = 0;
            before[1] = 0;
        } else if (first || back || !middle && (Math.abs(x - before[0]) >= FINE || Math.abs(y - before[1]) >= FINE)) {
            before[0] = middle ? 0 : x;
            before[1] = middle ? 0 : y;
            to.accept(new Touch.Gamepad(name, part, before[0], before[1]));
        }
    }
}
