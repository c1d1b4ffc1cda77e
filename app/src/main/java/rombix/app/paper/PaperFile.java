package rombix.app.paper;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;
import rombix.core.store.WholeFile;

/** What was put on paper, as files and as pictures: a PDF, or a PNG for each sheet. */
public final class PaperFile {
    /** How the names of such files end. */
    public static final List<String> ENDINGS = List.of(".pdf", ".png");
    private static final float DPI = 110;

    private PaperFile() {
    }

    /** Whether a file has a name that says what is to be saved. */
    public static boolean named(Path file) {
        return ENDINGS.stream().anyMatch(end -> ends(file, end));
    }

    private static boolean ends(Path file, String end) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(end);
    }

    /** How many sheets a PDF has. */
    public static int sheets(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return document.getNumberOfPages();
        }
    }

    /** One sheet of a PDF as a picture, such as a screen shows it; counted from 0. It may take a second. */
    public static BufferedImage picture(byte[] pdf, int sheet) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return picture(document, sheet);
        }
    }

    private static BufferedImage picture(PDDocument document, int sheet) throws IOException {
        return new PDFRenderer(document).renderImageWithDPI(sheet, DPI, ImageType.RGB);
    }

    /**
     * Saves it.
     *
     * @param file a PDF; or a PNG, where each sheet has its number before the ending if there are several
     * @return the files that were written
     */
    public static List<Path> save(Path file, byte[] pdf) throws IOException {
        if (!ends(file, ".png")) {
            WholeFile.write(file, pdf, WholeFile.Readers.AS_BEFORE);
            return List.of(file);
        }
        String whole = file.toString();
        int dot = whole.length() - ".png".length();
        List<Path> written = new ArrayList<>();
        try (PDDocument document = Loader.loadPDF(pdf)) {
            int sheets = document.getNumberOfPages();
            for (int i = 0; i < sheets; i++) { // One at a time: many at once would not find room.
                Path sheet = sheets == 1
                        ? file
                        : Path.of(whole.substring(0, dot) + "-" + (i + 1) + whole.substring(dot));
                ByteArrayOutputStream png = new ByteArrayOutputStream();
                ImageIO.write(picture(document, i), "png", png);
                WholeFile.write(sheet, png.toByteArray(), WholeFile.Readers.AS_BEFORE);
                written.add(sheet);
            }
        }
        return written;
    }
}
