package rombix.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.check.References;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;

/** Parts of boards as text. */
class SharedPartTest {
    private Rig demo;
    /** A board with a desk of its own and nothing else. */
    private Rig hall;

    @BeforeEach
    void boards() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Board board = Board.empty("Hall").withGear(List.of(demo.board().gear("desk").orElseThrow().withId("hall-desk")
                .withName("Hall desk"))).withPages(List.of(Page.empty("main", "Main")));
        hall = demo.with(board);
    }

    private static SharedPart again(SharedPart part) throws BadFile {
        return SharedPart.read(part.text()).orElseThrow();
    }

    private PartPaste.Pasted pasted(SharedPart part, String button) throws BadFile {
        SharedPart text = again(part);
        return PartPaste.of(hall, text, new Matching(text.rig(), hall).proposed(), new PartPaste.Place("main", 2, 1,
                button, 0, Gesture.PRESS));
    }

    private Button button(String id) {
        return demo.button(id).orElseThrow();
    }

    @Test
    void aButtonBringsTheGearItNeedsAndUsesWhatIsHere() throws Exception {
        PartPaste.Pasted pasted = pasted(SharedPart.of(SharedPart.What.BUTTONS, demo, List.of(button("host-talk"))),
                null);
        Button made = pasted.rig().board().page("main").orElseThrow().buttons().getFirst();
        assertThat(made.column()).isEqualTo(2);
        assertThat(made.gear()).contains("hall-desk").doesNotContain("desk");
        assertThat(pasted.rig().board().gear("desk")).isEmpty();
        assertThat(References.flaws(pasted.rig())).isEmpty();
        assertThat(pasted.lost()).isEmpty();
    }

    @Test
    void aWholePageComesWithAllThatItNames() throws Exception {
        for (Page page : demo.board().pages()) {
            SharedPart part = SharedPart.page(demo, page);
            assertThat(part.text()).doesNotContain("127.0.0.1:9", "larkmoor-stand-ins");
            PartPaste.Pasted pasted = pasted(part, null);
            assertThat(References.flaws(pasted.rig())).as(page.id()).isEmpty();
            Page made = pasted.rig().board().pages().getLast();
            assertThat(made.buttons()).extracting(Button::name).isEqualTo(page.buttons().stream().map(Button::name)
                    .toList());
            assertThat(BoardFile.parse(Path.of("b.json"), BoardFile.format(pasted.rig().board()), pasted.rig()
                    .cards())).isNotNull();
        }
    }

    @Test
    void pastedTwiceNothingHasTheSameIdAndWhatNamesAButtonNamesTheNewOne() throws Exception {
        SharedPart part = SharedPart.page(demo, demo.page("trouble").orElseThrow());
        PartPaste.Pasted into = PartPaste.of(demo, part, new Matching(part.rig(), demo).proposed(),
                new PartPaste.Place("trouble", 0, 0, null, 0, Gesture.PRESS));
        assertThat(References.flaws(into.rig())).isEmpty();
        assertThat(into.rig().board().pages()).hasSize(demo.board().pages().size() + 1);
        assertThat(into.rig().board().gear()).isEqualTo(demo.board().gear());
        assertThat(into.rig().board().pages()).extracting(Page::name).doesNotHaveDuplicates().contains("Trouble 2");
    }

    @Test
    void aStateAChainAndALookGoOntoAButton() throws Exception {
        hall = hall.with(Edits.addButton(hall.board(), "main", button("host-talk").withTriggers(List.of()).withStates(
                List.of(rombix.core.board.State.named("plain")))));
        List<Button> from = List.of(button("gate"));
        assertThat(pasted(SharedPart.of(SharedPart.What.LOOK, demo, from), "host-talk").rig().button("host-talk")
                .orElseThrow().states().getFirst().face().icon()).isEqualTo(button("gate").states().getFirst().face()
                        .icon());
        assertThat(pasted(SharedPart.of(SharedPart.What.STATE, demo, from), "host-talk").rig().button("host-talk")
                .orElseThrow().states()).hasSize(2);
        Rig chained = pasted(SharedPart.of(SharedPart.What.CHAIN, demo, from), "host-talk").rig();
        assertThat(chained.button("host-talk").orElseThrow().states().getFirst().chain(Gesture.PRESS).steps())
                .isNotEmpty();
        assertThat(chained.board().gear("house")).as("came along, without an address").hasValueSatisfying(
                g -> assertThat(g.link().address()).isEmpty());
    }

    @Test
    void whatIsNoPartIsNoneAndABadOneIsTold() throws Exception {
        assertThat(SharedPart.read("hello")).isEmpty();
        assertThat(SharedPart.read("{\"rombix\": 1}")).isEmpty();
        assertThatThrownBy(() -> SharedPart.read("{\"rombix-part\": 1}")).isInstanceOf(BadFile.class);
        assertThatThrownBy(() -> SharedPart.read(again(SharedPart.page(demo, demo.board().pages().getFirst())).text()
                .replace("\"rombix-part\": 1", "\"rombix-part\": 2"))).isInstanceOf(BadFile.class).hasMessageContaining(
                        "format 2");
        assertThatThrownBy(() -> SharedPart.read(
                "{\"rombix-part\": 1, \"what\": \"buttons\", \"board\": {\"rombix\": 1, \"pages\": []}}")).isInstanceOf(
                        BadFile.class);
    }
}
