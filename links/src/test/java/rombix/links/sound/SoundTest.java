package rombix.links.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static rombix.links.link.GearUnderTest.soon;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntToDoubleFunction;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.card.Card.Item;
import rombix.core.sound.Clip;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.Keyring;
import rombix.standins.sound.Speaker;
import rombix.standins.sound.Speakers;

/** A player against loudspeakers that keep what they are given. */
@Timeout(300)
class SoundTest {
    private static final int SECOND = Clip.RATE;
    private static final double STEP = 1.0 / Short.MAX_VALUE;

    @TempDir
    Path folder;
    private final List<Item> items = new ArrayList<>();
    private Speaker house;
    private Speaker phones;

    @BeforeEach
    void plug() {
        house = Speakers.plug("Test House", false);
        phones = Speakers.plug("Test Phones", false);
    }

    @AfterEach
    void unplug() {
        Speakers.unplug("Test House");
        Speakers.unplug("Test Phones");
    }

    /** A clip on the board, written as a WAV file. */
    private void clip(String id, int frames, IntToDoubleFunction sample) throws IOException {
        byte[] bytes = new byte[frames * 4];
        for (int i = 0; i < frames; i++) {
            int s = (int) Math.round(sample.applyAsDouble(i) * Short.MAX_VALUE);
            for (int c = 0; c < 2; c++) {
                bytes[4 * i + 2 * c] = (byte) s;
                bytes[4 * i + 2 * c + 1] = (byte) (s >> 8);
            }
        }
        Path file = folder.resolve(id + ".wav");
        AudioFormat format = new AudioFormat(Clip.RATE, 16, 2, true, false);
        AudioSystem.write(new AudioInputStream(new ByteArrayInputStream(bytes), format, frames),
                AudioFileFormat.Type.WAVE, file.toFile());
        Map<String, Object> fields = new HashMap<>(Map.of("file", file.toString(), "seconds", (double) frames
                / Clip.RATE));
        items.add(new Item(id, id, fields));
    }

    private GearUnderTest player() {
        return new GearUnderTest(new Sound(), "player", "Test House", Map.of("clip", List.copyOf(items)), Keyring.NONE)
                .ready();
    }

    /** The left of what a speaker was given, from its first sound on. */
    private static double[] heard(Speaker speaker, int frames) {
        short[] kept = speaker.kept();
        double[] left = new double[frames];
        for (int i = 0; i < Math.min(frames, kept.length / 2); i++) {
            left[i] = kept[2 * i] * STEP;
        }
        return left;
    }

    @Test
    void aClipComesOutOfTheOutputThatIsNamedAndOfNoOtherAsLoudAsAsked() throws Exception {
        clip("sting", SECOND, i -> 0.5);
        try (GearUnderTest player = player()) {
            assertThat(player.done("play", "clip", "sting", "level", -6)).isEqualTo("sent");
            double[] out = heard(house, SECOND);
            assertThat(out[10]).isCloseTo(0.5 * Math.pow(10, -0.3), within(2 * STEP));
            assertThat(out[SECOND - 1]).isCloseTo(0.5 * Math.pow(10, -0.3), within(2 * STEP));
            assertThat(phones.kept()).isEmpty();
            soon(() -> Value.of(false).equals(player.now("playing/sting")));
        }
    }

    @Test
    void fadesAreExactToTheSampleAndTheStepWaitsForTheEnd() throws Exception {
        clip("sting", 2 * SECOND, _ -> 1);
        try (GearUnderTest player = player()) {
            player.done("play", "clip", "sting", "in", 0.5, "out", 1, "to", 1.5);
            double[] out = heard(house, SECOND * 3 / 2);
            for (int i = 0; i < out.length; i++) {
                double shape = i < SECOND / 2 ? i / (SECOND / 2.0) : (SECOND * 1.5 - i) / SECOND;
                assertThat(out[i]).as("sample " + i).isCloseTo(shape, within(2 * STEP));
            }
            short[] all = house.kept();
            for (int i = SECOND * 3; i < all.length; i++) {
                assertThat(all[i]).as("nothing behind its end").isZero();
            }
        }
    }

    @Test
    void aLoopHasNoSeamAndStopsWithAFade() throws Exception {
        clip("bed", 1000, i -> i / 1000.0);
        try (GearUnderTest player = player()) {
            long playing = player.send("play", "clip", "bed", "round", "again");
            soon(() -> house.kept().length > 20_000);
            assertThat(player.answered(playing)).as("it goes on until stopped").isFalse();
            assertThat(player.done("stop", "clip", "bed", "fade", 0.1)).isEqualTo("sent");
            assertThat(player.answer(playing)).isEqualTo("sent");
            double[] out = heard(house, 10_000);
            for (int i = 0; i < out.length; i++) {
                assertThat(out[i]).as("sample " + i).isCloseTo(i % 1000 / 1000.0, within(2 * STEP));
            }
        }
    }

    @Test
    void aBedIsTurnedDownWhileAStingPlays() throws Exception {
        Speakers.unplug("Test House");
        house = Speakers.plug("Test House", true);
        clip("bed", SECOND, _ -> 0.5);
        clip("sting", SECOND / 2, _ -> 0);
        try (GearUnderTest player = player()) {
            player.send("play", "clip", "bed", "round", "again", "under", 12);
            soon(() -> house.kept().length > SECOND / 5);
            player.done("play", "clip", "sting");
            short[] kept = house.kept();
            int lowest = Short.MAX_VALUE;
            for (short s : kept) {
                lowest = Math.min(lowest, s);
            }
            assertThat(kept[100] * STEP).isCloseTo(0.5, within(2 * STEP));
            assertThat(lowest * STEP).isCloseTo(0.5 * Math.pow(10, -0.6), within(2 * STEP));
            soon(() -> {
                short[] now = house.kept();
                return now[now.length - 1] * STEP > 0.499;
            });
        }
    }

