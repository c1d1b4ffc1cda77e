package rombix.links.sound;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A spoiled FLAC took a core for ever, or all memory: each file is read, or refused in plain words. */
@Timeout(300)
class SpoiledSoundsTest {
    private static final int FILES = 250;
    /** Most of what can spoil a file is in its head. */
    private static final int HEAD = 200;
    @TempDir
    Path folder;

    @ParameterizedTest
    @CsvSource({"tone.flac, false", "tone.flac, true", "tone.ogg, false", "tone.mp3, false"})
    void areReadOrRefusedInPlainWords(String name, boolean named) throws IOException {
        byte[] good;
        try (InputStream in = SpoiledSoundsTest.class.getResourceAsStream(name)) {
            good = in.readAllBytes();
        }
        if (named) {
            byte[] names = {'I', 'D', '3', 3, 0, 0, 0, 0, 0, 4, 1, 2, 3, 4};
            good = ByteBuffer.allocate(names.length + good.length).put(names).put(good).array();
            assertThat(SoundFile.read(Files.write(folder.resolve("good-" + name), good)).frames()).isPositive();
        }
        Random chance = new Random(7);
        for (int i = 0; i < FILES; i++) {
            byte[] bad = i % 3 == 0 ? Arrays.copyOf(good, chance.nextInt(good.length)) : good.clone();
            for (int spoiled = 0; bad.length > 0 && spoiled < 12; spoiled++) {
                bad[chance.nextInt(i % 2 == 0 ? Math.min(bad.length, HEAD) : bad.length)] = (byte) chance.nextInt();
            }
            Path file = Files.write(folder.resolve(i + name), bad);
            try {
                assertThat(SoundFile.read(file).frames()).isPositive();
            } catch (IOException e) {
                assertThat(e).hasMessageStartingWith("“" + i + name + "” ");
            }
        }
    }
}
