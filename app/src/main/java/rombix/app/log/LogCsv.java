package rombix.app.log;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import rombix.core.value.Visible;

/** Rows of the log as CSV, after RFC 4180: with a head, CRLF, and quotes where they are needed. */
public final class LogCsv {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm:ss.SSSxxx");
    private static final List<String> HEAD = List.of("time", "kind", "press", "button", "name", "who", "place", "gear",
            "words", "late_ms", "message", "rehearsed");

    private LogCsv() {
    }

    /** Writes rows, in the order in which they come. */
    public static void write(List<LogRow> rows, ZoneId zone, Appendable to) throws IOException {
        line(HEAD, to);
        for (LogRow r : rows) {
            line(List.of(TIME.format(Instant.ofEpochMilli(r.atMillis()).atZone(zone)), r.kind().words(),
                    String.valueOf(r
                            .press()),
                    r.button(), r.name(), r.who(), r.place(), r.gear(), r.words(), String.format(Locale.ROOT,
                            "%.3f", r.lateMicros() / 1000.0),
                    r.message(), String.valueOf(r.rehearsed())).stream().map(Visible::text).toList(), to);
        }
    }

    private static void line(List<String> fields, Appendable to) throws IOException {
        for (int i = 0; i < fields.size(); i++) {
            to.append(i == 0 ? "" : ",").append(quoted(fields.get(i)));
        }
        to.append("\r\n");
    }

    /** A spreadsheet must not take what a gear or a person wrote for a formula. */
    private static String quoted(String field) {
        String safe = field.matches("(?s)[=+@\t\r].*") || field.matches("(?s)-[^0-9].*") ? "'" + field : field;
        return safe.matches("(?s).*[\",\r\n].*") ? "\"" + safe.replace("\"", "\"\"") + "\"" : safe;
    }
}
