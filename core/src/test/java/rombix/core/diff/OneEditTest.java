package rombix.core.diff;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.core.store.BoardFile;
import rombix.core.store.BoardTree;

/** What an edit changes in a board's file: the lines of what it edits, and no others. */
class OneEditTest {
    private static final int TRIES = 120;

    static LongStream seeds() {
        return LongStream.range(0, TRIES);
    }

    private static List<String> lines(Board board) {
        return BoardFile.format(board).lines().map(String::strip).toList();
    }

    /** Its lines without the last, which may have a comma behind it. */
    private static List<String> lines(Button button) {
        List<String> all = BoardTree.text(button).lines().map(String::strip).toList();
        return all.subList(0, all.size() - 1);
    }

    /** Its buttons, but for those with a picture, which goes as well when nothing names it any more. */
    private static List<Button> plain(Rig demo) {
        return demo.board().buttons().filter(b -> !BoardTree.text(b).contains("picture")).toList();
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void anEditOfAButtonChangesTheLinesOfThatButtonAlone(long seed) throws Exception {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        List<Button> all = plain(demo);
        Button was = all.get(new Random(seed).nextInt(all.size()));
        Board edited = new RandomEdits(seed, demo).ofButtons(demo.board(), List.of(was), 1);
        Button is = edited.button(was.id()).orElseThrow();
        List<String> before = lines(demo.board());
        List<String> after = lines(edited);
        int at = Collections.indexOfSubList(before, lines(was));
        assertThat(at).as("the button's lines stand together").isPositive();
        assertThat(after.subList(0, at)).as("before it").isEqualTo(before.subList(0, at));
        assertThat(after.subList(at, at + lines(is).size())).isEqualTo(lines(is));
        assertThat(after.subList(at + lines(is).size(), after.size())).as("behind it").isEqualTo(before.subList(at
                + lines(was).size(), before.size()));
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void aButtonThatGoesTakesItsLinesAlone(long seed) throws Exception {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        List<Button> all = plain(demo);
        Button gone = all.get(new Random(seed).nextInt(all.size()));
        Board without = demo.board().withPages(demo.board().pages().stream().map(p -> p.withButtons(p.buttons().stream()
                .filter(b -> !b.id().equals(gone.id())).toList())).toList());
        List<String> before = lines(demo.board());
        List<String> after = lines(without);
        int at = Collections.indexOfSubList(before, lines(gone));
        // Behind the last of a list there is no comma: the line before it loses its own.
        assertThat(after.subList(0, at - 1)).isEqualTo(before.subList(0, at - 1));
        assertThat(after.subList(at, after.size()))
                .isEqualTo(before.subList(at + lines(gone).size() + 1, before.size()));
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void anEditOfTheBoardChangesOneLine(long seed) throws Exception {
        Board demo = BoardFile.read(Path.of("../demo/star-night.json")).board();
        Board edited = switch ((int) (seed % 3)) {
            case 0 -> demo.withName("Night " + seed);
            case 1 -> Edits.page(demo, demo.pages().get((int) (seed % demo.pages().size())).id(),
                    p -> p.withName("Page " + seed));
            default ->
                demo.withGear(demo.gear().stream().map(g -> g.id().equals(demo.gear().get((int) (seed % demo.gear()
                        .size())).id()) ? g.withName("Gear " + seed) : g).toList());
        };
        List<String> before = lines(demo);
        List<String> after = lines(edited);
        assertThat(after).hasSameSizeAs(before);
        assertThat(IntStream.range(0, before.size()).filter(i -> !before.get(i).equals(after.get(i)))
                .count()).isEqualTo(1);
    }
}
