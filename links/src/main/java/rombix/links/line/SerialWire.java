package rombix.links.line;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketTimeoutException;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.thread.Bounded;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.GearPlaces;
import rombix.links.link.Refused;
import rombix.links.talk.Talk;
import rombix.links.talk.Wire;
import rombix.wire.Malformed;

/** Lines or bytes over a serial port. */
final class SerialWire implements Wire {
    private static final int LOOK_MILLIS = 100;
    private static final int CHUNK = 4096;
    private static final int MOST_CHUNKS = 256;
    /** That nothing comes any more. */
    private static final byte[] GONE = {};

    private final SerialPort port;
    private final StreamWire stream;
    private final int lookMillis;

    SerialWire(String name, GearPlaces places, LineForm form) throws IOException {
        try {
            port = SerialPort.getCommPort(name);
        } catch (SerialPortInvalidPortException e) {
            throw new Refused(e, Cause.NO_SERIAL_PORT, name);
        }
        String frame = places.text(Line.FRAME);
        int parity = switch (frame.charAt(1)) {
            case 'E' -> SerialPort.EVEN_PARITY;
            case 'O' -> SerialPort.ODD_PARITY;
            default -> SerialPort.NO_PARITY;
        };
        port.setComPortParameters((int) places.number(Line.BAUD, 9600), frame.charAt(0) - '0', frame.charAt(2) == '2'
                ? SerialPort.TWO_STOP_BITS
                : SerialPort.ONE_STOP_BIT, parity);
        port.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, LOOK_MILLIS, 0);
        if (!port.openPort()) {
            throw port.getLastErrorCode() == 13 // EACCES
                    ? new Refused(Cause.PORT_NOT_PERMITTED, name)
                    : new Refused(Cause.PORT_TAKEN, name, "another program may be using it");
        }
        lookMillis = form.framing().lookMillis(LOOK_MILLIS);
        Waiting in = new Waiting();
        stream = new StreamWire(in, port.getOutputStream(), form, () -> {
            port.closePort();
            in.close();
        });
    }

    /**
     * Reads what is there, and says as sockets do where nothing is. The port itself is read on a thread of the system:
     * a call that waits in native code would hold one of the few that all links run on.
     */
    private final class Waiting extends InputStream {
        private final Bounded<byte[]> came = new Bounded<>(MOST_CHUNKS, Bounded.Full.WAIT);
        private volatile boolean gone;
        private byte[] rest = GONE;
        private int at;

        Waiting() {
            Thread.ofPlatform().daemon().name("serial " + port.getSystemPortName()).start(() -> {
                byte[] chunk = new byte[CHUNK];
                int count = port.readBytes(chunk, chunk.length);
                while (count >= 0 && port.isOpen()) {
                    if (count > 0) {
                        came.offer(Arrays.copyOf(chunk, count)); // Else the system keeps it, and the gear waits.
                    }
                    count = port.readBytes(chunk, chunk.length);
                }
                gone = true;
                came.offer(GONE);
            });
        }

        @Override
        public int read() {
            throw new UnsupportedOperationException("bytes are read by several");
        }

        @Override
        public int read(byte[] to, int from, int length) throws IOException {
            if (at == rest.length) {
                rest = next();
                at = 0;
            }
            int count = Math.min(length, rest.length - at);
            System.arraycopy(rest, at, to, from, count);
            at += count;
            return count;
        }

        /** Nobody reads on: whatever waits for room is let go of. */
        @Override
        public void close() {
            gone = true;
            came.drain();
        }

        private byte[] next() throws IOException {
            try {
                byte[] next = came.poll(lookMillis, TimeUnit.MILLISECONDS);
                if (next == null && !gone) {
                    throw new SocketTimeoutException();
                }
                if (next == null || next.length == 0) {
                    throw new IOException("the serial port is gone");
                }
                return next;
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException("was closed", e);
            }
        }
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        stream.write(packet);
    }

    @Override
    public boolean whole() {
        return stream.whole();
    }

    @Override
    public void meant() {
        stream.meant();
    }

    @Override
    public @Nullable Message read() throws IOException, Malformed {
        return stream.read();
    }

    @Override
    public void close() {
        stream.close();
    }
}
