package rombix.app.shell;

import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import rombix.core.value.Visible;

/** Text for a terminal, which obeys control characters: those of boards and gear are made visible instead. */
public final class Terminal extends PrintStream {
    private Terminal(OutputStream to) {
        super(to, true, StandardCharsets.UTF_8);
    }

    /** Has all that this process prints from now on be visible. */
    public static void guard() {
        System.setOut(on(System.out));
        System.setErr(on(System.err));
    }

    static PrintStream on(OutputStream to) {
        return new Terminal(to);
    }

    /** All that is printed comes through here, whole characters at a time. */
    @Override
    public void write(byte[] text, int from, int length) {
        byte[] visible = Visible.text(new String(text, from, length, StandardCharsets.UTF_8)).getBytes(
                StandardCharsets.UTF_8);
        super.write(visible, 0, visible.length);
    }
}
