package rombix.app.edit;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.parser.LoaderContext;
import com.github.weisj.jsvg.parser.SVGLoader;
import com.github.weisj.jsvg.parser.resources.ResourcePolicy;
import com.github.weisj.jsvg.view.FloatSize;
import com.github.weisj.jsvg.view.ViewBox;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.HexFormat;
import java.util.logging.Level;
import java.util.logging.Logger;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board.Picture;

/** Pictures from disk, made fit to travel with a board: checked, and no larger than a tile can show. */
public final class PictureFile {
    /** The longest side of a picture that a board carries, in pixels. */
    public static final int MAX_PIXELS = 512;
    private static final long MAX_READ = 20L << 20;
    private static final int MAX_KEPT = 1 << 20;
    private static final String KINDS = "PNG, JPEG, GIF, BMP or SVG";

    /** What it has to say of a damaged picture is said once, by the error. */
    private static final Logger DRAWING = Logger.getLogger("com.github.weisj.jsvg");

    static {
        DRAWING.setLevel(Level.OFF);
    }

    private PictureFile() {
    }

    /**
     * Reads a picture; larger ones are made smaller.
     *
     * @throws IOException in plain words, if it is no picture that can be used
     */
    public static Picture read(Path file) throws IOException {
        String name = String.valueOf(file.getFileName());
        byte[] bytes = bytes(file, name);
        if (isSvg(bytes)) {
            picture(bytes, name);
        } else {
            BufferedImage image = picture(bytes, name);
            if (Math.max(image.getWidth(), image.getHeight()) > MAX_PIXELS) {
                bytes = png(smaller(image));
            }
        }
        if (bytes.length > MAX_KEPT) {
            throw new IOException("“%s” takes %d kB; a board carries pictures of at most 1024 kB. Save it smaller."
                    .formatted(name, bytes.length >> 10));
        }
        return new Picture(id(bytes), name, Base64.getEncoder().encodeToString(bytes));
    }

    private static byte[] bytes(Path file, String name) throws IOException {
        try {
            if (Files.size(file) > MAX_READ) {
                throw new IOException("“%s” is larger than 20 MB. Save it smaller.".formatted(name));
            }
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new IOException("There is no file “%s” any more.".formatted(file), e);
        }
    }

    /** Draws a picture of a board; null where its data are of no kind that can be drawn. */
    public static @Nullable BufferedImage drawn(Picture picture) {
        try {
            return picture(Base64.getDecoder().decode(picture.data()), picture.name());
        } catch (IOException | IllegalArgumentException e) {
            return null;
        }
    }

    private static BufferedImage picture(byte[] bytes, String name) throws IOException {
        BufferedImage image = null;
        try {
            image = isSvg(bytes) ? svg(bytes) : ImageIO.read(new ByteArrayInputStream(bytes));
        } catch (IOException | RuntimeException e) {
            throw new IOException("“%s” cannot be drawn: it is damaged, or not what its name says. Choose a %s file."
                    .formatted(name, KINDS), e);
        }
        if (image == null) {
            throw new IOException("“%s” is no picture that Rombix reads. Choose a %s file.".formatted(name, KINDS));
        }
        return image;
    }

    private static boolean isSvg(byte[] bytes) {
        String head = new String(bytes, 0, Math.min(bytes.length, 4096), StandardCharsets.UTF_8);
        return head.contains("<svg");
    }

    /** Loads nothing from outside, and no entities, which could name files or grow without end. */
    private static @Nullable BufferedImage svg(byte[] bytes) {
        if (new String(bytes, StandardCharsets.UTF_8).contains("<!ENTITY")) {
            return null;
        }
        LoaderContext context = LoaderContext.builder().externalResourcePolicy(ResourcePolicy.DENY_EXTERNAL).build();
        SVGDocument svg = new SVGLoader().load(new ByteArrayInputStream(bytes), null, context);
        if (svg == null) {
            return null;
        }
        FloatSize size = svg.size();
        double scale = MAX_PIXELS / Math.max(1.0, Math.max(size.width, size.height));
        int width = (int) Math.clamp(Math.round(size.width * scale), 1, MAX_PIXELS);
        int height = (int) Math.clamp(Math.round(size.height * scale), 1, MAX_PIXELS);
        return painted(width, height, g -> svg.render((java.awt.Component) null, g, new ViewBox(width, height)));
    }

    private static BufferedImage smaller(BufferedImage image) {
        double scale = (double) MAX_PIXELS / Math.max(image.getWidth(), image.getHeight());
        int width = Math.max(1, (int) Math.round(image.getWidth() * scale));
        int height = Math.max(1, (int) Math.round(image.getHeight() * scale));
        return painted(width, height, g -> g.drawImage(image, 0, 0, width, height, null));
    }

    private static BufferedImage painted(int width, int height, java.util.function.Consumer<Graphics2D> paint) {
        BufferedImage out = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = out.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        paint.accept(g);
        g.dispose();
        return out;
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static String id(byte[] bytes) {
        try {
            return "p" + HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes), 0, 8);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // Every Java has it.
        }
    }
}
