package rombix.running.face;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.engine.AsRun;
import rombix.core.engine.Happening;
import rombix.core.engine.Status;
import rombix.core.value.Value;
import rombix.running.face.DeckModel.Changes;

/** What the interface knows of the deck, told in lots, once a pulse. No toolkit is needed. */
class DeckModelTest {
    private final DeckModel model = new DeckModel();
    private final List<Changes> told = new ArrayList<>();

    @BeforeEach
    void watch() {
        model.watch(told::add);
    }

    private Changes pulse(Happening... happenings) {
        told.clear();
        for (Happening h : happenings) {
            model.feed(h);
        }
        model.pulse();
        return told.isEmpty() ? null : told.getFirst();
    }

    @Test
    void watchersAreToldOnceAPulseAndNotAtAllWhereNothingChanged() {
        assertThat(pulse()).isNull();
        Changes changes = pulse(new Happening.Came("desk", "muted/host", Value.of(true)), new Happening.Came("desk",
                "muted/host", Value.of(false)), new Happening.Came("house", "on/urn", Value.of(true)));
        assertThat(told).hasSize(1);
        assertThat(changes.gear()).containsExactlyInAnyOrder("desk", "house");
        assertThat(changes.readings()).containsExactlyInAnyOrder("desk:muted/host", "house:on/urn");
        assertThat(changes.whole()).isEmpty();
        assertThat(changes.touches("desk", "muted/host")).isTrue();
        assertThat(changes.touches("desk", "muted/guest")).isFalse();
        assertThat(model.reading("desk", "muted/host")).as("the last value wins").isEqualTo(Value.of(false));
    }

    @Test
    void listsAndStatusesChangeAGearAsAWhole() {
        Changes lists = pulse(new Happening.Came("studio", "scene-list", new Value.Choices(List.of())));
        assertThat(lists.touches("studio", "anything")).isTrue();
        Changes status = pulse(new Happening.Linked("desk", new Status(Status.Phase.OFF, "off", "", 0)));
        assertThat(status.whole()).containsExactly("desk");
        assertThat(model.status("desk").phase()).isEqualTo(Status.Phase.OFF);
        assertThat(model.status("nobody")).isEqualTo(Status.UNTRIED);
    }

    @Test
    void whatRunsIsKnownUntilItEndsAndItsTroubleStays() {
        pulse(new Happening.Started(3, "gate", "press", "mouse", 0, 5_000_000));
        assertThat(model.running("gate")).isNotNull();
        Changes still = pulse();
        assertThat(still).as("while something runs every pulse tells, for the bars").isNotNull();
        pulse(new Happening.Ran(new AsRun(0, 0, 3, "gate", "press/0", "", "house", "unlock", Map.of(), "Unlock",
                AsRun.Outcome.FAULT, "no answer")), new Happening.Ran(
                        new AsRun(0, 90_000_000, 3, "gate", "press/1", "",
                                "house", "unlock", Map.of(), "Unlock", AsRun.Outcome.SENT, "")),
                new Happening.Picked(3,
                        "press/2", 1, "else"),
                new Happening.Ended(3, "gate", Happening.End.FAILED, 0));
        assertThat(model.running("gate")).isNull();
        DeckModel.LastRun last = model.lastRun("gate");
        assertThat(last.trouble()).containsEntry("press/0", "no answer").containsEntry("press/1", "90 ms late");
        assertThat(last.picked()).containsEntry("press/2", 1);
    }

    @Test
    void faultsStayUntilTheyAreClearedNewestLast() {
        pulse(new Happening.Faulted("gate", "house", "no answer"), new Happening.Faulted("urn", null, "odd"));
        assertThat(model.lastFault().button()).isEqualTo("urn");
        pulse(new Happening.Faulted("urn", null, null));
        assertThat(model.lastFault().button()).isEqualTo("gate");
        pulse(new Happening.Faulted("gate", null, null));
        assertThat(model.lastFault()).isNull();
    }

