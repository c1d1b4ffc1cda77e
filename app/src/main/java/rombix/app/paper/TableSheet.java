package rombix.app.paper;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/** Tables on upright sheets, one below the other; one that goes on has its head on each sheet. */
final class TableSheet {
    private static final float HEAD = 16;
    private static final float WORDS = 11;
    private static final float PAD = 6;
    /** How much is left empty between two tables, and how high the title of one is. */
    private static final float APART = 22;
    private static final float ROW_PAD = 3;
    /** How high the heads of the columns are. */
    private static final float HEADS = Ink.line(WORDS) + 6;
    /** So many rows of a long table stand on its first sheet at least. */
    private static final int LEAST_ROWS = 3;
    private static final float TOP = HEAD + 12 + WORDS * 1.25f;

    private final Ink ink;
    private boolean begun;
    private float at;

    TableSheet(Ink ink) {
        this.ink = ink;
    }

    /**
     * A table, and what it is of.
     *
     * @param shares how wide each column is, as parts of the whole
     */
    record Table(String title, String about, List<String> head, float[] shares) {
    }

    void draw(Table table, List<List<String>> rows) throws IOException {
        if (!begun) {
            sheet();
        }
        List<List<List<String>>> all = new ArrayList<>();
        float height = TOP + HEADS;
        for (List<String> row : rows) {
            List<List<String>> cells = cells(table, row);
            all.add(cells);
            height += lines(cells) * Ink.line(WORDS) + 2 * ROW_PAD;
        }
        // One that fits on a sheet is not cut in two.
        float least = height <= ink.height() ? height : TOP + HEADS + LEAST_ROWS * Ink.line(WORDS);
        if (at > 0 && at + APART + least > ink.height()) {
            sheet();
        }
        at += at > 0 ? APART : 0;
        head(table);
        for (List<List<String>> cells : all) {
            int lines = lines(cells);
            for (int line = 0; line < lines; line++) {
                if (at + Ink.line(WORDS) > ink.height()) {
                    sheet();
                    head(table);
                }
                float x = 0;
                for (int c = 0; c < cells.size(); c++) {
                    if (line < cells.get(c).size()) {
                        ink.text(ink.plain(), WORDS, x, at, cells.get(c).get(line));
                    }
                    x += table.shares()[c] * ink.width();
                }
                at += Ink.line(WORDS);
            }
            at += ROW_PAD;
            ink.rule(0, at, ink.width(), 0.25f);
            at += ROW_PAD;
        }
    }

    /** The lines of each cell of a row. */
    private List<List<String>> cells(Table table, List<String> row) throws IOException {
        List<List<String>> cells = new ArrayList<>();
        for (int c = 0; c < row.size(); c++) {
            cells.add(ink.wrapped(ink.plain(), WORDS, table.shares()[c] * ink.width() - PAD, row.get(c)));
        }
        return cells;
    }

    private static int lines(List<List<String>> cells) {
        return cells.stream().mapToInt(List::size).max().orElse(1);
    }

    private void sheet() throws IOException {
        ink.sheet(false);
        begun = true;
        at = 0;
    }

    private void head(Table table) throws IOException {
        ink.text(ink.bold(), HEAD, 0, at, table.title());
        ink.text(ink.plain(), WORDS, 0, at + HEAD + 6, table.about());
        at += TOP;
        float x = 0;
        for (int c = 0; c < table.head().size(); c++) {
            ink.text(ink.bold(), WORDS, x, at, table.head().get(c));
            x += table.shares()[c] * ink.width();
        }
        ink.rule(0, at + Ink.line(WORDS) + 2, ink.width(), 0.8f);
        at += HEADS;
    }
}
