package rombix.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

class UsualTest {
    private static Step mute(String channel) {
        return new GearStep.Do("desk", "mute", Map.of("channel", Value.of(channel)));
    }

    private static Step level(String channel, double db) {
        return new GearStep.Do("desk", "level", Map.of("channel", Value.of(channel), "level", Value.of(db)));
    }

    private static Rig with(Chain... chains) throws BadFile {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Board board = demo.board().withChains(List.of()).withPages(List.of(Page.empty("p", "P")));
        for (int i = 0; i < chains.length; i++) {
            Chain chain = chains[i];
            rombix.core.board.Button b = new rombix.core.board.Button("b" + i, "B" + i, i, 0, 1, 1,
                    rombix.core.board.Button.Busy.RESTART, List.of(State.named("on").withChain(Gesture.PRESS, chain)),
                    Map.of());
            board = Edits.addButton(board, "p", b);
        }
        return demo.with(board);
    }

    private static List<Step> next(Rig rig, Step before, Step... recent) {
        return Likely.next(rig, _ -> Readings.NONE, before, List.of(recent), 6).stream().map(Found::step)
                .toList();
    }

    @Test
    void whatFollowsSuchAStepElsewhereComesFirstMostOftenFirst() throws BadFile {
        Rig rig = with(Chain.of(mute("host"), level("bed", -6)), Chain.of(mute("host"), level("bed", -12)), Chain.of(
                mute("host"), mute("dome")), Chain.of(mute("guest"), mute("stings")));
        List<Step> offered = next(rig, mute("host"));
        assertThat(offered.get(0)).as("whatever its figure").isEqualTo(level("bed", -6));
        assertThat(offered.get(1)).isEqualTo(mute("dome"));
        assertThat(offered).doesNotContain(mute("host"));
    }

    @Test
    void whatWasAddedLatelyComesBeforeWhatTheBoardDoesMost() throws BadFile {
        Rig rig = with(Chain.of(mute("guest"), mute("dome")));
        assertThat(next(rig, null, mute("stings"), level("host", 3)).subList(0, 2)).containsExactly(mute("stings"),
                level("host", 3));
    }

    @Test
    void aWaitIsOfferedBehindAnythingButAWait() throws BadFile {
        Rig rig = with(Chain.of(mute("guest")));
        assertThat(next(rig, mute("host"))).contains(new Step.Wait(1000));
        assertThat(next(rig, new Step.Wait(20))).noneMatch(Step.Wait.class::isInstance);
    }

    @Test
    void anEmptyBoardStillOffersWhatItsGearCanDo() throws BadFile {
        assertThat(next(with(), null)).isNotEmpty().doesNotHaveDuplicates();
    }

    @Test
    void stepsThatHoldOthersAreOfferedEmpty() throws BadFile {
        Rig rig = with(Chain.of(mute("host"), new Step.Together(List.of(Chain.of(mute("dome"), new Step.Wait(5)), Chain
                .of(mute("bed"))))));
        assertThat(next(rig, mute("host")).getFirst()).isEqualTo(new Step.Together(List.of(Chain.EMPTY, Chain.EMPTY)));
    }

    @Test
    void recentStepsWinOverOthersThatFitAsWell() throws BadFile {
        Rig rig = with();
        Finder finder = new Finder(rig, _ -> Readings.NONE);
        List<Found> plain = finder.find("mute", 8);
        Step last = plain.stream().map(Found::step).filter(GearStep.Do.class::isInstance).reduce((_, b) -> b)
                .orElseThrow();
        assertThat(plain.getFirst().step()).isNotEqualTo(last);
        assertThat(finder.find("mute", 8, List.of(last)).getFirst().step()).isEqualTo(last);
        assertThat(finder.find("unmute host", 3, List.of(mute("host"))).getFirst().title()).as(
                "a better word counts for more").isEqualTo("Unmute Host");
    }
}
