package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.util.List;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;

/** Sound files that are dropped, and what a button plays. */
class SoundsTest extends AtTheWindow {
    private static List<File> sounds(String... names) {
        return Stream.of(names).map(n -> new File("../demo/sounds/" + n).getAbsoluteFile()).toList();
    }

    private void drop(List<File> files, double column, double row) {
        robot.interact(() -> {
            var page = session.window().page();
            var at = page.localToScene(page.getWidth() * column, page.getHeight() * row);
            page.dropping().files(files, at.getX(), at.getY());
        });
    }

    private rombix.core.board.Button newest() {
        return bench().page().buttons().getLast();
    }

    @Test
    void aSoundFileDroppedOnAnEmptyCellIsAButtonThatPlaysIt() throws Exception {
        int before = bench().page().buttons().size();
        drop(sounds("star-sting.flac"), 0.93, 0.35);
        soon(() -> bench().page().buttons().size() == before + 1);
        assertThat(newest().name()).isEqualTo("Star sting");
        assertThat(newest().states().getFirst().face().tally().getFirst().word()).isEqualTo("PLAYING");
        var step = (GearStep.Do) newest().states().getFirst().chain(rombix.core.chain.Gesture.PRESS).steps().getFirst();
        assertThat(step.command()).isEqualTo("play");
        var clips = bench().board().gear().stream().filter(g -> g.id().equals("player")).findFirst().orElseThrow()
                .lists().get("clip");
        assertThat(clips.getLast().fields().get("seconds")).isEqualTo(2.4);
        String made = newest().id();
        key(KeyCode.F6);
        soon(() -> session.window().model().state().readings("player").apply("level") != null);
        click(tile(made));
        soon(() -> Value.of(true)
                .equals(session.window().model().state().readings("player").apply("playing/" + clips.getLast()
                        .id())));
        soon(() -> tile(made).getAccessibleText().contains("PLAYING"));
        soon(() -> Value.of(false)
                .equals(session.window().model().state().readings("player").apply("playing/" + clips.getLast()
                        .id())));
    }

    @Test
    void severalDroppedTogetherAreOneOfThemShuffledAndOneUndoTakesThemAway() throws Exception {
        var before = bench().board();
        drop(sounds("star-sting.flac", "comet-sting.ogg", "dome-sting.mp3"), 0.93, 0.35);
        soon(() -> !bench().board().equals(before));
        var pick = (Step.Pick) newest().states().getFirst().chain(rombix.core.chain.Gesture.PRESS).steps().getFirst();
        assertThat(pick.way()).isEqualTo(Step.Pick.Way.SHUFFLED);
        assertThat(pick.choices()).hasSize(3);
        soon(() -> find("#step-0") != null);
        key(KeyCode.Z, KeyCode.CONTROL);
        soon(() -> bench().board().equals(before));
    }

    @Test
    void aFileThatIsNoSoundSaysSoAndChangesNothing() throws Exception {
        var before = bench().board();
        File bad = java.nio.file.Files.writeString(folder.resolve("notes.mp3"), "isn't a supported sound file")
                .toFile();
        drop(List.of(bad), 0.93, 0.35);
        soon(() -> stage.getScene().getRoot().lookupAll(".label").stream().anyMatch(
                n -> n instanceof javafx.scene.control.Label l && l.getText().contains("notes.mp3")));
        assertThat(bench().board()).isEqualTo(before);
    }

    @Test
    void aClipIsListenedToThroughAnotherOutputFirst() throws Exception {
        java.nio.file.Files.createDirectories(folder.resolve("sounds"));
        java.nio.file.Files.copy(java.nio.file.Path.of("../demo/sounds/star-sting.flac"), folder.resolve(
                "sounds/star-sting.flac"));
        chain("next-cue", new GearStep.Do("player", "play", java.util.Map.of("clip", Value.of("star"))));
        soon(() -> !session.window().model().state().readings("player").apply("output").toString().isEmpty());
        robot.interact(() -> bench().select("next-cue"));
        soon(() -> find("#step-0") != null);
        click(find("#step-0"));
        soon(() -> find("#listen-through") != null);
        rombix.standins.sound.Speaker phones = rombix.standins.sound.Speakers
                .of(rombix.standins.sound.Speakers.HEADPHONES);
        phones.clear();
        choose("#listen-through", rombix.standins.sound.Speakers.HEADPHONES);
        robot.interact(((Button) find("#listen"))::fire);
        soon(() -> phones.kept().length > 2000);
        robot.interact(((Button) find("#listen-stop"))::fire);
        soon(() -> Value.of(false).equals(session.window().model().state().readings("player").apply("playing/star")));
    }

    @Test
    void theDemosClipsAreNamedFromTheBoardsOwnFolder() throws Exception {
        var rig = BoardFile.read(java.nio.file.Path.of("../demo/star-night.json"));
        assertThat(java.nio.file.Path.of(rig.file("sounds/night-bed.ogg"))).exists();
        assertThat(rig.named(rig.file("sounds/night-bed.ogg"))).isEqualTo("sounds/night-bed.ogg");
    }
}
