package rombix.links.desktop;

import com.github.kwhat.jnativehook.GlobalScreen;
import com.github.kwhat.jnativehook.mouse.NativeMouseEvent;
import com.github.kwhat.jnativehook.mouse.NativeMouseInputListener;
import com.github.kwhat.jnativehook.mouse.NativeMouseWheelEvent;
import com.github.kwhat.jnativehook.mouse.NativeMouseWheelListener;

/**
 * What of a mouse can be a trigger: buttons beyond the first three ({@code Mouse 4}), and a wheel that is tilted
 * ({@code Wheel Left}), which goes down and up at once. On the hook's thread.
 */
final class MouseKeys implements NativeMouseInputListener, NativeMouseWheelListener {
    private static final int USUAL_BUTTONS = 3;

    /** Takes what was pressed. */
    interface Pressed {
        /** @param modifiers as the hook has them */
        void now(String name, int modifiers, boolean down);
    }

    private final Pressed to;

    MouseKeys(Pressed to) {
        this.to = to;
    }

    void open() {
        GlobalScreen.addNativeMouseListener(this);
        GlobalScreen.addNativeMouseWheelListener(this);
    }

    void close() {
        GlobalScreen.removeNativeMouseListener(this);
        GlobalScreen.removeNativeMouseWheelListener(this);
    }

    private void button(NativeMouseEvent e, boolean down) {
        if (e.getButton() > USUAL_BUTTONS) {
            to.now("Mouse " + e.getButton(), e.getModifiers(), down);
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
        if (e.getWheelDirection() == NativeMouseWheelEvent.WHEEL_HORIZONTAL_DIRECTION && e.getWheelRotation() != 0) {
            String name = e.getWheelRotation() < 0 ? "Wheel Left" : "Wheel Right";
            to.now(name, e.getModifiers(), true);
            to.now(name, e.getModifiers(), false);
        }
    }
}
