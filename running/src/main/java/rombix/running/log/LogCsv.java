package rombix.running.log;

import java.io.Writer;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import rombix.core.value.Visible;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.databind.ObjectWriter;
import tools.jackson.databind.SequenceWriter;
import tools.jackson.dataformat.csv.CsvMapper;
import tools.jackson.dataformat.csv.CsvSchema;
import tools.jackson.dataformat.csv.CsvWriteFeature;

/** Rows of the log as CSV, after RFC 4180: with a head, CRLF, and quotes where they are needed. */
public final class LogCsv {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm:ss.SSSxxx");
    private static final List<String> HEAD = List.of("time", "kind", "press", "button", "name", "who", "place", "gear",
            "words", "late_ms", "message", "rehearsed");

    private static final ObjectWriter CSV = CsvMapper.builder().enable(CsvWriteFeature.STRICT_CHECK_FOR_QUOTING)
            .disable(StreamWriteFeature.AUTO_CLOSE_TARGET).build().writer(CsvSchema.emptySchema().withLineSeparator(
                    "\r\n"));

    private LogCsv() {
    }

    /** Writes rows, in the order in which they come, and leaves what they are written to open. */
    public static void write(List<LogRow> rows, ZoneId zone, Writer to) {
        try (SequenceWriter lines = CSV.writeValues(to)) {
            lines.write(HEAD);
            for (LogRow r : rows) {
                lines.write(Stream.of(TIME.format(Instant.ofEpochMilli(r.atMillis()).atZone(zone)), r.kind().words(),
                        String.valueOf(r.press()), r.button(), r.name(), r.who(), r.place(), r.gear(), r.words(), String
                                .format(Locale.ROOT, "%.3f", r.lateMicros() / 1000.0),
                        r.message(), String.valueOf(r.rehearsed())).map(Visible::text).map(LogCsv::noFormula).toList());
            }
        }
    }

    /** A spreadsheet must not take what a gear or a person wrote for a formula. */
    private static String noFormula(String field) {
        return field.matches("(?s)[=+@\t\r].*") || field.matches("(?s)-[^0-9].*") ? "'" + field : field;
    }
}
