package rombix.app.paper;

import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.PathIterator;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.apache.fontbox.ttf.GlyphData;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.image.LosslessFactory;
import org.jspecify.annotations.Nullable;
import rombix.running.face.FaceNow;
import rombix.running.face.IconFont;

/**
 * Draws on sheets of paper, one after the other; places are points from the upper left corner. Text stays text: its fonts
 * are in the file, as far as it uses them.
 */
final class Ink implements AutoCloseable {
    /** The width that is left empty on all sides. */
    static final float MARGIN = 36;
    private static final float LINE = 1.25f;
    private static final float FOOT = 8;
    private static final String FONTS = "/rombix/running/face/fonts/archivo-narrow-latin-";

    private final PDDocument document = new PDDocument();
    private final PaperSize size;
    private final PDFont plain;
    private final PDFont bold;
    private final TrueTypeFont icons;
    private final Map<PDFont, Map<Integer, Boolean>> known = new HashMap<>();
    private @Nullable PDPageContentStream out;
    private float width;
    private float height;
    private int sheets;

    Ink(PaperSize size) throws IOException {
        this.size = size;
        plain = font(FONTS + "400-normal.woff");
        bold = font(FONTS + "700-normal.woff");
        try (InputStream in = Objects.requireNonNull(Ink.class.getResourceAsStream(IconFont.FILE))) {
            icons = new TTFParser().parse(RandomAccessReadBuffer.createBufferFromStream(in));
        }
    }

    private PDFont font(String resource) throws IOException {
        try (InputStream in = Objects.requireNonNull(FaceNow.class.getResourceAsStream(resource), resource)) {
            return PDType0Font.load(document, new ByteArrayInputStream(Woff.unpacked(in.readAllBytes())), true);
        }
    }

    PDDocument document() {
        return document;
    }

    int sheets() {
        return sheets;
    }

    /** Begins a sheet. */
    void sheet(boolean across) throws IOException {
        done();
        width = across ? size.height() : size.width();
        height = across ? size.width() : size.height();
        PDPage page = new PDPage(new PDRectangle(width, height));
        document.addPage(page);
        out = new PDPageContentStream(document, page);
        sheets++;
    }

    /** Ends the last sheet, and writes a line at the foot of each; the document can be saved then. */
    void foot(String words) throws IOException {
        done();
        for (int i = 0; i < sheets; i++) {
            PDPage page = document.getPage(i);
            width = page.getMediaBox().getWidth();
            height = page.getMediaBox().getHeight();
            out = new PDPageContentStream(document, page, PDPageContentStream.AppendMode.APPEND, true);
            String line = "%s, %d of %d".formatted(words, i + 1, sheets);
            text(plain, FOOT, width() - width(plain, FOOT, line), height() + FOOT, line);
            done();
        }
    }

    private void done() throws IOException {
        if (out != null) {
            out.close();
            out = null;
        }
    }

    private PDPageContentStream on() {
        return Objects.requireNonNull(out, "no sheet was begun");
    }

    float width() {
        return width - 2 * MARGIN;
    }

    float height() {
        return height - 2 * MARGIN;
    }

    PDFont bold() {
        return bold;
    }

    PDFont plain() {
        return plain;
    }

    /** What a font can show of a text; a question mark for the rest. */
    private String shown(PDFont font, String text) {
        StringBuilder all = new StringBuilder();
        text.codePoints().map(c -> Character.isWhitespace(c) || Character.isISOControl(c) || c == 0xA0 ? ' ' : c)
                .forEach(
                        c -> all.appendCodePoint(knows(font, c) ? c : '?'));
        return all.toString();
    }

    private boolean knows(PDFont font, int codePoint) {
        return known.computeIfAbsent(font, _ -> new HashMap<>()).computeIfAbsent(codePoint, c -> {
            try {
                font.encode(Character.toString(c));
                return true;
            } catch (IOException | IllegalArgumentException e) {
                return false;
            }
        });
    }

    float width(PDFont font, float points, String text) throws IOException {
        return font.getStringWidth(shown(font, text)) / 1000 * points;
    }

    /** One line; {@code y} is its upper edge. */
    void text(PDFont font, float points, float x, float y, String text) throws IOException {
        text(font, points, x, y, text, Color.BLACK);
    }

    void text(PDFont font, float points, float x, float y, String text, Color colour) throws IOException {
        PDPageContentStream to = on();
        to.beginText();
        to.setNonStrokingColor(colour);
        to.setFont(font, points);
        to.newLineAtOffset(MARGIN + x, height - MARGIN - y - points);
        to.showText(shown(font, text));
        to.endText();
    }

    /** How high a line of text is. */
    static float line(float points) {
        return points * LINE;
    }

