package rombix.core.sight;

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
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.computer.Place;
import rombix.core.edit.Edits;
import rombix.core.value.Value;

class SightsTest {
    private static final Place.OnPicture NEXT = new Place.OnPicture("pnext", "window notes", 85, Place.Which.FIRST, 3,
            4, 0);

    @Test
    void aPlaceOfAPictureIsReadAsItIsWritten() {
        for (Place p : List.of(NEXT, Place.OnPicture.of("p1"), new Place.OnPicture("p1", "region 1 2 3 40 50", 100,
                Place.Which.EACH, -1, -1, 5000), new Place.Region(2, 10, -20, 300, 40))) {
            assertThat(Place.parse(p.toString())).contains(p);
        }
        assertThat(Place.parse("picture p1 in nowhere alike 90 take sole at middle wait 0")).isEmpty();
        assertThat(Place.parse("picture p1 in everywhere alike 9 take sole at middle wait 0")).isEmpty();
    }

    @Test
    void onlyThoseOfTheGearAreLookedForAndOnlyThoseThatAreAskedForAreWatched() {
        Board board = Board.empty("B").withPages(List.of(Page.empty("p", "P")));
        board = Edits.addPicture(board, new Board.Picture("pnext", "Next", "x"));
        board = Edits.addButton(board, "p", new Button("b", "B", 0, 0, 1, 1, Button.Busy.OVERLAP, List.of(new State("s",
                "s", Face.PLAIN, State.STAY, null, Map.of(), Map.of())), Map.of()));
        board = Edits.chain(board, "b", 0, Gesture.PRESS, _ -> Chain.of(new GearStep.Do("pc", "click", Map.of("place",
                Value.of(NEXT.toString())))));
        Sights sights = Sights.of(board, "pc");
        assertThat(sights.places()).containsExactly(Map.entry("pnext", NEXT));
        assertThat(sights.names()).containsExactly(Map.entry("pnext", "Next"));
        assertThat(sights.watched()).isEmpty();
        assertThat(Sights.of(board, "other").places()).isEmpty();
        Board asks = Edits.button(board, "b", b -> b.withTriggers(List.of(new Trigger.Becomes(Condition.OnReading.is(
                "pc", "seen/pnext", Value.of(true))))));
        assertThat(Sights.of(asks, "pc").watched()).containsExactly("pnext");
    }
}