    @Test
    void aMessageGivesWayToWhatGoesWrongAfterItAndNotToWhatWentWrongBefore() {
        pulse(new Happening.Faulted("gate", "house", "no answer"));
        pulse(new Happening.Said("doors-open", "Doors in five minutes."));
        assertThat(model.said(60)).isNotNull();
        assertThat(model.said(0)).as("its time is over").isNull();
        pulse(new Happening.Faulted("urn", "house", "no answer"));
        assertThat(model.said(60)).isNull();
    }

    @Test
    void textsAreFilledWithReadingsValuesAndFormulasTheButtonsOwnFirst() {
        pulse(new Happening.Came("studio", "clips", Value.of(3)), new Happening.ValueSet(null, "n", Value.of(4)),
                new Happening.ValueSet("gate", "n", Value.of(5)));
        assertThat(model.filled("{studio:clips} clips", "gate", (_, _) -> "three")).isEqualTo("three clips");
        assertThat(model.filled("{n} of {= 2 * {n}}", "gate", (_, _) -> "")).isEqualTo("5 of 10");
        assertThat(model.filled("{n}", "urn", (_, _) -> "")).isEqualTo("4");
        assertThat(model.filled("plain", "urn", (_, _) -> "")).isEqualTo("plain");
    }

    @Test
    void pagesToShowAreHandedOnOnce() {
        Changes changes = pulse(new Happening.PageShown("trouble", Way.POP_UP, "mouse"));
        assertThat(changes.pages()).containsExactly(new Happening.PageShown("trouble", Way.POP_UP, "mouse"));
        assertThat(pulse()).isNull();
    }

    @Test
    void whatAChainIsAtIsKnownWhileItRuns() {
        pulse(new Happening.Started(1, "gate", "press", "mouse", 0, 0), new Happening.AtStep(1, "press/2"),
                new Happening.AtStep(9, "press/0"));
        assertThat(model.doing(1)).isEqualTo("press/2");
        assertThat(model.doing(9)).as("it runs no more").isEmpty();
        pulse(new Happening.Ended(1, "gate", Happening.End.DONE, 0));
        assertThat(model.doing(1)).isEmpty();
    }

    @Test
    void linesThatRanAreHandedOnOnceAndTimesGoByThePlayersClock() {
        rombix.core.engine.AsRun line = new rombix.core.engine.AsRun(0, 0, 1, "gate", "press/0", "", "house", "unlock",
                java.util.Map.of(), "Unlock", rombix.core.engine.AsRun.Outcome.SENT, "");
        assertThat(pulse(new Happening.Ran(line)).ran()).containsExactly(line);
        assertThat(pulse()).isNull();
        long[] now = {500};
        model.clock(() -> now[0]);
        pulse(new Happening.Guarded("gate", true, 800));
        assertThat(model.guarding("gate")).isEqualTo(new DeckModel.Guarding(true, 500, 800_000_500L));
        assertThat(model.now()).isEqualTo(500);
    }

    @Test
    void questionsWaitInTheOrderInWhichTheyCame() {
        pulse(asked(1), asked(2));
        assertThat(model.asked()).extracting(Happening.Asked::question).containsExactly(1L, 2L);
        assertThat(pulse(new Happening.AskClosed(1)).talk()).isTrue();
        assertThat(model.asked()).extracting(Happening.Asked::question).containsExactly(2L);
    }

    private static Happening asked(long question) {
        return new Happening.Asked(question, 1, "ring", "Which?", rombix.core.chain.DeckStep.Ask.AnswerType.CHOICE,
                List.of("a",
                        "b"),
                null, -1, 0);
    }

    @Test
    void allIsForgottenWhereItIsToldAnew() {
        pulse(new Happening.Came("desk", "level/host", Value.of(1)),
                new Happening.Started(1, "gate", "press", "mouse", 0,
                        0),
                new Happening.Shows("gate", 1, -1, true), asked(1));
        Changes anew = pulse(new Happening.Anew());
        assertThat(anew.whole()).containsExactly("desk");
        assertThat(anew.buttons()).contains("gate");
        assertThat(model.reading("desk", "level/host")).isNull();
        assertThat(model.runs()).isEmpty();
        assertThat(model.asked()).isEmpty();
        assertThat(model.play("gate").held()).isFalse();
    }
}
