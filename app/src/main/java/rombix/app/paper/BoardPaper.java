package rombix.app.paper;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.board.StepPlaces;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.event.Known;
import rombix.core.forecast.Forecast;
import rombix.core.forecast.Forecaster;
import rombix.core.patch.Fixture;
import rombix.core.patch.Universes;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.running.face.FaceWords;
import rombix.running.state.DeckState;

/** Puts a board on paper. */
public final class BoardPaper {
    /** As many as the command has where nothing else is said. */
    private static final int RUNS = 1000;
    /** A chain that is over sooner needs no run sheet. */
    private static final double SHORT_MILLIS = 500;
    /** From here on a step is said to run always. */
    private static final double SURE = 0.995;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH);
    private static final String INDENT = "\u00a0".repeat(4);
    /** Steps by when they begin; those that begin together as they stand in their chain. */
    private static final Comparator<Forecast.StepTime> IN_ORDER = Comparator.comparingLong((Forecast.StepTime s) -> Math
            .round(s.start().expected() / 100)).thenComparing(s -> Pattern.compile("\\d+").matcher(s.step()).replaceAll(
                    n -> "%06d".formatted(Long.parseLong(n.group()))));

    private final Rig rig;
    private final Wanted wanted;
    private final Function<String, Twin.Readings> readings;
    private final ZonedDateTime now;

    /** Kinds of sheets. */
    public enum Sheet {
        /** Pages with their buttons, and what these do. */
        PAGES,
        /** What happens when, for each press that takes a while. */
        RUNS,
        /** Which fixture stands at which slots. */
        PATCH,
        /** All gear, and where it is reached. */
        GEAR
    }

    /**
     * What is to be on paper.
     *
     * @param pages ids of pages, for pages and run sheets; all where that is empty
     * @param colours whether faces have their tints; else all is black on white
     */
    public record Wanted(Set<Sheet> sheets, Set<String> pages, PaperSize size, boolean colours) {
        boolean has(Page page) {
            return pages.isEmpty() || pages.contains(page.id());
        }
    }

    private BoardPaper(Rig rig, Wanted wanted, Function<String, Twin.Readings> readings, ZonedDateTime now) {
        this.rig = rig;
        this.readings = readings;
        this.wanted = wanted;
        this.now = now;
    }

    /**
     * A board as PDF. It may take seconds.
     *
     * @param readings the present readings of a gear, which name what it lists; none where nothing is connected
     * @param now the day and time from which clocks on run sheets count
     */
    public static byte[] pdf(Rig rig, Wanted wanted, Function<String, Twin.Readings> readings, ZonedDateTime now)
            throws IOException {
        return new BoardPaper(rig, wanted, readings, now).pdf();
    }

    private byte[] pdf() throws IOException {
        try (Ink ink = new Ink(wanted.size())) {
            ButtonLines lines = new ButtonLines(rig, readings);
            if (wanted.sheets().contains(Sheet.PAGES)) {
                PageSheet sheet = new PageSheet(ink, lines, new FaceWords(() -> rig, () -> DeckState.NOTHING, () -> now,
                        () -> 0), rig.board()::picture, wanted.colours());
                for (Page page : rig.board().pages().stream().filter(wanted::has).toList()) {
                    sheet.draw(page);
                }
            }
            if (wanted.sheets().contains(Sheet.RUNS)) {
                runSheets(ink, lines);
            }
            if (wanted.sheets().contains(Sheet.PATCH)) {
                patch(ink);
            }
            if (wanted.sheets().contains(Sheet.GEAR)) {
                gear(ink);
            }
            if (ink.sheets() == 0) {
                throw new IOException("there is nothing to print: no page, no run sheet, no fixtures, no gear");
            }
            ink.document().getDocumentInformation().setTitle(rig.board().name());
            ink.foot(rig.board().name() + ", " + DAY.format(now));
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ink.document().save(out);
            return out.toByteArray();
        }
    }

    private void runSheets(Ink ink, ButtonLines lines) throws IOException {
        TableSheet sheet = new TableSheet(ink);
        for (RunDown r : wanted.pages().isEmpty() ? rig.board().runDowns() : List.<RunDown>of()) {
            runDown(sheet, r);
        }
        for (Page page : rig.board().pages().stream().filter(wanted::has).toList()) {
            for (Button b : page.buttons()) {
                Chain chain = b.states().getFirst().chain(Gesture.PRESS);
                if (chain.steps().isEmpty()) {
                    continue;
                }
                Forecast forecast = Forecaster.of(rig, Known.NOTHING, now, b.id(), chain, Gesture.PRESS.id(), RUNS, 1);
                if (forecast.length().expected() >= SHORT_MILLIS || forecast.endless()) {
                    runSheet(sheet, lines, page, b, forecast);
                }
            }
        }
    }

    private static void runDown(TableSheet sheet, RunDown run) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        long from = 0;
        for (RunDown.Item i : run.items()) {
            rows.add(List.of(clock(from * 1000.0).replaceFirst("\\.\\d$", ""), i.name(), i.text(),
                    i.seconds() == 0
                            ? ""
                            : Figures.span(i.seconds()
                                    * 1000.0)));
            from += i.seconds();
        }
        sheet.draw(new TableSheet.Table(
                run.name(), from == 0
                        ? "Run-down."
                        : "Run-down. Planned for " + Figures.span(from
                                * 1000.0) + ".",
                List.of("At", "Item", "Notes", "Takes"), new float[]{0.12f, 0.28f, 0.46f, 0.14f}), rows);
    }

    private void runSheet(TableSheet sheet, ButtonLines lines, Page page, Button button, Forecast forecast)
            throws IOException {
        List<List<String>> rows = new ArrayList<>();
        boolean odds = forecast.steps().stream().anyMatch(s -> s.share() < SURE);
        for (Forecast.StepTime s : forecast.steps().stream().sorted(IN_ORDER).toList()) {
            String words = StepPlaces.step(rig, button, button.states().getFirst(), s.step()).map(lines.words()::of)
                    .orElse(s.step());
            double length = s.end().expected() - s.start().expected();
            rows.add(List.of(clock(s.start().expected()), INDENT.repeat(depth(s.step())) + words, length < 50
                    ? ""
                    : Figures.span(Math.round(length)), s.share() >= SURE ? "" : Math.round(s.share() * 100) + " %"));
        }
        sheet.draw(new TableSheet.Table(button.name(), "%s, press. %s.".formatted(page.name(),
                forecast.endless()
                        ? "Runs until stopped"
                        : "Takes " + Figures.span(Math.round(forecast.length().expected()))),
                List.of("At", "Step",
                        "Takes", odds ? "Odds" : ""),
                new float[]{0.12f, 0.64f, 0.14f, 0.1f}), rows);
    }

    /** How far inside others a step is. */
    private static int depth(String place) {
        int depth = 0;
        for (String part : place.split(" > ")) {
            depth += (part.replaceAll("[^/]", "").length() + 1) / 2;
        }
        return Math.max(0, depth - 1);
    }

    /** A moment from the press on: {@code 0:03.5}, {@code 20:10:17}. */
    private static String clock(double millis) {
        long tenths = Math.round(millis / 100);
        if (tenths >= 36_000) {
            return "%d:%02d:%02d".formatted(tenths / 36_000, tenths / 600 % 60, tenths / 10 % 60);
        }
        return "%d:%02d.%d".formatted(tenths / 600, tenths / 10 % 60, tenths % 10);
    }

    private void patch(Ink ink) throws IOException {
        TableSheet sheet = new TableSheet(ink);
        for (Gear g : rig.board().gear()) {
            if (g.patch().isEmpty()) {
                continue;
            }
            Universes universes = new Universes(g.patch(), rig.cards());
            List<List<String>> rows = g.patch().stream().sorted(Comparator.comparing(Fixture::universe).thenComparing(
                    Fixture::slot))
                    .map(f -> List.of(String.valueOf(f.universe()), slots(f.slot(), universes
                            .width(f)), f.name(), card(f.personality())))
                    .toList();
            sheet.draw(new TableSheet.Table("Patch of " + g.name(), g.link().protocol().title(),
                    List.of("Universe", "Slots",
                            "Fixture", "Personality"),
                    new float[]{0.14f, 0.16f, 0.36f, 0.34f}), rows);
        }
    }

    private static String slots(int first, int width) {
        return width == 1 ? String.valueOf(first) : first + "–" + (first + width - 1);
    }

    private String card(String id) {
        Card card = rig.cards().get(id);
        return card == null ? id : card.title();
    }

    private void gear(Ink ink) throws IOException {
        if (rig.board().gear().isEmpty()) {
            return;
        }
        List<List<String>> rows = rig.board().gear().stream().map(g -> List.of(g.name(), card(g.card()), g.link()
                .protocol().title(), g.link().address() + (g.link().user() == null ? "" : ", as " + g.link().user())))
                .toList();
        new TableSheet(ink).draw(new TableSheet.Table("Gear", "", List.of("Name", "Card", "Protocol",
                "Address"), new float[]{0.26f, 0.26f, 0.18f, 0.3f}), rows);
    }
}
