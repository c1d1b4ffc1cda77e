package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.check.References;
import rombix.core.listen.CardMaking;
import rombix.core.store.CardExchange.Exchanged;

/** On the demo board, whose gear is used by everything that can use gear. */
class CardExchangeTest {
    private Rig demo;

    @BeforeEach
    void read() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    private static Card card(String text) throws BadFile {
        return CardLibrary.read(Path.of("other.json"), text.replace('\'', '"'));
    }

    @Test
    void theSameUnderAnotherIdKeepsAll() {
        Card studio = demo.twin("projector").orElseThrow().card();
        Card copy = studio.withId("projector-2");
        Exchanged other = CardExchange.to(demo, "projector", copy);
        assertThat(other.lost()).isEmpty();
        assertThat(other.rig().board().pages()).isEqualTo(demo.board().pages());
        assertThat(other.rig().board().gear("projector").orElseThrow().card()).isEqualTo("projector-2");
    }

    @Test
    void commandsAreMatchedByTheirTitlesAndReadingsByTheirKind() throws BadFile {
        Card projector = demo.twin("projector").orElseThrow().card();
        String on = projector.commands().getFirst().title().toString();
        Exchanged other = CardExchange.to(demo, "projector",
                card("""
                        {'card': 2, 'id': 'beamer', 'title': 'Beamer', 'readings': [{'id': 'lit', 'title': 'Lit', 'type': 'flag'}],
                         'commands': [{'id': 'go', 'title': '%s', 'send': {'line': [{'to': 'line', 'args': ['GO']}]}}]}
                        """
                        .formatted(on)));
        assertThat(References.flaws(other.rig())).isEmpty();
        assertThat(BoardFile.format(other.rig().board())).contains("\"command\": \"go\"").doesNotContain(
                "\"reading\": \"input\"");
        assertThat(other.lost()).isNotEmpty().allSatisfy(l -> assertThat(l).startsWith("“"));
    }

    @Test
    void aCardThatIsChangedWhileInUseKeepsWhatStillFits() {
        Card house = demo.twin("house").orElseThrow().card();
        Exchanged same = CardExchange.changed(demo, CardMaking.titled(house, "Home"));
        assertThat(same.lost()).isEmpty();
        assertThat(same.rig().board()).isEqualTo(demo.board());
        Exchanged less = CardExchange.changed(demo, CardMaking.withoutCommand(house, "unlock"));
        assertThat(less.lost()).isNotEmpty().anySatisfy(l -> assertThat(l).startsWith("“Gate”: "));
        assertThat(References.flaws(less.rig())).isEmpty();
        assertThat(less.rig().board().gear()).isEqualTo(demo.board().gear());
        List<String> before = demo.board().buttons().map(b -> b.id()).toList();
        assertThat(less.rig().board().buttons().map(b -> b.id()).toList()).isEqualTo(before);
    }
}
