package rombix.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;

class CopiesTest {
    private static final Chain WAIT = Chain.of(new Step.Wait(70));
    private static final Face RED = Face.PLAIN.withLabel("Red").withSecond("two").withIcon("mdi2b-bell").withTint(
            "#6B2530").withInk("#FFFFFF").withMark(Face.Mark.TICK);

    private static State state(String id, Face face) {
        return new State(id, id, face, State.NEXT, null, Map.of(Gesture.PRESS, WAIT, Gesture.RELEASE, WAIT), Map.of());
    }

    private static Button button(String id, int column, State... states) {
        return new Button(id, id, column, 0, 1, 1, Button.Busy.RESTART, List.of(states), Map.of());
    }

    private final Button from = button("from", 0, state("one", RED).withThen("two"), state("two", RED.withMark(
            Face.Mark.CROSS)).withThen("one").withFallBack(new State.FallBack("one", 400)));
    private final Board board = Board.empty("B").withPages(List.of(new Page("main", "Main", 4, 1, List.of(from, button(
            "to", 1, State.named("x"))), Map.of())));

    private Button to(Board after) {
        return after.button("to").orElseThrow();
    }

    @Test
    void aWholeCopyStandsWhereThereIsRoomWithAnIdOfItsOwnAndNoKeys() {
        Button keyed = from.withTriggers(List.of(new Trigger.Key("F9")));
        Board after = Copies.button(board, "main", keyed, 1, 0);
        Button copy = after.button("from-2").orElseThrow();
        assertThat(copy.column()).as("its cell is taken, so it takes the first free one").isEqualTo(2);
        assertThat(copy.triggers()).isEmpty();
        assertThat(copy.states()).isEqualTo(from.states());
    }

    @Test
    void aFullPageTakesNoCopy() {
        Board full = Copies.button(Copies.button(board, "main", from, 2, 0), "main", from, 3, 0);
        assertThat(Copies.button(full, "main", from, 0, 0)).isEqualTo(full);
        assertThat(Copies.button(board, "nowhere", from, 0, 0)).isEqualTo(board);
    }

    @Test
    void looksAloneLeaveWordsAndChains() {
        State x = to(Copies.looks(board, "to", from)).states().getFirst();
        assertThat(x.face().icon()).isEqualTo("mdi2b-bell");
        assertThat(x.face().tint()).isEqualTo("#6B2530");
        assertThat(x.face().mark()).isEqualTo(Face.Mark.TICK);
        assertThat(x.face().label()).isNull();
        assertThat(x.face().second()).isNull();
        assertThat(x.on()).isEmpty();
    }

    @Test
    void matchingLeavesTheIcon() {
        Face face = to(Copies.match(board, "to", from)).states().getFirst().face();
        assertThat(face.icon()).isNull();
        assertThat(face.tint()).isEqualTo("#6B2530");
        assertThat(face.mark()).isEqualTo(Face.Mark.TICK);
    }

    @Test
    void matchingCarriesHowPicturesLieButNotThePicture() {
        Face.Image mine = new Face.Image("mine", Face.Image.Fit.ICON, 0, null);
        Board pictured = Edits.state(board, "to", 0, s -> s.withFace(s.face().withImage(mine)));
        Button like = from.withStates(List.of(state("one", RED.withImage(new Face.Image("other", Face.Image.Fit.COVER,
                8, "#FFFFFF")))));
        assertThat(to(Copies.match(pictured, "to", like)).states().getFirst().face().image()).isEqualTo(new Face.Image(
                "mine", Face.Image.Fit.COVER, 8, null));
    }

    @Test
    void allChainsOfAButtonComeWithTheStatesThatTheyNeed() {
        Button to = to(Copies.chains(board, "to", from));
        assertThat(to.states()).hasSize(2);
        assertThat(to.states()).allSatisfy(s -> assertThat(s.on()).isEqualTo(from.states().getFirst().on()));
        assertThat(to.states().getFirst().id()).isEqualTo("x");
        assertThat(to.states().getFirst().then()).as("the state in the same place").isEqualTo(to.states().get(1).id());
        assertThat(to.states().get(1).fallBack()).isEqualTo(new State.FallBack("x", 400));
        assertThat(to.states().getFirst().face()).isEqualTo(Face.PLAIN);
    }

    @Test
    void statesGoOverOthersOrBehindThem() {
        Button over = to(Copies.state(board, "to", 0, from.states().getFirst()));
        assertThat(over.states()).singleElement().satisfies(s -> {
            assertThat(s.id()).isEqualTo("x");
            assertThat(s.face()).isEqualTo(RED);
            assertThat(s.chain(Gesture.PRESS)).isEqualTo(WAIT);
        });
        Button more = to(Copies.state(board, "to", 1, from.states().getFirst()));
        assertThat(more.states()).hasSize(2);
        assertThat(more.states().get(1).then()).as("what it named is on another button").isEqualTo(State.NEXT);
    }

    @Test
    void oneFaceGoesOnAllStates() {
        Button all = Copies.faceOnAllStates(board, "from", 1).button("from").orElseThrow();
        assertThat(all.states().getFirst().face().mark()).isEqualTo(Face.Mark.CROSS);
        assertThat(all.states().getFirst().chain(Gesture.PRESS)).isEqualTo(WAIT);
    }

    @Test
    void sixteenStatesAreTheMost() {
        Board max = board;
        for (int i = 0; i < 30; i++) {
            max = Copies.state(max, "to", 99, from.states().getFirst());
        }
        assertThat(to(max).states()).hasSize(Button.MAX_STATES);
        assertThat(to(max).states().stream().map(State::id)).doesNotHaveDuplicates();
    }
}
