package rombix.core.patch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.card.Channel.Kind;
import rombix.core.card.value.Mapped.Curve;
import rombix.core.patch.PatchCsv.Read;
import rombix.core.store.CardLibrary;

class PatchCsvTest {
    private static final Map<String, Card> CARDS = CardLibrary.shipped();
    private static final List<Fixture> FIXTURES = List.of(new Fixture("key-left", "Key, \"left\"", "tunable-white", 1,
            1), new Fixture("spot", "Spot", "moving-spot", 2, 33, Set.of(Kind.PAN, Kind.TILT), 80, Curve.S_CURVE));

    @Test
    void whatWasWrittenIsReadAsItWas() {
        String csv = PatchCsv.write(FIXTURES);
        assertThat(csv).startsWith("name,personality,universe,slot,invert,limit,curve\r\n").contains("pan tilt");
        assertThat(PatchCsv.read(csv, CARDS)).isEqualTo(new Read(FIXTURES, List.of()));
    }

    @Test
    void aTableOfASpreadsheetIsRead() {
        Read read = PatchCsv.read("\uFEFFSlot;Name;Universe;Personality\r\n12;Dome left;3;Moving spot\r\n", CARDS);
        assertThat(read.wrong()).isEmpty();
        assertThat(read.fixtures()).containsExactly(new Fixture("dome-left", "Dome left", "moving-spot", 3, 12));
    }

    @Test
    void whatCannotBeTakenIsSaidWithItsLine() {
        Read read = PatchCsv
                .read("name,personality,universe,slot,curve\nA,dimmer,1,1,\nB,no such,1,2,\nC,dimmer,one,3,\n"
                        + "D,dimmer,1,0,\nE,dimmer,1,5,wavy\nF,dimmer,1,6,square\n", CARDS);
        assertThat(read.fixtures()).extracting(Fixture::name).containsExactly("A", "F");
        assertThat(read.wrong()).containsExactly("line 3: there is no personality “no such”",
                "line 4: “one” is no universe", "line 5: universes count from 0 and slots from 1",
                "line 6: there is no curve “wavy”");
    }

    /** Buttons name fixtures by their ids. */
    @Test
    void whoIsCalledTheSameStaysTheSame() {
        List<Fixture> now = List.of(new Fixture("f1", "Key", "dimmer", 1, 1), new Fixture("key", "Fill", "dimmer", 1,
                2));
        List<Fixture> read = List.of(new Fixture("key", "Key", "dimmer", 2, 9), new Fixture("new", "New", "dimmer", 2,
                10));
        assertThat(Fixtures.replaced(now, read)).extracting(Fixture::id).containsExactly("f1", "new");
    }
}
