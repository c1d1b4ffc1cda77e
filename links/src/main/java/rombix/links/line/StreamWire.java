package rombix.links.line;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.LineInput;
import rombix.links.talk.Talk;
import rombix.wire.Malformed;

/** Lines or bytes over a stream. */
final class StreamWire implements Talk.Wire {
    private static final int LONGEST = 65_536;

    private final InputStream in;
    private final OutputStream out;
    private final LineForm form;
    private final Runnable closing;
    private final @Nullable LineInput lines;
    private final byte[] chunk = new byte[4096];

    /** @param in throws a SocketTimeoutException where nothing comes for a while */
    StreamWire(InputStream in, OutputStream out, LineForm form, Runnable closing) {
        this.in = in;
        this.out = out;
        this.form = form;
        this.closing = closing;
        lines = form.lines() ? new LineInput(in, LONGEST, form.end(), form.letters()) : null;
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        out.write(form.bytes(packet));
        out.flush();
    }

    @Override
    public @Nullable Message read() throws IOException, Malformed {
        if (lines != null) {
            String line = lines.next();
            return line == null ? null : form.line(line);
        }
        int length = in.read(chunk);
        return length < 0 ? null : form.message(chunk, length);
    }

    @Override
    public void close() {
        closing.run();
    }
}
