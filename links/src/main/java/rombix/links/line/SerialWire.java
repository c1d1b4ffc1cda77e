package rombix.links.line;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketTimeoutException;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import rombix.core.card.MessageReader.Message;
import rombix.core.card.Order;
import rombix.links.link.GearPlaces;
import rombix.links.link.Refused;
import rombix.links.link.Talk;
import rombix.wire.Malformed;

/** Lines or bytes over a serial port. */
final class SerialWire implements Talk.Wire {
    private static final int LOOK_MILLIS = 100;

    private final SerialPort port;
    private final StreamWire stream;

    SerialWire(String name, GearPlaces places, LineForm form) throws IOException {
        try {
            port = SerialPort.getCommPort(name);
        } catch (SerialPortInvalidPortException e) {
            throw new IOException("no serial port “" + name + "” is here", e);
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
                    ? new Refused("the serial port “" + name + "” may not be used by you",
                            "On Linux, be a member of the group that it belongs to (often dialout).")
                    : new IOException("the serial port “" + name + "” cannot be opened: another program may have it");
        }
        stream = new StreamWire(new Waiting(), port.getOutputStream(), form, port::closePort);
    }

    /** Reads what is there, and says as sockets do where nothing is. */
    private final class Waiting extends InputStream {
        @Override
        public int read() {
            throw new UnsupportedOperationException("bytes are read by several");
        }

        @Override
        public int read(byte[] to, int from, int length) throws IOException {
            byte[] here = from == 0 ? to : Arrays.copyOf(to, length);
            int count = port.readBytes(here, length);
            if (count < 0 || !port.isOpen()) {
                throw new IOException("the serial port is gone");
            }
            if (count == 0) {
                throw new SocketTimeoutException();
            }
            return count;
        }
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        stream.write(packet);
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
