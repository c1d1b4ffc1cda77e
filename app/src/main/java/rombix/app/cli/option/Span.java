package rombix.app.cli.option;

import java.util.Locale;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine;

/** A length of time such as {@code 20s}, {@code 500ms}, {@code 2min}; a bare number is seconds. In milliseconds. */
public final class Span implements ITypeConverter<Long> {
    @Override
    public Long convert(String text) {
        java.util.regex.Matcher m = java.util.regex.Pattern.compile("(\\d+(?:\\.\\d+)?)\\s*(ms|s|min|h)?")
                .matcher(text.strip().toLowerCase(Locale.ROOT));
        if (!m.matches()) {
            throw new CommandLine.TypeConversionException("expected a time such as 20s or 2min, not " + text);
        }
        String unit = m.group(2) == null ? "s" : m.group(2);
        double factor = switch (unit) {
            case "ms" -> 1;
            case "min" -> 60_000;
            case "h" -> 3_600_000;
            default -> 1000;
        };
        return Math.round(Double.parseDouble(m.group(1)) * factor);
    }
}
