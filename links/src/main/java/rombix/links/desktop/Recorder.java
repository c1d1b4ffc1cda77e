package rombix.links.desktop;

import com.github.kwhat.jnativehook.GlobalScreen;
import com.github.kwhat.jnativehook.keyboard.NativeKeyEvent;
import com.github.kwhat.jnativehook.keyboard.NativeKeyListener;
import com.github.kwhat.jnativehook.mouse.NativeMouseEvent;
import com.github.kwhat.jnativehook.mouse.NativeMouseInputListener;
import com.github.kwhat.jnativehook.mouse.NativeMouseWheelEvent;
import com.github.kwhat.jnativehook.mouse.NativeMouseWheelListener;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import rombix.core.computer.Input;

/** Hears keys, buttons and the wheel, whatever window is in front, in their order. On the hook's thread. */
final class Recorder implements NativeKeyListener, NativeMouseInputListener, NativeMouseWheelListener, AutoCloseable {
    private final Consumer<Input> to;
    private final Function<NativeKeyEvent, Optional<String>> names;
    private final Set<String> down = new HashSet<>();
    private boolean open;

    /** @param names the name of a key as it is written; empty where it has none */
    Recorder(Consumer<Input> to, Function<NativeKeyEvent, Optional<String>> names) {
        this.to = to;
        this.names = names;
    }

    /** Begins, once the hook is there. */
    void open() {
        if (!open) {
            open = true;
            GlobalScreen.addNativeKeyListener(this);
            GlobalScreen.addNativeMouseListener(this);
            GlobalScreen.addNativeMouseWheelListener(this);
        }
    }

    @Override
    public void nativeKeyPressed(NativeKeyEvent e) {
        names.apply(e).filter(down::add).ifPresent(key -> to.accept(new Input.Key(key, true, System.nanoTime())));
    }

    @Override
    public void nativeKeyReleased(NativeKeyEvent e) {
        names.apply(e).filter(down::remove).ifPresent(key -> to.accept(new Input.Key(key, false, System
                .nanoTime())));
    }

    @Override
    public void nativeKeyTyped(NativeKeyEvent e) {
        to.accept(new Input.Typed(e.getKeyChar(), System.nanoTime()));
    }

    /** The name of a button; the system counts the right one second or third. */
    private static String button(NativeMouseEvent e) {
        return switch (e.getButton()) {
            case NativeMouseEvent.BUTTON1 -> "left";
            case NativeMouseEvent.BUTTON2 -> "right";
            case NativeMouseEvent.BUTTON3 -> "middle";
            default -> "";
        };
    }

    private void button(NativeMouseEvent e, boolean on) {
        if (!button(e).isEmpty()) {
            to.accept(new Input.Button(button(e), on, e.getX(), e.getY(), System.nanoTime()));
        }
    }

    @Override
    public void nativeMousePressed(NativeMouseEvent e) {
        button(e, true);
    }

    @Override
    public void nativeMouseReleased(NativeMouseEvent e) {
        button(e, false);
    }

    @Override
    public void nativeMouseWheelMoved(NativeMouseWheelEvent e) {
        boolean across = e.getWheelDirection() == NativeMouseWheelEvent.WHEEL_HORIZONTAL_DIRECTION;
        boolean less = e.getWheelRotation() < 0;
        to.accept(new Input.Wheel(across ? less ? "left" : "right" : less ? "up" : "down", e.getX(), e.getY(), System
                .nanoTime()));
    }

    @Override
    public void close() {
        if (open) {
            GlobalScreen.removeNativeKeyListener(this);
            GlobalScreen.removeNativeMouseListener(this);
            GlobalScreen.removeNativeMouseWheelListener(this);
        }
    }
}
