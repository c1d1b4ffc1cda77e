package rombix.app.paper;

import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.Ikon;
import rombix.app.edit.file.PictureFile;
import rombix.core.board.Board;
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
    /** Sizes of the words under a face; the largest is taken with which no more is cut off than with the smallest. */
    private static final float[] WORDS = {13, 12, 11, 10, 9};
    /** The size of what stands at the margin, and on the sheets behind. */
    private static final float SMALL = 10;
    private static final float ICON = 20;
    private static final float MARK = 9;
    private static final float PAD = 5;
    /** A page of few buttons has none as large as the sheet. */
    private static final int LEAST_COLUMNS = 3;
    private static final int LEAST_ROWS = 2;
    /** How wide lines are at most: longer ones are hard to follow. */
    private static final float WIDEST = 560;
    private static final float GAP = 6;
    /** The tints of pages in the light theme, so that a printed page is known again. */
    private static final Map<Face.Fill, Color> TINTS = Map.of(Face.Fill.MOSS, new Color(0xD7E5DB), Face.Fill.UMBER,
            new Color(0xEFE3C9), Face.Fill.SLATE, new Color(0xD3E1EC), Face.Fill.WINE, new Color(0xF0D8DD),
            Face.Fill.PLUM, new Color(0xE3DAEE), Face.Fill.STONE, new Color(0xDFE2E2));

    private final Ink ink;
    private final ButtonLines lines;
    private final FaceWords words;
    private final boolean colours;
    private final Function<String, Optional<Board.Picture>> pictures;

    private record Tile(Button button, float x, float y, float w, float h) {
    }

    /** What found no room under its button. */
    private record Rest(int number, Button button, List<String> lines) {
    }

    PageSheet(Ink ink, ButtonLines lines, FaceWords words, Function<String, Optional<Board.Picture>> pictures,
            boolean colours) {
        this.ink = ink;
        this.lines = lines;
        this.words = words;
        this.pictures = pictures;
        this.colours = colours;
    }

    void draw(Page page) throws IOException {
        ink.sheet(true);
        ink.text(ink.bold(), HEAD, 0, 0, page.name());
        float top = HEAD + 12;
        // Rows and columns behind the last button would be empty paper.
        int columns = page.buttons().stream().mapToInt(b -> b.column() + b.width()).max().orElse(1);
        int rows = page.buttons().stream().mapToInt(b -> b.row() + b.height()).max().orElse(1);
        float w = (ink.width() + GAP) / Math.max(LEAST_COLUMNS, columns);
        float h = (ink.height() - top + GAP) / Math.max(LEAST_ROWS, rows);
        List<Tile> tiles = new ArrayList<>();
        for (Button b : page.buttons()) {
            tiles.add(new Tile(b, b.column() * w, top + b.row() * h, b.width() * w - GAP, b.height() * h - GAP));
        }
        float size = size(tiles);
        List<Rest> rest = new ArrayList<>();
        for (Tile t : tiles) {
            draw(t, size, rest);
        }
        behind(page, rest);
    }

    /** The size of words with which no more is cut off than with the smallest. */
    private float size(List<Tile> tiles) throws IOException {
        float smallest = WORDS[WORDS.length - 1];
        List<Tile> fitting = new ArrayList<>();
        for (Tile t : tiles) {
            if (fits(t, smallest)) {
                fitting.add(t);
            }
        }
        for (float size : WORDS) {
            boolean all = true;
            for (Tile t : fitting) {
                all &= fits(t, size);
            }
            if (all) {
                return size;
            }
        }
        return smallest;
    }

    private boolean fits(Tile tile, float size) throws IOException {
        return wrapped(lines.of(tile.button()), size, tile.w() - 2 * PAD).size() <= room(tile, head(tile).height(),
                size);
    }

    /** How many lines find room under the head of a tile. */
    private static int room(Tile tile, float head, float size) {
        return Math.max(0, (int) ((tile.h() - head - PAD) / Ink.line(size)));
    }

    /** The upper part of a tile: its face. */
    private record Head(FaceNow face, float left, List<String> label, float height) {
    }

    private Head head(Tile tile) throws IOException {
        FaceNow face = FaceNow.preview(tile.button(), 0, DeckState.NOTHING, words);
        boolean image = face.face().image() != null || icon(face.face()) != null;
        float left = PAD + (image ? ICON + PAD : 0);
        float room = tile.w() - PAD - left - (face.face().mark() == null ? 0 : MARK + PAD);
        List<String> label = ink.wrapped(ink.bold(), LABEL, room, label(tile.button()));
        return new Head(face, left, label, 2 * PAD + Math.max(label.size() * Ink.line(LABEL), image ? ICON : 0));
    }

    /** Its label, if all its states have the same, but for what is filled in; else its name. */
    private static String label(Button button) {
        List<String> labels = button
                .states().stream().map(s -> s.face().label() == null
                        ? button.name()
                        : s.face().label()
                                .lines().filter(l -> !l.contains("{")).collect(Collectors.joining("\n")))
                .distinct().toList();
        return labels.size() == 1 && !labels.getFirst().isBlank() ? labels.getFirst() : button.name();
    }

    private void draw(Tile tile, float size, List<Rest> rest) throws IOException {
        Head head = head(tile);
        Face face = head.face().face();
        ink.box(tile.x(), tile.y(), tile.w(), tile.h(), 0.8f, colours ? tint(face) : null);
        picture(face, tile.x() + PAD, tile.y() + PAD);
        if (face.mark() != null) {
            ink.outline(mark(face.mark(), tile.x() + tile.w() - PAD - MARK, tile.y() + PAD), 1.2f);
        }
        float labels = head.label().size() * Ink.line(LABEL);
        float at = tile.y() + PAD + (head.left() > PAD ? Math.max(0, (ICON - labels) / 2) : 0);
        for (String line : head.label()) {
            ink.text(ink.bold(), LABEL, tile.x() + head.left(), at, line);
            at += Ink.line(LABEL);
        }
        at = tile.y() + head.height();
        List<String> told = lines.of(tile.button());
        List<String> all = wrapped(told, size, tile.w() - 2 * PAD);
        int room = room(tile, head.height(), size);
        boolean cut = all.size() > room;
        for (String line : cut ? all.subList(0, Math.max(0, room - 1)) : all) {
            ink.text(ink.plain(), size, tile.x() + PAD, at, line);
            at += Ink.line(size);
        }
        if (cut) {
            rest.add(new Rest(rest.size() + 1, tile.button(), told));
            ink.text(ink.bold(), size, tile.x() + PAD, tile.y() + tile.h() - PAD - Ink.line(size), "See " + rest.size()
                    + ".");
        }
    }

    /** What stands at the left of the label: the board's own picture, else the icon. */
    private void picture(Face face, float x, float y) throws IOException {
        Face.Image image = face.image();
        BufferedImage drawn = image == null
                ? null
                : pictures.apply(image.picture()).map(p -> drawn(p, image.tint())).orElse(null);
        Ikon icon = icon(face);
        if (drawn != null) {
            ink.picture(drawn, x, y, ICON, ICON);
        } else if (icon != null) {
            ink.icon(icon.getCode(), ICON, x, y);
        }
    }

    private static @Nullable BufferedImage drawn(Board.Picture picture, @Nullable String tint) {
        try {
            return PictureFile.drawn(picture, tint);
        } catch (RuntimeException e) {
            return null; // A picture that nobody could draw must not end the printing.
        }
    }

    private static @Nullable Ikon icon(Face face) {
        return face.icon() == null ? null : IconFont.find(face.icon()).orElse(null);
    }

    /** The shape by which a state is told from the others. */
    private static Shape mark(Face.Mark mark, float x, float y) {
        return switch (mark) {
            case RING -> new Ellipse2D.Float(x, y, MARK, MARK);
            case CROSS -> line(x, y, 0, 0, 1, 1, 0.5f, 0.5f, 1, 0, 0, 1);
            case TICK -> line(x, y, 0, 0.6f, 0.3f, 0.9f, 1, 0.1f);
            case BAR -> line(x, y, 0, 0.5f, 1, 0.5f);
            case UP -> line(x, y, 0, 0.8f, 0.5f, 0.2f, 1, 0.8f);
            case DOWN -> line(x, y, 0, 0.2f, 0.5f, 0.8f, 1, 0.2f);
        };
    }

    /** A line through points that are parts of the mark's width. */
    private static Shape line(float x, float y, float... points) {
        Path2D.Float path = new Path2D.Float();
        path.moveTo(x + points[0] * MARK, y + points[1] * MARK);
        for (int i = 2; i < points.length; i += 2) {
            path.lineTo(x + points[i] * MARK, y + points[i + 1] * MARK);
        }
        return path;
    }

    private static Color tint(Face face) {
        String own = face.tint();
        return own == null ? TINTS.getOrDefault(face.fill(), Color.WHITE) : lighter(Color.decode(own));
    }

    /** A colour so light that black words can be read on it. */
    private static Color lighter(Color c) {
        return new Color(255 - (255 - c.getRed()) / 4, 255 - (255 - c.getGreen()) / 4, 255 - (255 - c.getBlue()) / 4);
    }

    private List<String> wrapped(List<String> words, float size, float widest) throws IOException {
        List<String> all = new ArrayList<>();
        for (String w : words) {
            all.addAll(ink.wrapped(ink.plain(), size, widest, w));
        }
        return all;
    }

    /** What found no room, in full. */
    private void behind(Page page, List<Rest> rest) throws IOException {
        float at = Float.MAX_VALUE;
        for (Rest r : rest) {
            List<String> all = wrapped(r.lines(), SMALL, WIDEST);
            if (at + Ink.line(LABEL) * 2 > ink.height()) {
                at = fresh(page);
            }
            PDFont bold = ink.bold();
            ink.text(bold, LABEL, 0, at, r.number() + "   " + r.button().name());
            at += Ink.line(LABEL);
            for (String line : all) {
                if (at + Ink.line(SMALL) > ink.height()) {
                    at = fresh(page);
                }
                ink.text(ink.plain(), SMALL, 30, at, line);
                at += Ink.line(SMALL);
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