    /** A text in lines of a width at most; a word that is wider is broken. */
    List<String> wrapped(PDFont font, float points, float widest, String text) throws IOException {
        List<String> lines = new ArrayList<>();
        for (String paragraph : text.split("\n", -1)) {
            StringBuilder line = new StringBuilder();
            for (String word : paragraph.split(" ")) {
                String rest = word;
                String longer = line.isEmpty() ? rest : line + " " + rest;
                if (width(font, points, longer) <= widest) {
                    line.setLength(0);
                    line.append(longer);
                    continue;
                }
                if (!line.isEmpty()) {
                    lines.add(line.toString());
                    line.setLength(0);
                }
                while (width(font, points, rest) > widest && rest.length() > 1) {
                    int fits = rest.length() - 1;
                    while (fits > 1 && width(font, points, rest.substring(0, fits)) > widest) {
                        fits--;
                    }
                    lines.add(rest.substring(0, fits));
                    rest = rest.substring(fits);
                }
                line.append(rest);
            }
            lines.add(line.toString());
        }
        return lines;
    }

    /** An icon, as a shape: its sign in the font is no letter that anybody could look for in the text. */
    void icon(int code, float points, float x, float y) throws IOException {
        GlyphData glyph = icons.getGlyph().getGlyph(icons.getUnicodeCmapLookup().getGlyphId(code));
        if (glyph == null) {
            return;
        }
        double scale = points / icons.getUnitsPerEm();
        AffineTransform to = AffineTransform.getTranslateInstance(x,
                y + icons.getHorizontalHeader().getAscender() * scale);
        to.scale(scale, -scale);
        path(to.createTransformedShape(glyph.getPath()));
        on().setNonStrokingColor(Color.BLACK);
        on().fill();
    }

    /** The outline of a shape whose places are those of the sheet. */
    void outline(Shape shape, float thick) throws IOException {
        path(shape);
        on().setStrokingColor(Color.BLACK);
        on().setLineWidth(thick);
        on().stroke();
    }

    private void path(Shape shape) throws IOException {
        PDPageContentStream to = on();
        // A PDF counts from below, and has no curves with a single handle.
        AffineTransform upright = new AffineTransform(1, 0, 0, -1, MARGIN, height - MARGIN);
        float[] at = new float[6];
        float x = 0;
        float y = 0;
        for (PathIterator i = shape.getPathIterator(upright); !i.isDone(); i.next()) {
            switch (i.currentSegment(at)) {
                case PathIterator.SEG_MOVETO -> to.moveTo(x = at[0], y = at[1]);
                case PathIterator.SEG_LINETO -> to.lineTo(x = at[0], y = at[1]);
                case PathIterator.SEG_QUADTO -> {
                    to.curveTo(x + (at[0] - x) * 2 / 3, y + (at[1] - y) * 2 / 3, at[2] + (at[0] - at[2]) * 2 / 3, at[3]
                            + (at[1] - at[3]) * 2 / 3, at[2], at[3]);
                    x = at[2];
                    y = at[3];
                }
                case PathIterator.SEG_CUBICTO -> {
                    to.curveTo(at[0], at[1], at[2], at[3], at[4], at[5]);
                    x = at[4];
                    y = at[5];
                }
                default -> to.closePath();
            }
        }
    }

    /** A picture as large as it can be within a box, in its middle. */
    void picture(BufferedImage picture, float x, float y, float w, float h) throws IOException {
        float scale = Math.min(w / picture.getWidth(), h / picture.getHeight());
        float across = picture.getWidth() * scale;
        float down = picture.getHeight() * scale;
        on().drawImage(LosslessFactory.createFromImage(document, picture), MARGIN + x + (w - across) / 2,
                height - MARGIN
                        - y - h + (h - down) / 2,
                across, down);
    }

    void box(float x, float y, float w, float h, float thick, @Nullable Color fill) throws IOException {
        PDPageContentStream to = on();
        if (fill != null) {
            to.setNonStrokingColor(fill);
            to.addRect(MARGIN + x, height - MARGIN - y - h, w, h);
            to.fill();
        }
        to.setStrokingColor(Color.BLACK);
        to.setLineWidth(thick);
        to.addRect(MARGIN + x, height - MARGIN - y - h, w, h);
        to.stroke();
    }

    void rule(float x, float y, float to, float thick) throws IOException {
        PDPageContentStream on = on();
        on.setStrokingColor(Color.BLACK);
        on.setLineWidth(thick);
        on.moveTo(MARGIN + x, height - MARGIN - y);
        on.lineTo(MARGIN + to, height - MARGIN - y);
        on.stroke();
    }

    @Override
    public void close() throws IOException {
        done();
        icons.close();
        document.close();
    }
}
