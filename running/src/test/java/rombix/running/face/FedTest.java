package rombix.running.face;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rombix.core.engine.Happening;
import rombix.core.value.Value;

class FedTest {
    private final Fed fed = new Fed();

    private static Happening came(String reading, int value) {
        return new Happening.Came("g", reading, Value.of(value));
    }

    private List<Happening> drained() {
        List<Happening> all = new ArrayList<>();
        fed.drain(all::add);
        return all;
    }

    @Test
    void aMillionReadingsThatNobodyTakesInAreNoMoreThanThereAreOfThem() {
        for (int i = 0; i < 1_000_000; i++) {
            fed.add(came("r" + i % 3, i), false);
        }
        assertThat(drained()).containsExactly(came("r0", 999_999), came("r1", 999_997), came("r2", 999_998));
        assertThat(drained()).isEmpty();
    }

    @Test
    void whatComesAfterAllBeganAnewIsNotTakenForWhatCameBefore() {
        fed.add(came("r", 1), false);
        fed.add(new Happening.Anew(), false);
        fed.add(came("r", 2), false);
        assertThat(drained()).containsExactly(came("r", 1), new Happening.Anew(), came("r", 2));
    }

    @Test
    void whoFollowsEachReadingIsToldOfEach() {
        fed.add(came("r", 1), true);
        fed.add(came("r", 2), true);
        assertThat(drained()).containsExactly(came("r", 1), came("r", 2));
    }
}
