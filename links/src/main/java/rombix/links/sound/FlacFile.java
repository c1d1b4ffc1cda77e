package rombix.links.sound;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.jflac.FLACDecoder;
import org.jflac.FrameListener;
import org.jflac.frame.Frame;
import org.jflac.metadata.Metadata;
import org.jflac.metadata.StreamInfo;
import org.jflac.util.ByteData;
import org.jspecify.annotations.Nullable;

/**
 * A FLAC file (RFC 9639) as samples. The library's own stream spins for ever where a file is spoiled: at its end, and at
 * a header that it can't get past. This one ends at the end, and gives up after some errors in a row.
 */
final class FlacFile extends InputStream {
    /** Frames that can't be read in a row: a file with more of them is given up. */
    private static final int MOST_ERRORS = 500;

    private static final byte[] MARK = {'f', 'L', 'a', 'C'};
    private static final int NAMES = 10;
    /** How long the mark of a file and the head of its first block are, and all of that block (section 8.2). */
    private static final int BLOCK = 8;
    private static final int HEAD = BLOCK + 34;

    private final InputStream file;
    private final FLACDecoder decoder;
    private int errors;
    private @Nullable ByteData part;
    private int at;

    private FlacFile(InputStream file) {
        this.file = file;
        decoder = new FLACDecoder(new Ending(file));
        decoder.addFrameListener(new FrameListener() {
            @Override
            public void processMetadata(Metadata metadata) {
                // Names and pictures are of no use here.
            }

            @Override
            public void processFrame(Frame frame) {
                errors = 0;
            }

            @Override
            public void processError(String message) {
                if (++errors > MOST_ERRORS) {
                    throw new IllegalStateException(message);
                }
            }
        });
    }

    /** Whether a file is one, whatever it is called. */
    static boolean is(Path file) throws IOException {
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
            skipNames(in);
            return Arrays.equals(in.readNBytes(MARK.length), MARK);
        } catch (EOFException e) {
            return false;
        }
    }

    /** Skips what some programs write before a file, names in the manner of MP3 (ID3v2, section 3.1). */
    private static void skipNames(InputStream in) throws IOException {
        in.mark(NAMES);
        byte[] head = in.readNBytes(NAMES);
        if (head.length == NAMES && head[0] == 'I' && head[1] == 'D' && head[2] == '3') {
            in.skipNBytes((head[6] & 127) << 21 | (head[7] & 127) << 14 | (head[8] & 127) << 7 | head[9] & 127);
        } else {
            in.reset();
        }
    }

    /**
     * Opens a file.
     *
     * @throws IOException if it can't be read, or has no beginning of a FLAC file
     * @throws RuntimeException now, or as it is read, if it is damaged
     */
    static AudioInputStream opened(Path file) throws IOException {
        InputStream in = new BufferedInputStream(Files.newInputStream(file));
        try {
            skipNames(in);
            FlacFile flac = new FlacFile(new SequenceInputStream(new ByteArrayInputStream(head(in)), in));
            flac.decoder.readMetadata();
            StreamInfo info = flac.decoder.getStreamInfo();
            if (info == null) {
                throw new IllegalStateException("it has no stream info");
            }
            AudioFormat format = info.getAudioFormat();
            return new AudioInputStream(flac, format, AudioSystem.NOT_SPECIFIED);
        } catch (IOException | RuntimeException e) {
            in.close();
            throw e;
        }
    }

    /**
     * The head of a file with nothing in it but how its samples are to be read: the library makes room for names and
     * pictures of any length that a file claims. Leaves the file where its samples begin.
     */
    private static byte[] head(InputStream file) throws IOException {
        byte[] head = file.readNBytes(HEAD);
        if (head.length < HEAD || (head[4] & 0x7F) != 0 || head[7] != HEAD - BLOCK) {
            throw new IllegalStateException("it has no stream info");
        }
        boolean last = head[4] < 0;
        while (!last) {
            byte[] block = file.readNBytes(BLOCK - 4);
            if (block.length < BLOCK - 4) {
                throw new EOFException("the file ends too early");
            }
            last = block[0] < 0;
            file.skipNBytes((block[1] & 255) << 16 | (block[2] & 255) << 8 | block[3] & 255);
        }
        head[4] = (byte) 0x80;
        return head;
    }

    @Override
    public int read() {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 255;
    }

    @Override
    public int read(byte[] to, int from, int length) {
        while (part == null || at >= part.getLen()) {
            Frame frame = next();
            if (frame == null) {
                return -1;
            }
            errors = 0;
            part = decoder.decodeFrame(frame, part);
            at = 0;
        }
        int n = Math.min(length, part.getLen() - at);
        System.arraycopy(part.getData(), at, to, from, n);
        at += n;
        return n;
    }

    private @Nullable Frame next() {
        try {
            return decoder.readNextFrame();
        } catch (IOException e) { // Its words are the names of its own states.
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void close() throws IOException {
        file.close();
    }

    /** Returns -1 at the end of the file once; reading on throws. */
    private static final class Ending extends FilterInputStream {
        private boolean ended;

        Ending(InputStream of) {
            super(of);
        }

        private int checked(int read) throws IOException {
            if (read < 0) {
                if (ended) {
                    throw new EOFException("the file ends too early");
                }
                ended = true;
            }
            return read;
        }

        @Override
        public int read() throws IOException {
            return checked(super.read());
        }

        @Override
        public int read(byte[] to, int from, int length) throws IOException {
            return checked(super.read(to, from, length));
        }
    }
}