    @Test
    void aSecondOutputIsForListeningFirst() throws Exception {
        clip("sting", SECOND / 4, _ -> 0.5);
        try (GearUnderTest player = player()) {
            assertThat(player.done("play", "clip", "sting", "through", "Test Phones")).isEqualTo("sent");
            assertThat(heard(phones, 100)[50]).isCloseTo(0.5, within(2 * STEP));
            assertThat(house.kept()).isEmpty();
            assertThat(player.done("play", "clip", "sting", "through", "Attic"))
                    .isEqualTo("Gear: the output “Attic” isn't available");
            assertThat(house.kept()).as("it plays nowhere else").isEmpty();
        }
    }

    @Test
    void anOutputThatGoesSaysSoAndNothingPlaysElsewhereUntilItIsBack() throws Exception {
        clip("bed", SECOND, _ -> 0.5);
        Speakers.unplug("Test House");
        house = Speakers.plug("Test House", true);
        try (GearUnderTest player = player()) {
            long playing = player.send("play", "clip", "bed", "round", "again");
            soon(() -> house.kept().length > 1000);
            Speakers.unplug("Test House");
            assertThat(player.answer(playing)).isEqualTo("Gear: the output “Test House” is gone");
            soon(() -> Value.of(false).equals(player.now("playing/bed")));
            soon(() -> player.status().words().equals("the output “Test House” isn't available"));
            assertThat(player.done("play", "clip", "bed")).isEqualTo("Gear: the output “Test House” isn't available");
            assertThat(phones.kept()).isEmpty();
            Speaker back = Speakers.plug("Test House", false);
            player.ready();
            assertThat(player.done("play", "clip", "bed", "to", 0.1)).isEqualTo("sent");
            assertThat(back.kept()).isNotEmpty();
        }
    }

    @Test
    void stoppingAllAndStoppingTheChainEndWhatTheyBegan() throws Exception {
        clip("bed", SECOND, _ -> 0.25);
        clip("rain", SECOND, _ -> 0.25);
        try (GearUnderTest player = player()) {
            long bed = player.send("play", "clip", "bed", "round", "again");
            long rain = player.send("play", "clip", "rain", "round", "again");
            soon(() -> Value.of(true).equals(player.now("playing/bed")) && Value.of(true).equals(player.now(
                    "playing/rain")));
            player.link().cancel(bed);
            assertThat(player.answer(bed)).isEqualTo("sent");
            assertThat(player.answered(rain)).isFalse();
            player.link().stop();
            assertThat(player.answer(rain)).isEqualTo("sent");
        }
    }

    @Test
    void stoppingAllEndsWhatIsStillBeingRead() throws Exception {
        clip("bed", SECOND, _ -> 0.25);
        clip("rain", 60 * SECOND, i -> Math.sin(i));
        try (GearUnderTest player = player()) {
            long rain = player.send("play", "clip", "rain");
            player.link().stop();
            assertThat(player.answer(rain)).isIn("Gear: stopped", "sent");
            assertThat(player.done("play", "clip", "bed", "to", 0.01)).isEqualTo("sent");
            assertThat(house.kept().length).isLessThan(2 * SECOND);
        }
    }

    @Test
    void aFileThatIsNotThereOrNoSoundIsSaidByItsName() throws Exception {
        Path text = Files.writeString(folder.resolve("notes.wav"), "no sound at all");
        items.add(new Item("gone", "Gone", Map.of("file", folder.resolve("gone.wav").toString())));
        items.add(new Item("notes", "Notes", Map.of("file", text.toString())));
        try (GearUnderTest player = player()) {
            assertThat(player.done("play", "clip", "gone")).contains("there is no file", "gone.wav");
            assertThat(player.done("play", "clip", "notes")).isEqualTo(
                    "Gear: “notes.wav” isn't a supported sound file: WAV, AIFF, FLAC, Ogg Vorbis or MP3");
            soon(() -> player.status().words().contains("notes.wav") || player.status().words().contains("gone.wav"));
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"wav", "aiff", "flac", "ogg", "mp3"})
    void eachKindOfFileIsReadAndBroughtToTheRateOfTheMix(String kind) throws Exception {
        Path file = folder.resolve("tone." + kind);
        try (var in = SoundTest.class.getResourceAsStream("tone." + kind)) {
            Files.copy(java.util.Objects.requireNonNull(in), file);
        }
        Clip tone = SoundFile.read(file);
        assertThat(tone.seconds()).isCloseTo(0.5, within(0.0001));
        assertThat(tone.outline(10)).as("level from the beginning to the end").isEqualTo("bbbbbbbbbb");
    }

    @Test
    void whatCannotBeReadSaysWhatCan() {
        assertThatThrownBy(() -> SoundFile.read(folder.resolve("nothing.ogg"))).hasMessageContaining(
                "there is no file");
    }

    /** What was asked of an output that takes nothing any more was kept without end. */
    @Test
    void anOutputThatIsStuckIsAskedForABoundedNumberOfSounds() throws Exception {
        clip("sting", SECOND / 100, _ -> 0.5);
        try (GearUnderTest player = player()) {
            player.done("play", "clip", "sting");
            house.stick(true);
            try {
                for (int i = 0; i < 1100; i++) {
                    player.send("play", "clip", "sting");
                }
                long last = player.send("level", "clip", "sting", "level", -6);
                assertThat(player.answer(last)).contains("stopped accepting sound");
            } finally {
                house.stick(false);
            }
            soon(() -> "sent".equals(player.done("play", "clip", "sting")));
        }
    }
}
