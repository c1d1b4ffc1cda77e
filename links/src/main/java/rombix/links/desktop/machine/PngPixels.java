package rombix.links.desktop.machine;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import javax.imageio.ImageIO;
import rombix.core.sight.Pixels;
import rombix.core.store.WholeFile;

/** Pictures as files have them, and in other sizes. */
public final class PngPixels {
    private PngPixels() {
    }

    /** A picture from its data in Base64. */
    public static Pixels of(String data) throws Unable {
        try {
            BufferedImage image = ImageIO.read(new ByteArrayInputStream(Base64.getDecoder().decode(data)));
            if (image != null) {
                return pixels(image);
            }
        } catch (IOException | IllegalArgumentException e) {
            // Said below.
        }
        throw new Unable("the picture can't be read: capture it again");
    }

    static Pixels pixels(BufferedImage image) {
        int[] rgb = image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth());
        for (int i = 0; i < rgb.length; i++) {
            rgb[i] &= 0xFFFFFF;
        }
        return new Pixels(image.getWidth(), image.getHeight(), rgb);
    }

    private static BufferedImage image(Pixels of) {
        BufferedImage image = new BufferedImage(of.width(), of.height(), BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, of.width(), of.height(), of.rgb(), 0, of.width());
        return image;
    }

    /** The same as it is to be seen where screens are scaled otherwise. */
    public static Pixels scaled(Pixels of, double by) {
        BufferedImage to = new BufferedImage(Math.max(1, (int) Math.round(of.width() * by)), Math.max(1, (int) Math
                .round(of.height() * by)), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = to.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        g.drawImage(image(of), 0, 0, to.getWidth(), to.getHeight(), null);
        g.dispose();
        return pixels(to);
    }

    /** Writes a picture into a file, by its ending PNG or JPEG; its folder is made. */
    public static void write(Pixels of, String file) throws Unable {
        Path path = Path.of(file);
        String kind = file.toLowerCase(java.util.Locale.ROOT).matches(".*\\.jpe?g") ? "jpg" : "png";
        try {
            if (path.toAbsolutePath().getParent() instanceof Path folder) {
                Files.createDirectories(folder);
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            if (!ImageIO.write(image(of), kind, bytes)) {
                throw new IOException("no writer");
            }
            WholeFile.write(path, bytes.toByteArray(), WholeFile.Readers.AS_BEFORE);
        } catch (IOException e) {
            throw new Unable("the picture can't be saved as “" + file + "”");
        }
    }
}
