package rombix.app.paper;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;
import rombix.core.store.WholeFile;

/** Saves what was put on paper: as PDF, or as a PNG for each sheet. */
public final class PaperFile {
    /** How the names of such files end. */
    public static final List<String> ENDINGS = List.of(".pdf", ".png");

    private PaperFile() {
    }

    /** Whether a file has a name that says what is to be saved. */
    public static boolean named(Path file) {
        return ENDINGS.stream().anyMatch(end -> ends(file, end));
    }

    private static boolean ends(Path file, String end) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(end);
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
        List<BufferedImage> all = BoardPaper.pictures(pdf);
        String whole = file.toString();
        List<Path> written = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            Path sheet = all.size() == 1
                    ? file
                    : Path.of(whole.substring(0, whole.length() - 4) + "-" + (i + 1)
                            + whole.substring(whole.length() - 4));
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            ImageIO.write(all.get(i), "png", png);
            WholeFile.write(sheet, png.toByteArray(), WholeFile.Readers.AS_BEFORE);
            written.add(sheet);
        }
        return written;
    }
}
