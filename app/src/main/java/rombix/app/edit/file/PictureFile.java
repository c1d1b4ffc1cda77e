package rombix.app.edit.file;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.Serial;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board.Picture;

/** Pictures from disk, made fit to travel with a board: checked, and no larger than a tile can show. */
public final class PictureFile {
    /** The longest side of a picture that a board carries, in pixels. */
    public static final int MAX_PIXELS = 512;
    private static final long MAX_READ = 20L << 20;
    private static final int MAX_KEPT = 1 << 20;
    private static final int MAX_MEGAPIXELS = 16;
    private static final String KINDS = "PNG, JPEG, GIF, BMP or SVG";

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
        if (SvgPicture.is(bytes)) {
            picture(bytes, name);
        } else {
            BufferedImage image = picture(bytes, name);
            if (Math.max(image.getWidth(), image.getHeight()) > MAX_PIXELS) {
                bytes = png(smaller(image));
            }
        }
        if (bytes.length > MAX_KEPT) {
            throw new IOException("“%s” has %d kB; the limit for a picture in a board is 1024 kB. Save it smaller."
                    .formatted(name, bytes.length >> 10));
        }
        return new Picture(id(bytes), name, Base64.getEncoder().encodeToString(bytes));
    }

    /**
     * Reads a picture pixel for pixel, as one that is to be found on a screen.
     *
     * @throws IOException in plain words, if it is no picture that can be looked for
     */
    public static Picture exact(Path file) throws IOException {
        String name = String.valueOf(file.getFileName());
        byte[] bytes = bytes(file, name);
        if (SvgPicture.is(bytes)) {
            throw new IOException("“%s” can't be searched for, as it has no pixels. Choose a PNG.".formatted(name));
        }
        BufferedImage image = picture(bytes, name);
        if (Math.max(image.getWidth(), image.getHeight()) > MAX_PIXELS) {
            throw new IOException(
                    "“%s” has %d × %d pixels; the limit is %d each way. Crop it to the part to find.".formatted(
                            name, image.getWidth(), image.getHeight(), MAX_PIXELS));
        }
        byte[] png = png(image);
        return new Picture(id(png), name.replaceFirst("\\.[^.]+$", ""), Base64.getEncoder().encodeToString(png));
    }

    private static byte[] bytes(Path file, String name) throws IOException {
        try {
            if (Files.size(file) > MAX_READ) {
                throw new IOException("“%s” is larger than 20 MB. Save it smaller.".formatted(name));
            }
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new IOException("The file “%s” no longer exists.".formatted(file), e);
        }
    }

    /**
     * Draws a picture of a board, no larger than a tile needs it; null where its data are of no kind that can be drawn, are
     * too many, or take too long. Takes up to some seconds: not for the interface's thread.
     */
    public static @Nullable BufferedImage drawn(Picture picture) {
        if (picture.data().length() > MAX_KEPT / 3 * 4 + 4) {
            return null;
        }
        try {
            BufferedImage image = picture(Base64.getDecoder().decode(picture.data()), picture.name());
            return Math.max(image.getWidth(), image.getHeight()) > MAX_PIXELS ? smaller(image) : image;
        } catch (IOException | IllegalArgumentException e) {
            return null;
        }
    }

    /** The same in a colour of its own, {@code #RRGGBB}, where one is given. */
    public static @Nullable BufferedImage drawn(Picture picture, @Nullable String tint) {
        BufferedImage drawn = drawn(picture);
        if (drawn == null || tint == null) {
            return drawn;
        }
        int colour = Integer.parseInt(tint.substring(1), 16);
        BufferedImage out = new BufferedImage(drawn.getWidth(), drawn.getHeight(), BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < drawn.getHeight(); y++) {
            for (int x = 0; x < drawn.getWidth(); x++) {
                out.setRGB(x, y, drawn.getRGB(x, y) & 0xFF000000 | colour);
            }
        }
        return out;
    }

    private static BufferedImage picture(byte[] bytes, String name) throws IOException {
        BufferedImage image = null;
        try {
            image = SvgPicture.is(bytes) ? SvgPicture.draw(bytes, MAX_PIXELS) : pixels(bytes, name);
        } catch (TooLarge e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            throw new IOException(
                    "“%s” can't be drawn: it is damaged, or not what its extension says. Choose a %s file."
                            .formatted(name, KINDS),
                    e);
        }
        if (image == null) {
            throw new IOException(
                    "Rombix can't read “%s” as a picture. Choose a %s file.".formatted(name, KINDS));
        }
        return image;
    }

    /** A picture of pixels, its size known before it is decoded: one that is too large takes no memory. */
    private static @Nullable BufferedImage pixels(byte[] bytes, String name) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return null;
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                long width = reader.getWidth(0);
                long height = reader.getHeight(0);
                if (width * height > MAX_MEGAPIXELS * 1_000_000L) {
                    throw new TooLarge("“%s” has %d × %d pixels; the limit is %d megapixels. Save it smaller."
                            .formatted(name, width, height, MAX_MEGAPIXELS));
                }
                ImageReadParam param = reader.getDefaultReadParam();
                int every = (int) Math.max(1, Math.max(width, height) / (2L * MAX_PIXELS));
                param.setSourceSubsampling(every, every, 0, 0);
                return reader.read(0, param);
            } finally {
                reader.dispose();
            }
        }
    }

    /** A picture that is not decoded, as it would take too much memory. */
    private static final class TooLarge extends IOException {
        @Serial
        private static final long serialVersionUID = 1;

        TooLarge(String message) {
            super(message);
        }
    }

    private static BufferedImage smaller(BufferedImage image) {
        double scale = (double) MAX_PIXELS / Math.max(image.getWidth(), image.getHeight());
        int width = Math.max(1, (int) Math.round(image.getWidth() * scale));
        int height = Math.max(1, (int) Math.round(image.getHeight() * scale));
        return Painting.painted(width, height, g -> g.drawImage(image, 0, 0, width, height, null));
    }

    /**
     * A picture made of pixels.
     *
     * @param pixels as 0xAARRGGBB, row after row
     */
    public static Picture of(String name, int width, int height, int[] pixels) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, width, height, pixels, 0, width);
        try {
            byte[] bytes = png(image);
            return new Picture(id(bytes), name, Base64.getEncoder().encodeToString(bytes));
        } catch (IOException e) {
            throw new IllegalStateException(e); // It goes into memory.
        }
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
