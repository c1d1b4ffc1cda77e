package rombix.links.line;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.SocketTimeoutException;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.LineInput;
import rombix.links.talk.Talk;
import rombix.links.talk.Wire;
import rombix.wire.Malformed;

/** Lines or bytes over a stream. */
final class StreamWire implements Wire {
    private static final int LONGEST = 65_536;

    private final InputStream in;
    private final OutputStream out;
    private final LineForm form;
    private final Runnable closing;
    private final @Nullable LineInput lines;
    private final byte[] chunk = new byte[4096];
    private final Framing framing;
    /** Whether what was read last may be the begin of a line. */
    private boolean begun;
    /** Whether the line that has begun was told of. */
    private boolean told;
    /** Whether something was said since such a begin was read: then that was a prompt, and a line of its own. */
    private volatile boolean said;

    /** @param in throws a SocketTimeoutException where nothing comes for a while */
    StreamWire(InputStream in, OutputStream out, LineForm form, Runnable closing) {
        this.in = in;
        this.out = out;
        this.form = form;
        this.closing = closing;
        framing = form.framing();
        lines = form.lines() ? new LineInput(in, LONGEST, form.end(), form.letters()) : null;
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        out.write(form.bytes(packet));
        out.flush();
        said = true;
    }

    @Override
    public boolean whole() {
        return !begun;
    }

    @Override
    public void meant() {
        if (begun && lines != null) {
            lines.drop();
            told = false;
        }
    }

    @Override
    public @Nullable Message read() throws IOException, Malformed {
        if (lines != null) {
            return line(lines);
        }
        for (byte[] message = framing.next(); true; message = framing.next()) {
            if (message != null) {
                return form.message(message, message.length);
            }
            try {
                int length = in.read(chunk);
                if (length < 0) {
                    return null;
                }
                framing.take(chunk, length);
            } catch (SocketTimeoutException e) {
                framing.quiet();
                byte[] last = framing.next();
                if (last == null) {
                    throw e;
                }
                return form.message(last, last.length);
            }
        }
    }

    /** The next line; where none ends for a while, what has come of it, once: it may be a prompt. */
    private @Nullable Message line(LineInput lines) throws IOException, Malformed {
        if (told && said) {
            lines.drop();
            told = false;
        }
        begun = false;
        try {
            String line = lines.next();
            told = false;
            return line == null ? null : form.line(line);
        } catch (SocketTimeoutException e) {
            String begin = lines.begun();
            if (told || begin.isEmpty()) {
                throw e;
            }
            begun = true;
            told = true;
            said = false;
            return form.line(begin);
        }
    }

    @Override
    public void close() {
        closing.run();
    }
}
