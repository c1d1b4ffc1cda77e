package rombix.app.view.common;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.event.Cause;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.value.Value;
import rombix.running.state.Changes;
import rombix.running.state.DeckFeed;
import rombix.running.state.DeckState;

/** What the window knows of the deck, told once a pulse. No toolkit is needed. */
class DeckModelTest {
    private final DeckFeed feed = new DeckFeed();
    private final DeckModel model = new DeckModel(feed, () -> 500);
    private final List<Changes> told = new ArrayList<>();

    @BeforeEach
    void watch() {
        model.pulse();
        model.watch(told::add);
    }

    private Changes pulse(Happening... happenings) {
        told.clear();
        for (Happening h : happenings) {
            feed.feed(h, 0);
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
        assertThat(model.state().reading("desk", "muted/host")).as("the last value wins").isEqualTo(Value.of(false));
    }

    @Test
    void betweenPulsesTheDeckStandsStill() {
        feed.feed(new Happening.Shows("gate", 1, -1, true), 0);
        assertThat(model.state().play("gate").held()).isFalse();
        model.pulse();
        assertThat(model.state().play("gate").held()).isTrue();
    }

    @Test
    void listsAndStatusesChangeAGearAsAWhole() {
        Changes lists = pulse(new Happening.Came("studio", "scene-list", new Value.Choices(List.of())));
        assertThat(lists.touches("studio", "anything")).isTrue();
        Changes status = pulse(new Happening.Linked("desk", new Status(Status.Phase.OFF, Cause.OTHER, "off")));
        assertThat(status.whole()).containsExactly("desk");
    }

    @Test
    void whileSomethingRunsEveryPulseTellsForTheBars() {
        assertThat(pulse(new Happening.Started(3, "gate", "press", "mouse", 0, 5_000_000)).buttons()).containsExactly(
                "gate");
        assertThat(pulse().runs()).isTrue();
        assertThat(pulse(new Happening.Ended(3, "gate", Happening.End.DONE, 0)).runs()).isTrue();
        assertThat(pulse()).isNull();
    }

    @Test
    void pagesToShowAreHandedOnOnceAndReadingsToWhoListens() {
        List<Happening.Came> heard = new ArrayList<>();
        model.listen((came, _) -> heard.add(came));
        Happening page = new Happening.PageShown("trouble", Way.POP_UP, "mouse");
        Happening.Came one = new Happening.Came("desk", "level/host", Value.of(1));
        Happening.Came two = new Happening.Came("desk", "level/host", Value.of(2));
        assertThat(pulse(page, one, two).happened()).containsExactly(page, one, two);
        assertThat(heard).as("each counts, not only the last").containsExactly(one, two);
        assertThat(pulse()).isNull();
    }

    @Test
    void whatIsSaidOrAskedIsTalk() {
        assertThat(pulse(new Happening.Said("gate", "Hello")).talk()).isTrue();
        assertThat(pulse(new Happening.AskClosed(1)).talk()).isTrue();
        assertThat(pulse(new Happening.Shows("gate", 1, -1, false)).talk()).isFalse();
    }

    @Test
    void allIsLookedAtWhereAnotherDeckIsShown() {
        pulse(new Happening.Came("desk", "level/host", Value.of(1)), new Happening.Shows("gate", 1, -1, true));
        told.clear();
        feed.become(DeckState.NOTHING);
        model.pulse();
        assertThat(told.getFirst().whole()).containsExactly("desk");
        assertThat(told.getFirst().buttons()).contains("gate");
        assertThat(model.state().reading("desk", "level/host")).isNull();
    }

    @Test
    void aPulseIsWantedOnceSomethingIsThere() {
        AtomicInteger wanted = new AtomicInteger();
        model.whenFed(wanted::incrementAndGet);
        pulse(new Happening.Said("gate", "Hello"), new Happening.Said("gate", "again"));
        assertThat(wanted).as("at the beginning, and once for both").hasValue(2);
        model.close();
        pulse(new Happening.Said("gate", "Bye"));
        assertThat(wanted).hasValue(2);
    }
}
