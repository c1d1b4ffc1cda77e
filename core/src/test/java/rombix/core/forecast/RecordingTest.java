package rombix.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Input;
import rombix.core.computer.Layout;
import rombix.core.computer.Place;
import rombix.core.forecast.Recording.Clicks;
import rombix.core.forecast.Recording.Pauses;

class RecordingTest {
    private static final Layout LAYOUT = new Layout(List.of(new Layout.Box(100, 50, 400, 300, "notes", "Notes")), List
            .of(new Layout.Box(0, 0, 1280, 800, "", "screen 1")));

    private final Recording recording = new Recording("pc");
    private long now;

    private RecordingTest key(String key, boolean down) {
        recording.add(new Input.Key(key, down, now), LAYOUT);
        return this;
    }

    private RecordingTest tap(String key, int letter) {
        key(key, true);
        if (letter > 0) {
            recording.add(new Input.Typed((char) letter, now), LAYOUT);
        }
        now += 20_000_000;
        return key(key, false);
    }

    private RecordingTest rest(long millis) {
        now += millis * 1_000_000;
        return this;
    }

    private RecordingTest button(String button, boolean down, int x, int y) {
        recording.add(new Input.Button(button, down, x, y, now), LAYOUT);
        return this;
    }

    private List<String> steps(Pauses pauses, Clicks clicks) {
        return recording.steps(pauses, clicks).stream().map(s -> switch (s) {
            case GearStep.Do d ->
                d.command() + " " + new TreeMap<>(d.args()).values().stream().map(a -> a.shown().toString()).toList();
            case Step.Wait w -> "wait " + w.ms();
            default -> s.toString();
        }).toList();
    }

    @Test
    void typingIsOneTextAndAChordIsAChord() {
        tap("H", 'h').rest(100).tap("I", 'i').rest(300);
        key("Ctrl", true).rest(30).tap("S", 0x13).key("Ctrl", false).rest(20).tap("Enter", '\n');
        assertThat(steps(Pauses.DROPPED, Clicks.WINDOW)).containsExactly("type-text [hi]", "press-keys [Ctrl+S]",
                "press-keys [Enter]");
    }

    @Test
    void capitalsAreText() {
        key("Shift", true).tap("A", 'A').key("Shift", false).tap("B", 'b');
        assertThat(steps(Pauses.KEPT, Clicks.WINDOW)).containsExactly("type-text [Ab]");
    }

    @Test
    void aModifierAloneIsAKey() {
        key("Meta", true).rest(50).key("Meta", false);
        assertThat(steps(Pauses.KEPT, Clicks.WINDOW)).containsExactly("press-keys [Meta]");
    }

    @Test
    void pausesAreKeptSqueezedOrDropped() {
        tap("F1", 0).rest(2000).tap("F2", 0);
        assertThat(steps(Pauses.KEPT, Clicks.WINDOW)).containsExactly("press-keys [F1]", "wait 2020",
                "press-keys [F2]");
        assertThat(steps(Pauses.SQUEEZED, Clicks.WINDOW)).contains("wait 400");
        assertThat(steps(Pauses.DROPPED, Clicks.WINDOW)).noneMatch(s -> s.startsWith("wait"));
    }

    @Test
    void aClickIsAtItsPlaceInTheWindowOnTheScreenOrAtThePointer() {
        button("left", true, 120, 80).rest(80).button("left", false, 121, 80);
        assertThat(steps(Pauses.DROPPED, Clicks.WINDOW)).containsExactly(
                "click [left, window notes from upper-left at 20 30]");
        assertThat(steps(Pauses.DROPPED, Clicks.SCREEN)).containsExactly("click [left, screen 1 at 120 80]");
        assertThat(steps(Pauses.DROPPED, Clicks.POINTER)).containsExactly("click [left, pointer]");
    }

    @Test
    void twoClicksAreADoubleClickAndAMoveBetweenIsADrag() {
        for (int i = 0; i < 2; i++) {
            button("left", true, 480, 330).rest(50).button("left", false, 480, 330).rest(100);
        }
        rest(1000).button("left", true, 120, 80).rest(300).button("left", false, 320, 180);
        assertThat(steps(Pauses.DROPPED, Clicks.WINDOW)).containsExactly(
                "click [left, window notes from lower-right at 19 19, 2]",
                "drag [left, window notes from upper-left at 20 30, 300, window notes from upper-right at 179 130]");
    }

