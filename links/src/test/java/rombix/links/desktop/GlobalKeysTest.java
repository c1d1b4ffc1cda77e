package rombix.links.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import com.github.kwhat.jnativehook.keyboard.NativeKeyEvent;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.touch.Touch;

class GlobalKeysTest {
    @ParameterizedTest
    @CsvSource({"91, 0, 0, F13", "107, 0, 0, F24", "30, 0, 0, A", "2, 0, 0, 1", "1, 0, 0, Esc", "57, 0, 0, Space",
            "0, 65300, 0, Play", "0, 65303, 0, Track Next", "57392, 65299, 0, Volume Up"})
    void keysAreNamedAsBoardsNameThem(int code, int raw, int modifiers, String name) {
        assertThat(GlobalKeys.name(code, raw, NativeKeyEvent.KEY_LOCATION_STANDARD, modifiers)).contains(name);
    }

    @Test
    void modifiersComeFirstInOneOrderAndAreNoKeysThemselves() {
        int all = NativeKeyEvent.SHIFT_L_MASK | NativeKeyEvent.CTRL_R_MASK | NativeKeyEvent.ALT_L_MASK
                | NativeKeyEvent.META_L_MASK;
        assertThat(GlobalKeys.name(NativeKeyEvent.VC_F13, 0, 1, all)).contains("Ctrl+Alt+Shift+Meta+F13");
        assertThat(GlobalKeys.name(NativeKeyEvent.VC_CONTROL, 0, 2, NativeKeyEvent.CTRL_L_MASK)).isEmpty();
        assertThat(GlobalKeys.name(NativeKeyEvent.VC_UNDEFINED, 0, 1, 0)).isEmpty();
        assertThat(GlobalKeys.name(NativeKeyEvent.VC_1, 0, NativeKeyEvent.KEY_LOCATION_NUMPAD, 0)).contains("Numpad 1");
    }

    @Test
    void whereThereIsNoDesktopItSaysSoAndNothingElseHappens() {
        assumeThat(System.getenv("DISPLAY")).as("there is a desktop here").isNull();
        List<Touch> seen = new ArrayList<>();
        try (GlobalKeys keys = new GlobalKeys(seen::add)) {
            keys.listen(true);
            assertThat(keys.listening()).isFalse();
            assertThat(keys.trouble()).isNotEmpty();
            keys.listen(false);
        }
        assertThat(seen).isEmpty();
    }
}
