package rombix.app.paper;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/** Tables on upright sheets, one below the other; one that goes on has its head on each sheet. */
final class TableSheet {
    private static final float HEAD = 16;
    private static final float WORDS = 10;
    private static final float PAD = 6;
    /** How much is left empty between two tables, and how high the title of one is. */
    private static final float APART = 22;
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
        if (!begun || at + APART + TOP + 3 * Ink.line(WORDS) > ink.height()) {
            sheet();
        } else {
            at += APART;
        }
        head(table);
        for (List<String> row : rows) {
            List<List<String>> cells = new ArrayList<>();
            int lines = 1;
            for (int c = 0; c < row.size(); c++) {
                List<String> cell = ink.wrapped(ink.plain(), WORDS, table.shares()[c] * ink.width() - PAD, row.get(c));
                cells.add(cell);
                lines = Math.max(lines, cell.size());
            }
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
            at += 3;
            ink.rule(0, at, ink.width(), 0.25f);
            at += 3;
        }
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
        at += Ink.line(WORDS) + 2;
        ink.rule(0, at, ink.width(), 0.8f);
        at += 4;
    }
}
