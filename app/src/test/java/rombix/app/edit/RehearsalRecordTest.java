package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rombix.core.event.AsRun;
import rombix.core.event.AsRun.Outcome;

class RehearsalRecordTest {
    private final RehearsalRecord rehearsed = new RehearsalRecord();

    private static AsRun line(String gear, long millis, Outcome outcome) {
        return new AsRun(millis * 1_000_000, millis * 1_000_000, 1, "b", "press/0", "", gear, "c", Map.of(),
                gear + millis,
                outcome, outcome == Outcome.FAULT ? "why" : "");
    }

    @Test
    void itIsToldGearByGearFromTheMomentItBegan() {
        rehearsed.begin(5_000_000_000L);
        assertThat(rehearsed.isEmpty()).isTrue();
        rehearsed.add(List.of(line("desk", 6000, Outcome.SENT), line("", 6100, Outcome.FAULT), line("studio", 6200,
                Outcome.SENT), line("desk", 7500, Outcome.SENT)));
        assertThat(rehearsed.shares()).extracting(s -> s.gear() + " " + s.lines().size() + " " + s.faults())
                .containsExactly("desk 2 0", "studio 1 0", " 1 1");
        assertThat(rehearsed.millis(rehearsed.shares().getFirst().lines().getLast())).isEqualTo(2500);
        assertThat(rehearsed.words()).isEqualTo("3 commands to 2 pieces of gear, 1 fault");
    }

    @Test
    void hoursOfItAreCountedAndOnlyTheBeginningIsKept() {
        List<AsRun> many = IntStream.range(0, RehearsalRecord.MAX + 50).mapToObj(i -> line("desk", i, i % 2 == 0
                ? Outcome.SENT
                : Outcome.FAULT)).toList();
        rehearsed.add(many);
        RehearsalRecord.Share share = rehearsed.shares().getFirst();
        assertThat(share.lines()).hasSize(RehearsalRecord.MAX).startsWith(many.getFirst());
        assertThat(share.count()).isEqualTo(RehearsalRecord.MAX + 50);
        assertThat(share.faults()).isEqualTo(RehearsalRecord.MAX / 2 + 25);
        assertThat(rehearsed.words()).isEqualTo("1025 commands to 1 piece of gear, 1025 faults");
    }

    @Test
    void theNextOneBeginsAnew() {
        rehearsed.add(List.of(line("desk", 1, Outcome.SENT)));
        assertThat(rehearsed.words()).isEqualTo("1 command to 1 piece of gear");
        rehearsed.begin(0);
        assertThat(rehearsed.shares()).isEmpty();
    }
}
