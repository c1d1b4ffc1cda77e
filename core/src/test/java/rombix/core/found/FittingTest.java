package rombix.core.found;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card.Item;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.edit.GearEdits;
import rombix.core.found.FoundGear.How;
import rombix.core.store.CardLibrary;

class FittingTest {
    private static final List<Card> SHIPPED = List.copyOf(CardLibrary.shipped().values());
    private static final Protocol MQTT = Protocol.of("mqtt");

    private static FoundGear broker(String... topics) {
        return new FoundGear(How.TOPICS, "Attic broker", "", MQTT, "10.0.0.4:1883", "", false, Map.of(), Set.of(
                topics));
    }

    @ParameterizedTest
    @CsvSource({"osc,Larkmoor studio,studio", "http,Gate camera head,camera-head", "irc,Star night chat,chat",
            "line,dome-projector-2,projector"})
    void whatItCallsItselfSpeaksForACard(String protocol, String name, String card) {
        FoundGear found = new FoundGear(How.DNS_SD, name, "", Protocol.of(protocol), "10.0.0.7:9000");
        assertThat(Fitting.proposals(found, SHIPPED)).singleElement().satisfies(p -> {
            assertThat(Objects.requireNonNull(p.fits()).id()).isEqualTo(card);
            assertThat(p.cards().getFirst().id()).isEqualTo(card);
            assertThat(p.cards()).allMatch(c -> c.protocols().contains(found.protocol()));
        });
    }

    @Test
    void noCardIsGuessedWhereNothingSpeaksForOne() {
        FoundGear found = new FoundGear(How.DNS_SD, "Kettle 4", "model K", Protocol.of("http"), "10.0.0.7:80");
        assertThat(Fitting.proposals(found, SHIPPED)).singleElement().satisfies(p -> {
            assertThat(p.fits()).isNull();
            assertThat(p.cards()).isNotEmpty();
        });
    }

    @Test
    void theTopicsThatACardReadsSpeakForItAndFillItsLists() {
        List<Proposal> all = Fitting.proposals(broker("house/lock/gate", "house/lock/attic-hatch", "house/plug/tea-urn",
                "attic/fan/speed", "attic/fan/on"), SHIPPED);
        assertThat(all.getFirst().fits()).isNotNull().extracting(Card::id).isEqualTo("house");
        assertThat(all.getFirst().lists().get("lock")).extracting(Item::name).containsExactly("Attic hatch", "Gate");
        assertThat(all.getFirst().lists().get("plug")).extracting(Item::name).containsExactly("Tea urn");
        assertThat(all.getFirst().topics()).hasSize(3);
        assertThat(all.get(1).fits()).isNull();
        assertThat(all.get(1).name()).isEqualTo("attic/fan");
        assertThat(all.get(1).topics()).containsExactly("attic/fan/on", "attic/fan/speed");
    }

    @Test
    void manyTopicsThatNoCardReadsAreTakenTogetherByTheirFirstLevel() {
        String[] topics = new String[40];
        for (int i = 0; i < topics.length; i++) {
            topics[i] = (i % 2 == 0 ? "upstairs/" : "downstairs/") + i + "/state";
        }
        assertThat(Fitting.proposals(broker(topics), SHIPPED)).extracting(Proposal::name).containsExactly("downstairs",
                "upstairs");
    }

    @Test
    void gearThatTheBoardHasIsKnownByItsAddressOrItsName() {
        FoundGear found = new FoundGear(How.DNS_SD, "Larkmoor studio", "", Protocol.of("osc"), "127.0.0.1:9101",
                "studio.local", false, Map.of(), Set.of());
        Proposal proposal = Fitting.proposals(found, SHIPPED).getFirst();
        Card studio = CardLibrary.shipped().get("studio");
        Board board = GearEdits.add(Board.empty("b"), Objects.requireNonNull(studio), found.protocol());
        String id = board.gear().getFirst().id();
        assertThat(proposal.among(board.gear())).isEmpty();
        for (String address : List.of("127.0.0.1:9101", "localhost:9101", "studio.local:9101")) {
            assertThat(proposal.among(GearEdits.reached(board, id, found.protocol(), address).gear())).map(Gear::id)
                    .hasValue(id);
        }
        assertThat(proposal.among(GearEdits.reached(board, id, found.protocol(), "127.0.0.1:9102").gear())).isEmpty();
    }
}
