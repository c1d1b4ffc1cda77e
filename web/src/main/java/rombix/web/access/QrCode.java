package rombix.web.access;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.util.Map;

/** A text as a QR code (ISO/IEC 18004): dark and light modules, without the quiet zone around them. */
public record QrCode(int size, boolean[][] dark) {
    /** How many light modules belong around it. */
    public static final int QUIET = 4;

    public static QrCode of(String text) {
        try {
            BitMatrix made = new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, 0, 0, Map.of(
                    EncodeHintType.ERROR_CORRECTION, ErrorCorrectionLevel.M, EncodeHintType.MARGIN, 0));
            boolean[][] dark = new boolean[made.getHeight()][made.getWidth()];
            for (int y = 0; y < made.getHeight(); y++) {
                for (int x = 0; x < made.getWidth(); x++) {
                    dark[y][x] = made.get(x, y);
                }
            }
            return new QrCode(made.getWidth(), dark);
        } catch (WriterException e) {
            throw new IllegalArgumentException("too long for a QR code", e);
        }
    }

    /** In two lines of a terminal for each two rows of modules, dark on light. */
    public String drawn() {
        StringBuilder out = new StringBuilder();
        for (int y = -QUIET; y < size + QUIET; y += 2) {
            for (int x = -QUIET; x < size + QUIET; x++) {
                boolean upper = at(x, y);
                boolean lower = at(x, y + 1);
                out.append(upper ? lower ? ' ' : '▄' : lower ? '▀' : '█');
            }
            out.append('\n');
        }
        return out.toString();
    }

    private boolean at(int x, int y) {
        return x >= 0 && y >= 0 && x < size && y < size && dark[y][x];
    }
}
