package rombix.wire.ssdp;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import rombix.wire.Malformed;

/**
 * A message of SSDP: the head of an HTTP message, in one packet (UPnP Device Architecture 2.0, chapter 1).
 *
 * @param start its first line
 * @param headers by their names in capitals
 */
public record SsdpMessage(String start, Map<String, String> headers) {
    /** The port of the protocol, and the group that all listen to. */
    public static final int PORT = 1900;
    public static final String GROUP = "239.255.255.250";

    private static final String SEARCH = "M-SEARCH * HTTP/1.1";
    private static final String ANSWER = "HTTP/1.1 200 OK";

    public SsdpMessage {
        headers = Map.copyOf(headers);
    }

    /** Asks who is there. @param seconds within which to answer, so that not all do at once */
    public static SsdpMessage search(int seconds) {
        return new SsdpMessage(SEARCH, Map.of("HOST", GROUP + ":" + PORT, "MAN", "\"ssdp:discover\"", "MX", String
                .valueOf(seconds), "ST", "ssdp:all"));
    }

    /** Answers that. @param location where it describes itself @param id that of the device, unlike any other's */
    public static SsdpMessage answer(String location, String id) {
        return new SsdpMessage(ANSWER, Map.of("LOCATION", location, "ST", "upnp:rootdevice", "USN", id
                + "::upnp:rootdevice", "CACHE-CONTROL", "max-age=1800", "EXT", ""));
    }

    public boolean isSearch() {
        return start.equals(SEARCH);
    }

    /** Whether it says that something is there. */
    public boolean isThere() {
        return start.startsWith("HTTP/1.1 200") || start.startsWith("NOTIFY") && !"ssdp:byebye".equals(header("NTS"));
    }

    /** A header's text; empty where it is not there. */
    public String header(String name) {
        return Objects.requireNonNullElse(headers.get(name), "");
    }

    /** Which device it is of. */
    public String device() {
        String usn = header("USN");
        int end = usn.indexOf("::");
        return end < 0 ? usn : usn.substring(0, end);
    }

    public byte[] encode() {
        StringBuilder out = new StringBuilder(start).append("\r\n");
        headers.forEach((name, text) -> out.append(name).append(": ").append(text).append("\r\n"));
        return out.append("\r\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    /**
     * Reads one.
     *
     * @throws Malformed with the reason
     */
    public static SsdpMessage decode(byte[] bytes, int length) throws Malformed {
        String[] lines = new String(bytes, 0, length, StandardCharsets.UTF_8).split("\r?\n");
        if (lines.length == 0 || !lines[0].matches("(HTTP/1\\.[01] \\d{3}.*|[A-Z-]+ \\* HTTP/1\\.[01])\\s*")) {
            throw new Malformed("no SSDP message");
        }
        Map<String, String> headers = new LinkedHashMap<>();
        for (int i = 1; i < lines.length && !lines[i].isEmpty(); i++) {
            int colon = lines[i].indexOf(':');
            if (colon <= 0) {
                throw new Malformed("a header without a name: " + lines[i]);
            }
            headers.put(lines[i].substring(0, colon).strip().toUpperCase(Locale.ROOT), lines[i].substring(colon + 1)
                    .strip());
        }
        return new SsdpMessage(lines[0].strip(), headers);
    }
}
