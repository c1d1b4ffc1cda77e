package rombix.standins;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.lwjgl.sdl.SDLError;
import org.lwjgl.sdl.SDLHints;
import org.lwjgl.sdl.SDLInit;
import org.lwjgl.sdl.SDLJoystick;
import org.lwjgl.sdl.SDL_VirtualJoystickDesc;
import org.lwjgl.system.MemoryStack;

/**
 * A gamepad: the system's library takes it for one that is plugged in. It is worked by hand or by lines of text at a
 * port: {@code press 0}, {@code release 0}, {@code axis 0 0.5} (axes 0 to 3 from -1 to 1, down is 1; 4 and 5, which are
 * pulled, from 0 to 1). Safe to use from any thread.
 */
public final class Gamepad implements AutoCloseable {
    public static final String NAME = "Larkmoor Gamepad";

    private static final int BUTTONS = 15;
    private static final int AXES = 6;
    private static final int FIRST_PULLED = 4;

    private final ServerSocket server;
    private final int id;
    private final long stick;

    /** @throws IOException in plain words where there is no library for this computer, or the port is taken */
    public Gamepad(int port) throws IOException {
        this(port, NAME);
    }

    /** One of another name. */
    public Gamepad(int port, String name) throws IOException {
        try (MemoryStack stack = MemoryStack.stackPush()) {
            SDLHints.SDL_SetHint(SDLHints.SDL_HINT_NO_SIGNAL_HANDLERS, "1");
            SDLHints.SDL_SetHint(SDLHints.SDL_HINT_JOYSTICK_ALLOW_BACKGROUND_EVENTS, "1");
            if (!SDLInit.SDL_InitSubSystem(SDLInit.SDL_INIT_GAMEPAD)) {
                throw new IOException("no gamepad can be plugged in: " + SDLError.SDL_GetError());
            }
            SDL_VirtualJoystickDesc desc = SDL_VirtualJoystickDesc.calloc(stack).version(SDL_VirtualJoystickDesc.SIZEOF)
                    .type((short) SDLJoystick.SDL_JOYSTICK_TYPE_GAMEPAD).naxes((short) AXES).nbuttons((short) BUTTONS)
                    .name(stack.UTF8(name));
            id = SDLJoystick.SDL_AttachVirtualJoystick(desc);
            stick = id == 0 ? 0 : SDLJoystick.SDL_OpenJoystick(id);
        } catch (LinkageError e) {
            throw new IOException("no gamepad can be plugged in: " + e.getMessage(), e);
        }
        if (stick == 0) {
            throw new IOException("no gamepad can be plugged in: " + SDLError.SDL_GetError());
        }
        axis(FIRST_PULLED, 0);
        axis(FIRST_PULLED + 1, 0);
        server = new ServerSocket(port, 4, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().name("gamepad").start(this::accept);
    }

    public int port() {
        return server.getLocalPort();
    }

    /** Pushes a button, or lets go of it. They are counted as the library counts them. */
    public void button(int button, boolean down) {
        SDLJoystick.SDL_SetJoystickVirtualButton(stick, button, down);
    }

    /** Moves an axis. */
    public void axis(int axis, double to) {
        double way = axis < FIRST_PULLED ? to : to * 2 - 1;
        SDLJoystick.SDL_SetJoystickVirtualAxis(stick, axis, (short) Math.round(Math.clamp(way, -1, 1)
                * Short.MAX_VALUE));
    }

    private void accept() {
        while (!server.isClosed()) {
            try (Socket caller = server.accept();
                    BufferedReader in = new BufferedReader(new InputStreamReader(caller.getInputStream(),
                            StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    line(List.of(line.strip().split("\\s+")));
                }
            } catch (IOException e) {
                // Who called is gone, or the gamepad is.
            }
        }
    }

    private void line(List<String> words) {
        try {
            int which = Integer.parseInt(words.get(1));
            switch (words.getFirst()) {
                case "press" -> button(which, true);
                case "release" -> button(which, false);
                case "axis" -> axis(which, Double.parseDouble(words.get(2)));
                default -> {
                    // No such line.
                }
            }
        } catch (NumberFormatException | IndexOutOfBoundsException e) {
            // No such line.
        }
    }

    /** Its plug is pulled. */
    @Override
    public void close() throws IOException {
        SDLJoystick.SDL_CloseJoystick(stick);
        SDLJoystick.SDL_DetachVirtualJoystick(id);
        server.close();
    }
}
