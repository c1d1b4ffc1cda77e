package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import rombix.core.event.Mode;
import rombix.running.owner.OpenedBoard;

/** A board that types into the program in front leaves the keyboard to it, and says so. */
class KeyboardYieldTest extends AtTheWindow {
    @Override
    public void board(Path to) throws Exception {
        Files.writeString(to, """
                {"rombix": 1, "name": "Types", "gear": [
                  {"id": "pc", "name": "PC", "card": "desktop", "link": {"protocol": "desktop", "address": "here"}}],
                 "pages": [{"id": "p", "name": "P", "columns": 2, "rows": 1, "buttons": [
                  {"id": "b", "name": "B", "column": 0, "row": 0, "states": [{"id": "s", "on": {"press": [
                    {"step": "do", "gear": "pc", "command": "press-keys", "with": {"keys": "Space"}}]}}]}]}]}
                """);
    }

    @Override
    public void reached() {
        // What is there does not matter.
    }

    @Test
    void inLiveTheProgramInFrontKeepsTheKeyboardUnlessSomebodyChoosesOtherwise() {
        assertThat(find("#keyboard-yield")).isNull();
        mode(Mode.LIVE);
        assertThat(label("#keyboard-yield")).isEqualTo("Keys go to the program in front");
        assertThat(session.window().stagework().keyboard().yields()).isTrue();
        click(find("#keyboard-yield"));
        assertThat(label("#keyboard-yield")).isEqualTo("Keys go to Rombix");
        mode(Mode.BUILD);
        mode(Mode.LIVE);
        assertThat(label("#keyboard-yield")).as("it was chosen").isEqualTo("Keys go to Rombix");
    }

    @Test
    void whatWasChosenForOneBoardIsNotKeptForTheNext() throws Exception {
        mode(Mode.LIVE);
        click(find("#keyboard-yield"));
        mode(Mode.BUILD);
        Path other = folder.resolve("other.json");
        board(other);
        OpenedBoard read = OpenedBoard.read(other);
        robot.interact(() -> bench().take(read));
        mode(Mode.LIVE);
        assertThat(label("#keyboard-yield")).isEqualTo("Keys go to the program in front");
    }
}
