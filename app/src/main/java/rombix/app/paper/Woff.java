package rombix.app.paper;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/**
 * Turns web fonts (WOFF 1.0, W3C) into desktop fonts: the same tables, unpacked. The ligature table is left out, because
 * its glyphs stand for no letters: a search for <i>off</i> in the PDF would find nothing.
 */
final class Woff {
    private static final int MAGIC = 0x774F4646;
    /** The tag {@code GSUB}. */
    private static final int LIGATURES = 0x47535542;
    private static final int HEADER = 44;
    private static final int ENTRY = 20;
    private static final int SFNT_HEADER = 12;
    private static final int SFNT_ENTRY = 16;

    private Woff() {
    }

    /** @throws IOException where it is no such font */
    static byte[] unpacked(byte[] woff) throws IOException {
        ByteBuffer in = ByteBuffer.wrap(woff);
        if (in.getInt() != MAGIC) {
            throw new IOException("not a WOFF font");
        }
        int flavour = in.getInt();
        List<Integer> entries = new ArrayList<>();
        for (int t = 0; t < in.getShort(12); t++) {
            if (in.getInt(HEADER + ENTRY * t) != LIGATURES) {
                entries.add(HEADER + ENTRY * t);
            }
        }
        int tables = entries.size();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        DataOutputStream out = new DataOutputStream(bytes);
        int power = Integer.highestOneBit(tables);
        out.writeInt(flavour);
        out.writeShort(tables);
        out.writeShort(power * 16);
        out.writeShort(Integer.numberOfTrailingZeros(power));
        out.writeShort(tables * 16 - power * 16);
        ByteArrayOutputStream data = new ByteArrayOutputStream();
        int at = SFNT_HEADER + SFNT_ENTRY * tables;
        for (int entry : entries) {
            int length = in.getInt(entry + 12);
            byte[] table = table(in, in.getInt(entry + 4), in.getInt(entry + 8), length);
            out.writeInt(in.getInt(entry));
            out.writeInt(in.getInt(entry + 16));
            out.writeInt(at + data.size());
            out.writeInt(length);
            data.write(table);
            data.write(new byte[-length & 3]);
        }
        out.write(data.toByteArray());
        return bytes.toByteArray();
    }

    private static byte[] table(ByteBuffer in, int offset, int packed, int length) throws IOException {
        byte[] table = new byte[length];
        if (packed == length) {
            in.get(offset, table);
            return table;
        }
        Inflater inflater = new Inflater();
        try {
            inflater.setInput(in.array(), offset, packed);
            if (inflater.inflate(table) != length) {
                throw new IOException("a table of the font is damaged");
            }
            return table;
        } catch (DataFormatException e) {
            throw new IOException("a table of the font is damaged", e);
        } finally {
            inflater.end();
        }
    }
}
