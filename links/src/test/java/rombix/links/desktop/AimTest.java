package rombix.links.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rombix.links.desktop.FakeMachine.DECK;
import static rombix.links.desktop.FakeMachine.NOTES;
import static rombix.links.desktop.FakeMachine.TERMINAL;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.computer.Place;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Unable;
import rombix.links.link.StandInGear;

/** Keys and clicks go where they are meant to, or nowhere. */
@Timeout(300)
class AimTest {
    /** Inside of {@link FakeMachine#NOTES}, and of {@link FakeMachine#DECK}, but not of the terminal. */
    private static final Place IN_NOTES = Place.of("window notes from upper-left at 50 50");
    /** Inside of the notes and of the terminal. */
    private static final Place SHARED = Place.of("window notes from lower-right at 20 20");

    private static InputDriver hands(FakeMachine machine) {
        return new InputDriver(machine, new Eyes(machine), null, StandInGear.KEYS);
    }

    /** Something that a step has hands do. */
    private interface Deed {
        void by(InputDriver hands) throws Exception;
    }

    private static Arguments deed(String name, Deed deed) {
        return Arguments.of(org.junit.jupiter.api.Named.of(name, deed));
    }

    static Stream<Arguments> keys() {
        return Stream.of(deed("a key", h -> h.press(List.of("Space"), 1, 0)),
                deed("a chord", h -> h.press(List.of("Ctrl", "K"), 3, 0)),
                deed("a text", h -> h.type("hello", 0)),
                deed("a secret", h -> h.secret(rombix.standins.DemoLogin.SECRET, 0)),
                deed("a held key", h -> h.hold(List.of("F9"))));
    }

    /** A button with the key Space in the main window pressed itself without end. */
    @ParameterizedTest
    @MethodSource("keys")
    void nothingIsTypedIntoRombixItself(Deed deed) {
        FakeMachine machine = new FakeMachine(DECK, NOTES);
        assertThatThrownBy(() -> deed.by(hands(machine))).isInstanceOf(Unable.class).hasMessageContaining(
                "Rombix has the keyboard").hasMessageContaining("Ctrl+Shift+P");
        assertThat(machine.done).isEmpty();
    }

    @Test
    void theClipboardKeepsItsTextWhereNothingCanBeCopied() {
        FakeMachine machine = new FakeMachine(DECK, NOTES);
        machine.clipboard = "kept";
        assertThatThrownBy(() -> Doings.of("clipboard copy").now(new Args(List.of()), machine, hands(machine), (_,
                _) -> {
        })).hasMessageContaining("Rombix has the keyboard");
        assertThat(machine.clipboard).isEqualTo("kept");
    }

    @ParameterizedTest
    @MethodSource("keys")
    void whatIsInFrontGetsThem(Deed deed) throws Exception {
        FakeMachine machine = new FakeMachine(NOTES, DECK);
        deed.by(hands(machine));
        assertThat(machine.done).isNotEmpty();
    }

    /** A text that was meant for one application went on into another one that came to the front. */
    @Test
    void aTextForOneApplicationIsNotTypedIntoAnother() {
        FakeMachine machine = new FakeMachine(TERMINAL, NOTES, DECK);
        machine.afterKeys = n -> {
            if (n == 3) {
                machine.bring(TERMINAL);
            }
        };
        InputDriver hands = hands(machine);
        assertThatThrownBy(() -> hands.before("notes", false, () -> hands.type("abcdef", 0))).hasMessageContaining(
                "took the keyboard from “notes”");
        assertThat(machine.done).filteredOn(d -> d.length() == 1).containsExactly("a", "b", "c");
    }

    @Test
    void aWindowOfRombixThatComesToTheFrontEndsATextAtOnce() {
        FakeMachine machine = new FakeMachine(NOTES, DECK);
        machine.afterKeys = n -> {
            if (n == 3) {
                machine.bring(DECK);
            }
        };
        assertThatThrownBy(() -> hands(machine).type("abcdef", 0)).hasMessageContaining("Rombix has the keyboard");
        assertThat(machine.done).containsExactly("a", "b", "c");
    }

    @Test
    void aChordThatWouldEndInRombixLetsGoOfWhatItHolds() {
        FakeMachine machine = new FakeMachine(NOTES, DECK);
        machine.afterKeys = _ -> machine.bring(DECK);
        assertThatThrownBy(() -> hands(machine).press(List.of("Ctrl", "Q"), 1, 0)).hasMessageContaining(
                "Rombix has the keyboard");
        assertThat(machine.done).containsExactly("Ctrl down", "Ctrl up");
    }

