package rombix.links.line;

import com.fazecast.jSerialComm.SerialPort;
import java.util.Arrays;
import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Service;
import rombix.links.link.Target;
import rombix.links.talk.Talk;
import rombix.links.talk.Usual;

/**
 * Text lines, or bytes: {@code line} and {@code bytes} go out, {@code line} or {@code bytes} comes in, as is set. At
 * HOST:PORT it is TCP or UDP, else the name of a serial port.
 */
public final class Line extends LinkType {
    static final String TRANSPORT = "transport";
    static final String TCP = "tcp";
    static final String UDP = "udp";
    static final String ENDING = "ending";
    static final String MESSAGES = "messages";
    static final String LINES = "lines";
    static final String BYTES = "bytes";
    static final String FRAMING = "framing";
    static final String TERMINATOR_FRAMING = "terminator";
    static final String LENGTH_FRAMING = "length field";
    static final String SIZE_FRAMING = "fixed size";
    static final String GAP_FRAMING = "gap in time";
    static final String TERMINATOR = "terminator";
    static final String LENGTH_AT = "length-at";
    static final String LENGTH_SIZE = "length-size";
    static final String LENGTH_ORDER = "length-order";
    static final String LOW_FIRST = "low byte first";
    static final String LENGTH_COUNTS = "length-counts";
    static final String WHOLE = "whole message";
    static final String UNCOUNTED = "uncounted";
    static final String SIZE = "size";
    static final String GAP = "gap";
    static final String CHECKSUM = "checksum";
    static final String KEPT = "connection";
    static final String KEPT_OPEN = "kept open";
    static final String EACH = "for each order";
    static final String LETTERS = "letters";
    static final String BAUD = "baud";
    static final String FRAME = "frame";
    private static final double FASTEST = 4_000_000;
    private static final double USUAL_BAUD = 9600;
    private static final int MOST_HEAD = 255;
    private static final int LARGEST = 65_536;
    private static final int LONGEST_GAP = 1000;

    public Line() {
        super("line", "text line", "[a-z][a-z0-9-]*", "line, bytes or wait, or the name of a reply", 20,
                Reach.EITHER);
    }

    @Override
    public Link open(GearReport report, Target target) {
        GearPlaces places = new GearPlaces(report.twin(), target);
        return new Talk("line", report, places, new LineDialer(target, places));
    }

    @Override
    public boolean connects(Target target) {
        return target.address().contains(":") && !Value.of(UDP).equals(target.link().settings().get(TRANSPORT));
    }

    @Override
    public List<Service> services() {
        return List.of(new Service("_telnet._tcp"));
    }

    @Override
    public String usualAddress() {
        return "line";
    }

    @Override
    public boolean secures() {
        return true;
    }

    @Override
    public String inText(String text) {
        return text.replaceAll("\\p{Cntrl}", " "); // A line ends where its card says, and nowhere else.
    }

    @Override
    public List<String> ports() {
        return Arrays.stream(SerialPort.getCommPorts()).map(SerialPort::getSystemPortPath).toList();
    }

    @Override
    public String portWord() {
        return "serial port";
    }

    @Override
    public List<Setting> settings() {
        return Usual.and(Setting.choice(TRANSPORT, "Transport", List.of(TCP, UDP),
                "Not used with a serial port."),
                Setting.choice(ENDING, "Line ending", List.of("CR LF", "LF", "CR", "nothing"),
                        "See the manual of the device."),
                Setting.choice(MESSAGES, "Incoming data", List.of(LINES, BYTES),
                        "Bytes are shown in hexadecimal."),
                Setting.choice(FRAMING, "Message framing", List.of("as it comes", TERMINATOR_FRAMING, LENGTH_FRAMING,
                        SIZE_FRAMING, GAP_FRAMING), "How the end of a message is found.")
                        .when(MESSAGES, BYTES),
                Setting.text(TERMINATOR, "Terminator", "The bytes at the end of each message, in hexadecimal.")
                        .when(FRAMING, TERMINATOR_FRAMING),
                Setting.number(LENGTH_AT, "Length field offset", "bytes", 0, MOST_HEAD, 0.0,
                        "Bytes before the length field.").when(FRAMING, LENGTH_FRAMING),
                Setting.number(LENGTH_SIZE, "Length field size", "bytes", 1, 4, 1.0, "Bytes of the length field.")
                        .when(FRAMING, LENGTH_FRAMING),
                Setting.choice(LENGTH_ORDER, "Length byte order", List.of("high byte first", LOW_FIRST),
                        "Byte order of the length field.").when(FRAMING, LENGTH_FRAMING),
                Setting.choice(LENGTH_COUNTS, "Length counts", List.of("bytes that follow", WHOLE),
                        "What the length includes.").when(FRAMING, LENGTH_FRAMING),
                Setting.number(UNCOUNTED, "Uncounted bytes", "bytes", -MOST_HEAD, MOST_HEAD, 0.0,
                        "Bytes that the length doesn't include, such as a checksum.")
                        .when(FRAMING, LENGTH_FRAMING),
                Setting.number(SIZE, "Message size", "bytes", 1, LARGEST, 1.0, "Bytes of each message.")
                        .when(FRAMING, SIZE_FRAMING),
                Setting.number(GAP, "Gap", "ms", 1, LONGEST_GAP, 20.0, "Minimum silence between two messages.")
                        .when(FRAMING, GAP_FRAMING),
                Setting.choice(KEPT, "Connection", List.of(KEPT_OPEN, EACH),
                        "Some gear accepts one connection at a time and needs it closed after each command."),
                Setting.choice(CHECKSUM, "Checksum", List.of("none", "sum", "xor", "crc-16"),
                        "Appended to each message: low byte of the sum, XOR of all bytes, or CRC-16 (little-endian)."),
                Setting.choice(LETTERS, "Encoding", List.of("UTF-8", "Latin-1"), "Character encoding of a line."),
                Setting.number(BAUD, "Baud rate", "Bd", 50, FASTEST, USUAL_BAUD, "Serial port only."),
                Setting.choice(FRAME, "Serial frame", List.of("8N1", "8E1", "8O1", "7E1", "7O1", "8N2"),
                        "Data bits, parity and stop bits. Serial port only."));
    }

    @Override
    public boolean textual() {
        return true;
    }
}
