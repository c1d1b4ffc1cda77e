package rombix.links.link;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import rombix.wire.Malformed;

/**
 * Reads lines of text, each ended by a line feed or what else is said. A line without an end takes no more memory than the longest
 * that is allowed; a read that times out loses nothing of what came. One thread's.
 */
public final class LineInput {
    private final InputStream in;
    private final int longest;
    private final char end;
    private final Charset letters;
    private final byte[] buffer = new byte[4096];
    private final ByteArrayOutputStream line = new ByteArrayOutputStream();
    private int at;
    private int filled;
    private boolean tooLong;

    /** Lines in UTF-8, each ended by a line feed. @param longest of how many bytes a line has at most */
    public LineInput(InputStream in, int longest) {
        this(in, longest, '\n', StandardCharsets.UTF_8);
    }

    /** @param end what ends a line */
    public LineInput(InputStream in, int longest, char end, Charset letters) {
        this.in = in;
        this.longest = longest;
        this.end = end;
        this.letters = letters;
    }

    /**
     * The next line without its end; null where there are no more.
     *
     * @throws Malformed where it was too long; it was passed over
     */
    public @Nullable String next() throws IOException, Malformed {
        while (true) {
            while (at < filled) {
                byte b = buffer[at++];
                if (b == end) {
                    return ended();
                }
                if (line.size() < longest) {
                    line.write(b);
                } else {
                    tooLong = true;
                }
            }
            at = 0;
            filled = 0; // A time-out leaves nothing to be read once more.
            filled = Math.max(0, in.read(buffer));
            if (filled == 0) {
                return null;
            }
        }
    }

    /** What has come of a line that has not ended; empty where nothing has. */
    public String begun() {
        return tooLong ? "" : line.toString(letters);
    }

    /** Forgets what has come of a line that has not ended: it was one. */
    public void drop() {
        line.reset();
        tooLong = false;
    }

    private String ended() throws Malformed {
        String text = line.toString(letters).stripTrailing();
        boolean over = tooLong;
        line.reset();
        tooLong = false;
        if (over) {
            throw new Malformed("a line of more than " + longest + " bytes");
        }
        return text;
    }
}