    @Test
    void anApplicationThatIsNamedIsBroughtToTheFrontFirst() throws Exception {
        FakeMachine machine = new FakeMachine(DECK, NOTES);
        InputDriver hands = hands(machine);
        hands.before("notes", true, () -> hands.type("hi", 0));
        assertThat(machine.done).containsExactly("h", "i");
        assertThat(machine.windows.getFirst()).isEqualTo(DECK);
    }

    private static Place at(String words) {
        return Place.of(words);
    }

    static Stream<Arguments> onRombix() {
        Map<String, Place> places = Map.of("the pointer", Place.HERE, "a screen", at("screen 1 at 150 150"),
                "a region", at("region 1 140 140 20 20"), "its own window", at("window Rombix from upper-left at 9 9"));
        return places.entrySet().stream().flatMap(p -> Stream.of(
                deed("click at " + p.getKey(), h -> h.pointer().click("left", 1, p.getValue(), false, true, 100)),
                deed("hold at " + p.getKey(), h -> h.pointer().hold("left", p.getValue(), true)),
                deed("wheel at " + p.getKey(), h -> h.pointer().wheel("up", 2, p.getValue(), true)),
                deed("drag from " + p.getKey(), h -> h.pointer().drag(p.getValue(), at("screen 1 at 450 350"), "left",
                        0, false, true)),
                deed("drag to " + p.getKey(), h -> h.pointer().drag(at("screen 1 at 450 350"), p.getValue(), "left",
                        0, false, true))));
    }

    @ParameterizedTest
    @MethodSource("onRombix")
    void nothingIsClickedInRombixItself(Deed deed) {
        FakeMachine machine = new FakeMachine(DECK, NOTES);
        machine.move(new Machine.Point(150, 150));
        assertThatThrownBy(() -> deed.by(hands(machine))).isInstanceOf(Unable.class).hasMessageContaining(
                "Rombix itself is at that position");
        assertThat(machine.done).isEmpty();
    }

    /** A click at a place of a covered window went to what covered it, and was logged as sent. */
    @Test
    void aWindowThatIsCoveredIsRaisedBeforeItIsClicked() throws Exception {
        FakeMachine machine = new FakeMachine(DECK, TERMINAL, NOTES);
        hands(machine).pointer().click("left", 2, SHARED, false, true, 100);
        hands(machine).pointer().wheel("down", 1, SHARED, true);
        assertThat(machine.done).containsExactly("left at notes", "left at notes", "down at notes");
    }

    @Test
    void aWindowThatMayNotBeRaisedOrDoesNotComeIsNotClicked() {
        FakeMachine machine = new FakeMachine(DECK, TERMINAL, NOTES);
        assertThatThrownBy(() -> hands(machine).pointer().click("left", 1, SHARED, false, false, 100)).hasMessage(
                "“notes” is covered by “Terminal”");
        assertThatThrownBy(() -> hands(machine).pointer().click("left", 1, IN_NOTES, false, false, 100)).hasMessage(
                "“notes” is covered by Rombix");
        machine.raises = false;
        assertThatThrownBy(() -> hands(machine).pointer().click("left", 1, SHARED, false, true, 100)).hasMessage(
                "“notes” is covered by “Terminal”");
        assertThat(machine.done).isEmpty();
    }

    @Test
    void aPlaceOffTheScreenIsAFault() {
        FakeMachine machine = new FakeMachine(NOTES);
        for (String place : List.of("screen 1 at 1280 10", "screen 1 at -1 10",
                "window notes from upper-left at 2000 10")) {
            assertThatThrownBy(() -> hands(machine).pointer().click("left", 1, at(place), false, true, 100))
                    .hasMessageContaining("off the screen");
            assertThatThrownBy(() -> hands(machine).pointer().move(at(place))).hasMessageContaining("off the screen");
        }
        assertThat(machine.done).isEmpty();
    }

    /** Whatever the hand pressed on would get our click, too. */
    @Test
    void aClickWaitsUntilTheHandHasLetGoOfTheMouse() {
        FakeMachine machine = new FakeMachine(NOTES);
        machine.button = true;
        assertThatThrownBy(() -> hands(machine).pointer().click("left", 1, IN_NOTES, false, true, 100))
                .hasMessageContaining("mouse button is already held down");
        assertThat(machine.done).isEmpty();
    }
}
