package rombix.core.patch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.patch.Universes.Clash;
import rombix.core.patch.Universes.Gap;
import rombix.core.store.CardLibrary;

class UniversesTest {
    private static final Map<String, Card> CARDS = CardLibrary.shipped();

    private static Fixture at(String name, String personality, int universe, int slot) {
        return new Fixture(name.toLowerCase(java.util.Locale.ROOT), name, personality, universe, slot);
    }

    private static Universes of(Fixture... fixtures) {
        return new Universes(List.of(fixtures), CARDS);
    }

    @Test
    void slotsThatTwoHaveAreOneClash() {
        Universes all = of(at("Key", "colour-lamp-dimmer", 1, 10), at("Fill", "tunable-white", 1, 12), at("Ring",
                "dimmer", 2, 10));
        assertThat(all.clashes()).containsExactly(new Clash(1, 12, 13, java.util.Set.of("Fill", "Key")));
        assertThat(all.clashes().getFirst().words()).isEqualTo("Fill and Key share slots 12 to 13 of universe 1");
        assertThat(all.wrong(at("Key", "colour-lamp-dimmer", 1, 10))).isEqualTo("clashes with Fill");
        assertThat(all.wrong(at("Ring", "dimmer", 2, 10))).isEmpty();
    }

    @Test
    void gapsAndWhatLiesBeyondAreSeen() {
        Universes all = of(at("Key", "tunable-white", 1, 3), at("Fill", "dimmer", 1, 9), at("Spot", "moving-spot", 1,
                510));
        assertThat(all.gaps()).containsExactly(new Gap(1, 1, 2), new Gap(1, 5, 8), new Gap(1, 10, 509));
        assertThat(all.beyond()).extracting(Fixture::name).containsExactly("Spot");
        assertThat(all.wrong(at("Spot", "moving-spot", 1, 510))).isEqualTo("lies beyond slot 512");
    }

    @Test
    void theNextFreePlaceHasRoomForAll() {
        Universes all = of(at("Key", "tunable-white", 1, 3), at("Fill", "dimmer", 1, 9));
        assertThat(all.free(1, 2)).isEqualTo(1);
        assertThat(all.free(1, 3)).isEqualTo(5);
        assertThat(all.free(1, 5)).isEqualTo(10);
        assertThat(all.free(2, 512)).isEqualTo(1);
        assertThat(all.free(1, 504)).isZero();
    }

    @Property(tries = 60)
    void whatIsAddedWhereIsProposedNeverClashes(@ForAll @IntRange(min = 1, max = 30) int some,
            @ForAll @IntRange(min = 1, max = 12) int more) {
        List<Fixture> all = Fixtures.add(List.of(), CARDS, "A", "tunable-white", 1, 1, some);
        int width = more * 9;
        int free = new Universes(all, CARDS).free(1, width);
        List<Fixture> both = Fixtures.add(all, CARDS, "B", "moving-spot", 1, free, more);
        Universes after = new Universes(both, CARDS);
        assertThat(both).hasSize(some + more).extracting(Fixture::id).doesNotHaveDuplicates();
        assertThat(after.clashes()).isEmpty();
        assertThat(after.beyond()).isEmpty();
    }
}
