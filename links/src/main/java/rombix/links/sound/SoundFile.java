package rombix.links.sound;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.channels.FileChannel.MapMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;
import org.jspecify.annotations.Nullable;
import rombix.core.sound.Clip;

/**
 * Reads sound files: WAV and AIFF as the platform does, FLAC, Ogg Vorbis and MP3 by decoders that it finds. What is
 * short is kept in memory; what is long in a file beside, which the system brings in as it is played.
 */
public final class SoundFile {
    private static final int SHORT = 16 << 20;
    private static final long LONGEST = Integer.MAX_VALUE - 8L;
    private static final int BITS = 32;
    private static final AudioFormat MIXED = new AudioFormat(AudioFormat.Encoding.PCM_FLOAT, Clip.RATE, BITS,
            Clip.CHANNELS, Clip.CHANNELS * BITS / 8, Clip.RATE, false);

    private SoundFile() {
    }

    /**
     * Reads a file whole. It may take seconds.
     *
     * @throws IOException in plain words
     */
    public static Clip read(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException("there is no file “" + file + "”");
        }
        Ends ends = Ends.of(file);
        try (AudioInputStream packed = opened(file);
                AudioInputStream plain = plain(packed);
                AudioInputStream own = contents(plain, ends);
                AudioInputStream mixed = AudioSystem.getAudioInputStream(MIXED, own)) {
            return kept(mixed, file);
        } catch (UnsupportedAudioFileException | IllegalArgumentException e) {
            throw new IOException("“" + file.getFileName()
                    + "” isn't a supported sound file: WAV, AIFF, FLAC, Ogg Vorbis or MP3", e);
        } catch (RuntimeException | EOFException e) { // A decoder met what it does not expect.
            throw new IOException("“" + file.getFileName() + "” is damaged", e);
        }
    }

    private static AudioInputStream opened(Path file) throws IOException, UnsupportedAudioFileException {
        if (FlacFile.is(file)) {
            return FlacFile.opened(file);
        }
        return file.toString().matches("(?i).*\\.(ogg|oga)")
                ? AudioSystem.getAudioInputStream(new BufferedInputStream(Ends.padded(Files.newInputStream(file))))
                : AudioSystem.getAudioInputStream(file.toFile());
    }

    /** What of it is the file's own. */
    private static AudioInputStream contents(AudioInputStream plain, Ends ends) throws IOException {
        int frame = plain.getFormat().getFrameSize();
        if (ends.skip() > 0) {
            plain.readNBytes(Math.toIntExact(ends.skip() * frame));
        }
        return ends.frames() == Long.MAX_VALUE ? plain : new AudioInputStream(plain, plain.getFormat(), ends.frames());
    }

    private static AudioInputStream plain(AudioInputStream packed) {
        AudioFormat of = packed.getFormat();
        AudioFormat.Encoding encoding = of.getEncoding();
        if (encoding.equals(AudioFormat.Encoding.PCM_SIGNED) || encoding.equals(AudioFormat.Encoding.PCM_UNSIGNED)
                || encoding.equals(AudioFormat.Encoding.PCM_FLOAT) || encoding.equals(AudioFormat.Encoding.ULAW)
                || encoding.equals(AudioFormat.Encoding.ALAW)) {
            return packed;
        }
        int bits = of.getSampleSizeInBits() > 0 ? of.getSampleSizeInBits() : 16;
        return AudioSystem.getAudioInputStream(new AudioFormat(AudioFormat.Encoding.PCM_SIGNED, of.getSampleRate(),
                bits, of.getChannels(), of.getChannels() * bits / 8, of.getSampleRate(), false), packed);
    }

    private static Clip kept(AudioInputStream from, Path file) throws IOException {
        ByteArrayOutputStream inMemory = new ByteArrayOutputStream();
        byte[] part = new byte[1 << 16];
        Path aside = null;
        OutputStream to = inMemory;
        long length = 0;
        try {
            for (int n = from.read(part); n >= 0; n = from.read(part)) {
                length += n;
                if (length > LONGEST) {
                    throw new IOException("“" + file.getFileName() + "” is longer than 90 minutes");
                }
                if (length > SHORT && aside == null) {
                    aside = Files.createTempFile("rombix-clip", ".samples");
                    to = new BufferedOutputStream(Files.newOutputStream(aside));
                    inMemory.writeTo(to);
                    inMemory.reset();
                }
                to.write(part, 0, n);
            }
            to.close();
            if (length < MIXED.getFrameSize()) {
                throw new IOException("“" + file.getFileName() + "” is empty");
            }
            return new Clip(samples(inMemory, aside).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer());
        } finally {
            to.close();
            if (aside != null && !Files.deleteIfExists(aside)) {
                aside.toFile().deleteOnExit(); // Where it cannot go while it is in use.
            }
        }
    }

    private static ByteBuffer samples(ByteArrayOutputStream inMemory, @Nullable Path aside) throws IOException {
        if (aside == null) {
            return ByteBuffer.wrap(inMemory.toByteArray());
        }
        try (FileChannel channel = FileChannel.open(aside, StandardOpenOption.READ)) {
            return channel.map(MapMode.READ_ONLY, 0, channel.size());
        }
    }
}
