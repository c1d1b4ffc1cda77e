package rombix.app.view.window;

import java.util.concurrent.Callable;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;

/**
 * A robot that waits once after what it does, until the interface has done its part, where the usual one waits five
 * times over after each key that goes down or up.
 */
public final class Hand extends FxRobot {
    private Hand settled() {
        WaitForAsyncUtils.waitForFxEvents(2);
        return this;
    }

    @Override
    public Hand press(KeyCode... keys) {
        robotContext().getKeyboardRobot().pressNoWait(keys);
        return settled();
    }

    @Override
    public Hand release(KeyCode... keys) {
        robotContext().getKeyboardRobot().releaseNoWait(keys);
        return settled();
    }

    @Override
    public Hand type(KeyCode... keys) {
        for (KeyCode key : keys) {
            robotContext().getKeyboardRobot().pressNoWait(key);
            robotContext().getKeyboardRobot().releaseNoWait(key);
        }
        return settled();
    }

    /** Types a key with others held. */
    public Hand typeWith(KeyCode key, KeyCode... held) {
        robotContext().getKeyboardRobot().pressNoWait(held);
        robotContext().getKeyboardRobot().pressNoWait(key);
        robotContext().getKeyboardRobot().releaseNoWait(key);
        robotContext().getKeyboardRobot().releaseNoWait(held);
        return settled();
    }

    @Override
    public Hand press(MouseButton... buttons) {
        robotContext().getMouseRobot().pressNoWait(buttons);
        return settled();
    }

    @Override
    public Hand release(MouseButton... buttons) {
        robotContext().getMouseRobot().releaseNoWait(buttons);
        return settled();
    }

    @Override
    public Hand interact(Runnable what) {
        WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(what));
        return settled();
    }

    @Override
    public <T> Hand interact(Callable<T> what) {
        WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(what));
        return settled();
    }
}
