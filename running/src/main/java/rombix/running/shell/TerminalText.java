package rombix.running.shell;

import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.Charset;
import rombix.core.value.Visible;

/** Text for a terminal, which obeys control characters: those of boards and gear are made visible instead. */
public final class TerminalText extends PrintStream {
    private TerminalText(OutputStream to, Charset letters) {
        super(to, true, letters);
    }

    /** Has all that this process prints from now on be visible. */
    public static void guard() {
        System.setOut(on(System.out, System.out.charset()));
        System.setErr(on(System.err, System.err.charset()));
    }

    static PrintStream on(OutputStream to, Charset letters) {
        return new TerminalText(to, letters);
    }

    /** All that is printed comes through here, whole characters at a time. */
    @Override
    public void write(byte[] text, int from, int length) {
        byte[] visible = Visible.text(new String(text, from, length, charset())).getBytes(charset());
        super.write(visible, 0, visible.length);
    }
}
