package rombix.core.patch;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.card.Channel.Kind;
import rombix.core.card.value.Mapped.Curve;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.MappingIterator;
import tools.jackson.dataformat.csv.CsvMapper;
import tools.jackson.dataformat.csv.CsvReadFeature;
import tools.jackson.dataformat.csv.CsvSchema;

/** A patch as a table for spreadsheets (RFC 4180): a line for each fixture, with its head first. */
public final class PatchCsv {
    private static final CsvMapper CSV = CsvMapper.builder()
            .enable(CsvReadFeature.TRIM_SPACES, CsvReadFeature.SKIP_EMPTY_LINES)
            .build();
    private static final List<String> HEAD = List.of("name", "personality", "universe", "slot", "invert", "limit",
            "curve");

    /**
     * What was read.
     *
     * @param wrong what could not be taken, each with its line
     */
    public record Read(List<Fixture> fixtures, List<String> wrong) {
    }

    private PatchCsv() {
    }

    /** The fixtures, one a line. */
    public static String write(List<Fixture> fixtures) {
        CsvSchema.Builder columns = CsvSchema.builder();
        HEAD.forEach(columns::addColumn);
        List<Map<String, Object>> rows = fixtures.stream().map(PatchCsv::row).toList();
        return CSV.writer(columns.build().withHeader().withLineSeparator("\r\n")).writeValueAsString(rows);
    }

    private static Map<String, Object> row(Fixture f) {
        Map<String, Object> row = new LinkedHashMap<>();
        row.put("name", f.name());
        row.put("personality", f.personality());
        row.put("universe", f.universe());
        row.put("slot", f.slot());
        row.put("invert", f.invert().stream().map(k -> k.name().toLowerCase(Locale.ROOT)).sorted().collect(Collectors
                .joining(" ")));
        row.put("limit", f.limit() == null ? "" : f.limit());
        row.put("curve", f.curve() == null ? "" : f.curve().name().toLowerCase(Locale.ROOT).replace('_', '-'));
        return row;
    }

    /**
     * Reads such a table. Its columns are found by their names, in any order; commas, semicolons and tabs part them.
     *
     * @param cards where personalities are found, by their ids or their titles
     */
    public static Read read(String text, Map<String, Card> cards) {
        List<Fixture> fixtures = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text; // What spreadsheets put before UTF-8.
        String head = plain.lines().findFirst().orElse("");
        char between = head.contains(";") ? ';' : head.contains("\t") ? '\t' : ',';
        int line = 1;
        try (MappingIterator<Map<String, String>> rows = CSV.readerForMapOf(String.class).with(CsvSchema.emptySchema()
                .withHeader().withColumnSeparator(between)).readValues(plain)) {
            while (rows.hasNextValue()) {
                line++;
                try {
                    fixtures.add(fixture(lower(rows.nextValue()), fixtures, cards));
                } catch (IllegalArgumentException e) {
                    wrong.add("line " + line + ": " + e.getMessage());
                }
            }
        } catch (JacksonException e) {
            wrong.add("line " + (line + 1) + " can't be read: " + e.getOriginalMessage());
        }
        return new Read(fixtures, wrong);
    }

    private static Map<String, String> lower(Map<String, String> row) {
        Map<String, String> all = new HashMap<>();
        row.forEach(
                (name, value) -> all.put(name.strip().toLowerCase(Locale.ROOT), value == null ? "" : value.strip()));
        return all;
    }

    private static Fixture fixture(Map<String, String> row, List<Fixture> before, Map<String, Card> cards) {
        String name = row.getOrDefault("name", "");
        if (name.isEmpty()) {
            throw new IllegalArgumentException("the name is missing; the columns are " + String.join(", ", HEAD));
        }
        String limit = row.getOrDefault("limit", "");
        return new Fixture(Fixtures.id(name, before), name, personality(row.getOrDefault("personality", ""), cards),
                number(row, "universe"), number(row, "slot"), invert(row.getOrDefault("invert", "")), limit.isEmpty()
                        ? null
                        : (int) whole(limit.replace("%", ""), "limit"),
                curve(row.getOrDefault("curve", "")));
    }

    private static String personality(String said, Map<String, Card> cards) {
        return cards.values().stream().filter(c -> !c.channels().isEmpty() && (c.id().equals(said) || c.title()
                .equalsIgnoreCase(said))).map(Card::id).findFirst().orElseThrow(() -> new IllegalArgumentException(
                        "there is no personality “" + said + "”"));
    }

    private static int number(Map<String, String> row, String column) {
        return (int) whole(row.getOrDefault(column, ""), column);
    }

    private static long whole(String text, String column) {
        if (!text.strip().matches("\\d{1,9}")) {
            throw new IllegalArgumentException("“" + text + "” is no " + column);
        }
        return Long.parseLong(text.strip());
    }

    private static Set<Kind> invert(String said) {
        Set<Kind> all = EnumSet.noneOf(Kind.class);
        for (String word : said.toLowerCase(Locale.ROOT).split("[ /+]+")) {
            if (!word.isEmpty()) {
                all.add(Arrays.stream(Kind.values()).filter(k -> k.name().equalsIgnoreCase(word)).findFirst()
                        .orElseThrow(() -> new IllegalArgumentException("there is no “" + word
                                + "” to invert")));
            }
        }
        return all;
    }

    private static @Nullable Curve curve(String said) {
        return said.isEmpty()
                ? null
                : Arrays.stream(Curve.values()).filter(c -> c.name().equalsIgnoreCase(said.replace('-', '_')))
                        .findFirst()
                        .orElseThrow(() -> new IllegalArgumentException("there is no curve “" + said + "”"));
    }
}
