package rombix.links.desktop.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThatCode;

import com.sun.jna.NativeLibrary;
import java.lang.reflect.Modifier;
import org.junit.jupiter.api.Test;

class XServerTest {
    /** The process ended in native code as a display was closed: what it calls then had been unloaded. */
    @Test
    void theLibraryOfScreensIsHeldForEver() throws Exception {
        assertThat(Modifier.isStatic(XServer.Screens.class.getDeclaredField("INSTANCE").getModifiers())).isTrue();
        assumeThatCode(() -> NativeLibrary.getInstance("Xinerama")).doesNotThrowAnyException();
        NativeLibrary held = NativeLibrary.getInstance("Xinerama");
        assertThat(XServer.Screens.INSTANCE).isNotNull();
        assertThat(NativeLibrary.getInstance("Xinerama")).isSameAs(held);
    }
}
