package rombix.links.desktop.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

final class SpareKeysTest {
    private final List<String> mapped = new ArrayList<>();
    private final SpareKeys spare = new SpareKeys((code, symbol) -> mapped.add(code + "=" + symbol));

    private static long millis(long millis) {
        return TimeUnit.MILLISECONDS.toNanos(millis);
    }

    private int lend(long symbol, long atMillis) throws Unable {
        return spare.lend(symbol, Set.of(), millis(atMillis));
    }

    @Test
    void aSymbolKeepsItsKeyAndTheLongestUnusedKeyIsLentAnew() throws Unable {
        spare.add(200);
        spare.add(201);
        assertThat(List.of(lend('a', 1000), lend('b', 1010), lend('a', 1020), lend('c', 2000))).containsExactly(200,
                201, 200, 201);
        assertThat(mapped).containsExactly("200=97", "201=98", "201=99");
        assertThat(spare.lent()).containsExactly(200, 201);
    }

    @Test
    void aKeyThatIsDownIsNotLentAnew() throws Unable {
        spare.add(200);
        spare.add(201);
        lend('a', 1000);
        lend('b', 1010);
        assertThat(spare.lend('c', Set.of(200), millis(2000))).isEqualTo(201);
        assertThatThrownBy(() -> spare.lend('d', Set.of(200, 201), millis(3000))).isInstanceOf(Unable.class);
    }

    /** Symptom: of a long row of unusual letters, the first ones arrived as later ones in a program that was slow. */
    @Test
    void aKeyIsLentAnewOnlyAfterAProgramHasHadTheTimeToReadIt() throws Unable {
        spare.add(200);
        spare.add(201);
        assertThat(spare.readyIn(millis(1000))).isZero();
        lend('a', 1000);
        assertThat(spare.readyIn(millis(1000))).isZero();
        lend('b', 1100);
        assertThat(spare.readyIn(millis(1100))).isEqualTo(400);
        lend('a', 1200);
        assertThat(spare.readyIn(millis(1200))).isEqualTo(400);
        assertThat(spare.readyIn(millis(1600))).isZero();
        assertThat(new SpareKeys((_, _) -> {
        }).readyIn(millis(1000))).isZero();
    }
}
