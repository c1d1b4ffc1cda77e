package rombix.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Face;
import rombix.core.board.State;
import rombix.core.board.Trigger;

class EditsTest {
    private final Board board = Edits.addButton(Edits.addButton(Board.empty("B"), "main", button("a", 0, 0)), "main",
            button("b", 1, 0));

    private static Button button(String id, int column, int row) {
        return new Button(id, id, column, row, 1, 1, Button.Busy.RESTART, List.of(), Map.of());
    }

    @Test
    void aButtonMovesToAnEmptyCell() {
        Button moved = Edits.moveButton(board, "a", 3, 2).button("a").orElseThrow();
        assertThat(moved.column()).isEqualTo(3);
        assertThat(moved.row()).isEqualTo(2);
    }

    @Test
    void aButtonSwapsWithTheOneThere() {
        Board swapped = Edits.moveButton(board, "a", 1, 0);
        assertThat(swapped.button("a").orElseThrow().column()).isEqualTo(1);
        assertThat(swapped.button("b").orElseThrow().column()).isZero();
    }

    @Test
    void aButtonStaysOnItsPageAndCoversNoOther() {
        assertThat(Edits.moveButton(board, "a", 6, 0)).isEqualTo(board);
        Board wide = Edits.button(board, "b", b -> b.withWidth(2));
        assertThat(Edits.moveButton(wide, "a", 1, 0)).isEqualTo(wide);
    }

    @Test
    void aTakenCellTakesNoOtherButton() {
        assertThat(Edits.addButton(board, "main", button("c", 0, 0))).isEqualTo(board);
    }

    @Test
    void statesAreAddedAndRemovedButNeverTheLast() {
        Board two = Edits.addState(board, "a");
        assertThat(two.button("a").orElseThrow().states()).hasSize(2);
        Board named = Edits.state(two, "a", 0, s -> s.withThen("state-2"));
        Board one = Edits.removeState(named, "a", 1);
        assertThat(one.button("a").orElseThrow().states()).singleElement().extracting(State::then)
                .isEqualTo(State.NEXT);
        assertThat(Edits.removeState(one, "a", 0)).isEqualTo(one);
    }

    @Test
    void idsAreMadeFromNamesAndAreUnique() {
        assertThat(Edits.freshId(board, "Doors open!")).isEqualTo("doors-open");
        assertThat(Edits.freshId(board, "A")).isEqualTo("a-2");
        assertThat(Edits.freshId(board, "  ")).isEqualTo("button");
    }

    @Test
    void severalButtonsMoveTogetherOrNotAtAll() {
        Board moved = Edits.moveButtons(board, List.of("a", "b"), 1, 2);
        assertThat(moved.button("a").orElseThrow().column()).isEqualTo(1);
        assertThat(moved.button("b").orElseThrow().row()).isEqualTo(2);
        assertThat(Edits.moveButtons(board, List.of("a", "b"), -1, 0)).as("beyond the edge").isEqualTo(board);
        Board third = Edits.addButton(board, "main", button("c", 2, 0));
        assertThat(Edits.moveButtons(third, List.of("a", "b"), 1, 0)).as("onto another").isEqualTo(third);
    }

    @Test
    void aButtonTakesMoreCellsWhereThereIsRoom() {
        Board wide = Edits.sizeButton(board, "b", 3, 2);
        assertThat(wide.button("b").orElseThrow().covers(3, 1)).isTrue();
        assertThat(Edits.sizeButton(board, "a", 2, 1)).as("another is in the way").isEqualTo(board);
        assertThat(Edits.sizeButton(board, "b", 6, 1)).as("beyond the edge").isEqualTo(board);
        assertThat(Edits.sizeButton(board, "b", 0, 1)).isEqualTo(board);
    }

    /** A page that was duplicated twice had two copies of one name. */
    @Test
    void eachCopyOfAPageHasANameOfItsOwn() {
        Board twice = Edits.duplicatePage(Edits.duplicatePage(board, "main"), "main");
        assertThat(twice.pages()).extracting(Page::name).doesNotHaveDuplicates().hasSize(board.pages().size() + 2);
    }

    @Test
    void aButtonMovesToAnotherPageIntoItsCellOrTheFirstFreeOne() {
        Board two = Edits.addPage(board, "Two");
        String page = two.pages().getLast().id();
        Board moved = Edits.moveToPage(two, "b", page);
        assertThat(moved.pageOf("b").orElseThrow().id()).isEqualTo(page);
        assertThat(moved.button("b").orElseThrow().column()).isEqualTo(1);
        Board taken = Edits.addButton(two, page, button("c", 1, 0));
        assertThat(Edits.moveToPage(taken, "b", page).button("b").orElseThrow().column()).isZero();
        Board full = Edits.resizePage(taken, page, 2, 1);
        Board noRoom = Edits.addButton(full, page, button("d", 0, 0));
        assertThat(Edits.moveToPage(noRoom, "b", page)).isEqualTo(noRoom);
    }

    @Test
    void aStateThatGoesTakesItsLampsWithItAndNothingFallsBackToIt() {
        Trigger.Midi pad = new Trigger.Midi("Pads", Trigger.Midi.Message.NOTE, 1, 36, null, java.util.Map.of("on",
                new Trigger.Midi.Led(null, 1), "two", new Trigger.Midi.Led(null, 5)), false);
        Board two = Edits.button(board, "a", b -> b.withStates(List.of(State.named("on").withFallBack(
                new State.FallBack("two", 100)), State.named("two").withThen("on"))).withTriggers(List.of(pad,
                        new Trigger.Key("K"))));
        Board one = Edits.removeState(two, "a", 1);
        assertThat(one.button("a").orElseThrow().states().getFirst().fallBack()).isNull();
        assertThat(one.button("a").orElseThrow().triggers()).containsExactly(pad.withLeds(java.util.Map.of("on",
                new Trigger.Midi.Led(null, 1))), new Trigger.Key("K"));
    }

    @Test
    void picturesThatNoFaceShowsAreLeftOut() {
        Board.Picture shown = new Board.Picture("p1", "a.svg", "AA==");
        Board.Picture spent = new Board.Picture("p2", "b.svg", "AA==");
        Board with = Edits.addPicture(Edits.addPicture(Edits.addPicture(board, shown), spent), shown);
        assertThat(with.pictures()).containsExactly(shown, spent);
        Board faced = Edits.state(with, "a", 0, s -> s.withFace(s.face().withImage(new Face.Image("p1", null, 0,
                null))));
        assertThat(Edits.withoutSpentPictures(faced).pictures()).containsExactly(shown);
    }
}