    @Test
    void theWheelAddsUp() {
        for (int i = 0; i < 3; i++) {
            recording.add(new Input.Wheel("down", 700, 600, now), LAYOUT);
            rest(60);
        }
        assertThat(steps(Pauses.KEPT, Clicks.WINDOW)).containsExactly("wheel [3, screen 1 at 700 600, down]");
    }

    @Test
    void whatEndedItIsNoPartOfIt() {
        tap("F1", 0).rest(500);
        long end = now;
        key("Ctrl", true).key("Alt", true).key("S", true);
        recording.cut(end);
        assertThat(steps(Pauses.KEPT, Clicks.WINDOW)).containsExactly("press-keys [F1]");
    }

    @Test
    void aClickIsBoundToThePictureOfWhatWasClickedWhereThereIsOne() {
        Place.OnPicture picture = new Place.OnPicture("pnext", "everywhere", 90, Place.Which.SOLE, 4, 5, 2000);
        recording.seen(now, picture);
        button("left", true, 120, 80).rest(20).button("left", false, 120, 80).rest(2000);
        button("left", true, 130, 90).rest(20).button("left", false, 130, 90);
        assertThat(steps(Pauses.DROPPED, Clicks.PICTURE)).containsExactly("click [left, " + picture + "]",
                "click [left, window notes from upper-left at 30 40]");
    }

    /** The pause before typed text was lost. */
    @Test
    void thePauseBeforeATextIsKept() {
        tap("F1", 0).rest(2000).tap("H", 'h').rest(100).tap("I", 'i').rest(1000).tap("F2", 0);
        assertThat(steps(Pauses.KEPT, Clicks.WINDOW)).containsExactly("press-keys [F1]", "wait 2020",
                "type-text [hi]", "wait 1020", "press-keys [F2]");
    }

    /** A key that was held for two seconds became a tap. */
    @Test
    void aKeyThatIsHeldIsHeldForAsLong() {
        for (String key : List.of("F9", "W")) {
            key(key, true);
            for (int i = 0; i < 4; i++) { // The keyboard repeats it.
                recording.add(new Input.Typed(key.equals("W") ? 'w' : Character.MAX_VALUE, now), LAYOUT);
                rest(500);
            }
            key(key, false).rest(100);
        }
        for (Pauses pauses : List.of(Pauses.KEPT, Pauses.SQUEEZED, Pauses.DROPPED)) {
            assertThat(steps(pauses, Clicks.WINDOW)).containsExactly("hold-keys [F9]", "wait 2000",
                    "let-go-keys [F9]", "hold-keys [W]", "wait 2000", "let-go-keys [W]");
        }
    }

    @Test
    void aChordAndAModifierAreHeldTooAndAModifierWhileItIsClicked() {
        key("Alt", true).key("Tab", true).rest(1000).key("Tab", false).key("Alt", false).rest(100);
        key("Ctrl", true).rest(800).key("Ctrl", false).rest(100);
        key("Shift", true).rest(50).button("left", true, 110, 60).rest(20).button("left", false, 110, 60).key("Shift",
                false);
        assertThat(steps(Pauses.DROPPED, Clicks.POINTER)).containsExactly("hold-keys [Alt+Tab]", "wait 1000",
                "let-go-keys [Alt+Tab]", "hold-keys [Ctrl]", "wait 800", "let-go-keys [Ctrl]", "hold-keys [Shift]",
                "click [left, pointer]", "let-go-keys [Shift]");
    }

    @Test
    void aButtonOfThePointerThatIsHeldIsHeld() {
        button("left", true, 110, 60).rest(1500).button("left", false, 110, 60);
        assertThat(steps(Pauses.DROPPED, Clicks.POINTER)).containsExactly("button-down [left, pointer]", "wait 1500",
                "button-up [left, pointer]");
    }
}
