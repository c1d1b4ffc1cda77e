package rombix.running.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

class TerminalTextTest {
    /** What gear said moved the cursor, renamed the window, or cleared it. */
    @Test
    void escapeCodesAreSeenAndNotObeyedHoweverTheyArePrinted() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PrintStream terminal = TerminalText.on(out, StandardCharsets.UTF_8);
        terminal.println("a\u001b[2Jb ü");
        terminal.printf("%s%n", "c\u009bd");
        new PrintWriter(terminal, true).println("e\u202Ef\r\ng");
        terminal.print('h');
        terminal.flush();
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualToNormalizingNewlines(
                "a⟨U+001B⟩[2Jb ü\nc⟨U+009B⟩d\ne⟨U+202E⟩f\ng\nh");
    }
}
