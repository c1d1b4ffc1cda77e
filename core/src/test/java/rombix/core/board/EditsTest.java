package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

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
}
