package rombix.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class MixTest {
    private static final int BLOCK = 480;
    private final Mix mix = new Mix();
    private final List<Long> ended = new ArrayList<>();

    /** A clip of one height. */
    private static Clip flat(double height, int frames) {
        float[] samples = new float[2 * frames];
        Arrays.fill(samples, (float) height);
        return Clip.of(samples);
    }

    /** A clip each of whose frames tells its own number, in thousandths. */
    private static Clip counted(int frames) {
        float[] samples = new float[2 * frames];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = i / 2 / 1000f;
        }
        return Clip.of(samples);
    }

    /** The left of the next frames. */
    private float[] next(int frames) {
        float[] all = new float[frames];
        float[] block = new float[2 * BLOCK];
        for (int done = 0; done < frames; done += BLOCK) {
            int now = Math.min(BLOCK, frames - done);
            ended.addAll(mix.render(block, now));
            for (int i = 0; i < now; i++) {
                all[done + i] = block[2 * i];
            }
        }
        return all;
    }

    @Test
    void aClipIsHandedOnSampleForSampleAndEndsWithItsLast() {
        mix.play(7, Cue.of("a", counted(1000)), false);
        float[] out = next(1200);
        assertThat(IntStream.range(0, 1000).allMatch(i -> out[i] == i / 1000f)).isTrue();
        assertThat(Arrays.copyOfRange(out, 1000, 1200)).containsOnly(0);
        assertThat(ended).containsExactly(7L);
        assertThat(mix.idle()).isTrue();
    }

    @Test
    void levelsAreInDecibelsAndClipsAddUp() {
        mix.play(1, new Cue("a", flat(0.5, 2000), -6, false, 0, 0, 0, 0, 0), false);
        mix.play(2, new Cue("b", flat(0.25, 2000), 0, false, 0, 0, 0, 0, 0), false);
        assertThat(next(BLOCK)[100]).isCloseTo((float) (0.5 * Math.pow(10, -0.3) + 0.25), within(1e-6f));
    }

    @Test
    void fadesAreStraightAndExactToTheSample() {
        mix.play(1, new Cue("a", flat(1, 4000), 0, false, 0, 0, 1000, 2000, 0), false);
        float[] out = next(4000);
        for (int i = 0; i < 4000; i++) {
            double shape = i < 1000 ? i / 1000.0 : i < 2000 ? 1 : (4000 - i) / 2000.0;
            assertThat(out[i]).as("sample " + i).isCloseTo((float) shape, within(1e-6f));
        }
    }

    @Test
    void aLoopHasNoSeamAndAPartOfAClipIsThatPart() {
        mix.play(1, new Cue("a", counted(1000), 0, true, 100, 350, 0, 0, 0), false);
        float[] out = next(2000);
        for (int i = 0; i < 2000; i++) {
            assertThat(out[i]).as("sample " + i).isEqualTo((100 + i % 250) / 1000f);
        }
        assertThat(mix.playing()).containsExactly(new Mix.Playing("a", 1, -1));
    }

    @Test
    void aStopFadesWhatPlaysWithinItsTimeAndNoLonger() {
        mix.play(1, new Cue("a", flat(1, 4800), 0, true, 0, 0, 0, 0, 0), false);
        next(BLOCK);
        mix.stop("a", 1000);
        float[] out = next(1500);
        for (int i = 0; i < 1500; i++) {
            assertThat(out[i]).as("sample " + i).isCloseTo((float) Math.max(0, (1000 - i) / 1000.0), within(1e-6f));
        }
        assertThat(ended).containsExactly(1L);
    }

    @Test
    void theSameClipBeginsAnewOrBesideItself() {
        mix.play(1, Cue.of("a", flat(0.25, 48_000)), false);
        next(BLOCK);
        mix.play(2, Cue.of("a", flat(0.25, 48_000)), true);
        assertThat(next(BLOCK)[10]).isEqualTo(0.5f);
        mix.play(3, Cue.of("a", flat(0.25, 48_000)), false);
        next((int) Mix.SOON);
        assertThat(ended).containsExactly(1L, 2L);
        assertThat(next(BLOCK)[10]).isEqualTo(0.25f);
    }

    @Test
    void aBedIsTurnedDownWhileAnotherPlaysAndComesBack() {
        mix.play(1, new Cue("bed", flat(0.5, 480_000), 0, true, 0, 0, 0, 0, 12), false);
        assertThat(next(BLOCK)[400]).isEqualTo(0.5f);
        mix.play(2, Cue.of("sting", flat(0, 48_000)), false);
        float[] under = next(48_000);
        assertThat(under[0]).as("without a step").isCloseTo(0.5f, within(0.001f));
        assertThat(under[Clip.RATE * 15 / 100]).isCloseTo((float) (0.5 * Clip.gain(-12)), within(1e-4f));
        assertThat(under[47_000]).isCloseTo((float) (0.5 * Clip.gain(-12)), within(1e-5f));
        float[] back = next(48_000);
        assertThat(back[0]).isCloseTo((float) (0.5 * Clip.gain(-12)), within(0.001f));
        assertThat(back[Clip.RATE * 6 / 10 + 10]).isEqualTo(0.5f);
    }

    @Test
    void twoBedsDoNotTurnEachOtherDown() {
        mix.play(1, new Cue("bed", flat(0.25, 48_000), 0, true, 0, 0, 0, 0, 12), false);
        mix.play(2, new Cue("rain", flat(0.25, 48_000), 0, true, 0, 0, 0, 0, 6), false);
        assertThat(next(4800)[4700]).isEqualTo(0.5f);
    }

    @Test
    void aLevelThatIsChangedGetsThereWithinTenMillisecondsWithoutAStep() {
        mix.play(1, new Cue("a", flat(1, 48_000), 0, true, 0, 0, 0, 0, 0), false);
        next(BLOCK);
        mix.level("a", -20);
        float[] out = next(2 * BLOCK);
        assertThat(out[BLOCK]).isCloseTo(0.1f, within(1e-5f));
        for (int i = 1; i < out.length; i++) {
            assertThat(Math.abs(out[i] - out[i - 1])).isLessThan(0.003f);
        }
    }

    @Test
    void thirtyTwoAtOnceAreTheSumOfAll() {
        for (int i = 0; i < 32; i++) {
            mix.play(i, Cue.of("clip " + i, flat(1 / 64.0, 960)), false);
        }
        assertThat(next(960)).containsOnly(0.5f);
        assertThat(ended).hasSize(32);
    }

    @Test
    void whatIsOutsideAClipIsSaid() {
        assertThatThrownBy(() -> new Cue("Sting", flat(1, 48_000), 0, false, 96_000, 0, 0, 0, 0))
                .hasMessageContaining("“Sting” is empty between 2.000 s and 1.000 s");
    }

    @Test
    void fadesThatDoNotFindRoomShareWhatThereIs() {
        mix.play(1, new Cue("a", flat(1, 1000), 0, false, 0, 0, 3000, 1000, 0), false);
        float[] out = next(1000);
        assertThat(out[750]).isCloseTo(1, within(0.01f));
        assertThat(out[0]).isZero();
        assertThat(out[999]).isCloseTo(0, within(0.01f));
    }

    @Test
    void anOutlineTellsHowLoudEachPartIs() {
        float[] samples = new float[2 * 400];
        Arrays.fill(samples, 200, 400, 0.25f);
        Arrays.fill(samples, 400, 600, -1f);
        assertThat(Clip.of(samples).outline(4)).isEqualTo("08f0");
    }
}
