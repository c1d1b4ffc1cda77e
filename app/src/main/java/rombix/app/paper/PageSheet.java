package rombix.app.paper;

import java.awt.Color;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.pdfbox.pdmodel.font.PDFont;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.running.face.FaceNow;
import rombix.running.face.FaceWords;
import rombix.running.face.IconFont;
import rombix.running.state.DeckState;

/**
 * A page of a board on one sheet: its buttons where they are, with their faces, and under each what it does. What finds no
 * room there stands on the sheets behind, under the number of its button.
 */
final class PageSheet {
    private static final float HEAD = 16;
    private static final float LABEL = 11;
    private static final float WORDS = 9;
    private static final float ICON = 20;
    private static final float PAD = 5;
    private static final float GAP = 6;
    /** The tints of pages in the light theme, so that a printed page is known again. */
    private static final Map<Face.Fill, Color> TINTS = Map.of(Face.Fill.MOSS, new Color(0xD7E5DB), Face.Fill.UMBER,
            new Color(0xEFE3C9), Face.Fill.SLATE, new Color(0xD3E1EC), Face.Fill.WINE, new Color(0xF0D8DD),
            Face.Fill.PLUM, new Color(0xE3DAEE), Face.Fill.STONE, new Color(0xDFE2E2));

    private final Ink ink;
    private final ButtonLines lines;
    private final FaceWords words;
    private final boolean colours;

    /** What found no room under its button. */
    private record Rest(int number, Button button, List<String> lines) {
    }

    PageSheet(Ink ink, ButtonLines lines, FaceWords words, boolean colours) {
        this.ink = ink;
        this.lines = lines;
        this.words = words;
        this.colours = colours;
    }

    void draw(String board, Page page) throws IOException {
        ink.sheet(true);
        ink.text(ink.bold(), HEAD, 0, 0, page.name());
        float right = ink.width(ink.plain(), WORDS, board);
        ink.text(ink.plain(), WORDS, ink.width() - right, HEAD - WORDS, board);
        float top = HEAD + 12;
        float w = (ink.width() + GAP) / page.columns();
        float h = (ink.height() - top + GAP) / page.rows();
        List<Rest> rest = new ArrayList<>();
        for (Button b : page.buttons()) {
            tile(b, b.column() * w, top + b.row() * h, b.width() * w - GAP, b.height() * h - GAP, rest);
        }
        behind(page, rest);
    }

    private void tile(Button button, float x, float y, float w, float h, List<Rest> rest) throws IOException {
        FaceNow face = FaceNow.preview(button, 0, DeckState.NOTHING, words);
        ink.box(x, y, w, h, 0.8f, colours ? tint(face.face()) : null);
        float at = y + PAD;
        float left = x + PAD;
        String icon = face.face().icon();
        if (icon != null && IconFont.find(icon).isPresent()) {
            ink.text(ink.icons(), ICON, left, at, Character.toString(IconFont.find(icon).get().getCode()));
            left += ICON + PAD;
        }
        String label = face.label().isBlank() ? button.name() : face.label();
        float before = at;
        for (String line : ink.wrapped(ink.bold(), LABEL, x + w - PAD - left, label)) {
            ink.text(ink.bold(), LABEL, left, at, line);
            at += Ink.line(LABEL);
        }
        at = Math.max(at, icon == null ? at : before + ICON) + 2;
        List<String> all = wrapped(lines.of(button), w - 2 * PAD);
        int fits = Math.max(0, (int) ((y + h - PAD - at) / Ink.line(WORDS)));
        boolean cut = all.size() > fits;
        int number = rest.size() + 1;
        for (String line : all.subList(0, Math.min(all.size(), cut ? Math.max(0, fits - 1) : fits))) {
            ink.text(ink.plain(), WORDS, x + PAD, at, line);
            at += Ink.line(WORDS);
        }
        if (cut) {
            ink.text(ink.bold(), WORDS, x + PAD, y + h - PAD - Ink.line(WORDS), "See " + number + ".");
            rest.add(new Rest(number, button, lines.of(button)));
        }
    }

    private static Color tint(Face face) {
        String own = face.tint();
        return own == null ? TINTS.getOrDefault(face.fill(), Color.WHITE) : lighter(Color.decode(own));
    }

    /** A colour so light that black words can be read on it. */
    private static Color lighter(Color c) {
        return new Color(255 - (255 - c.getRed()) / 4, 255 - (255 - c.getGreen()) / 4, 255 - (255 - c.getBlue()) / 4);
    }

    private List<String> wrapped(List<String> words, float widest) throws IOException {
        List<String> all = new ArrayList<>();
        for (String w : words) {
            all.addAll(ink.wrapped(ink.plain(), WORDS, widest, w));
        }
        return all;
    }

    /** What found no room, in full. */
    private void behind(Page page, List<Rest> rest) throws IOException {
        float at = Float.MAX_VALUE;
        for (Rest r : rest) {
            List<String> all = wrapped(r.lines(), ink.width() - 30);
            if (at + Ink.line(LABEL) * 2 > ink.height()) {
                at = fresh(page);
            }
            PDFont bold = ink.bold();
            ink.text(bold, LABEL, 0, at, r.number() + "   " + r.button().name());
            at += Ink.line(LABEL);
            for (String line : all) {
                if (at + Ink.line(WORDS) > ink.height()) {
                    at = fresh(page);
                }
                ink.text(ink.plain(), WORDS, 30, at, line);
                at += Ink.line(WORDS);
            }
            at += 6;
        }
    }

    private float fresh(Page page) throws IOException {
        ink.sheet(true);
        ink.text(ink.bold(), HEAD, 0, 0, page.name() + ", in full");
        return HEAD + 12;
    }
}
