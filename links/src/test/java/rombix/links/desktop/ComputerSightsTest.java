package rombix.links.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.sight.Sights;
import rombix.core.value.Value;
import rombix.links.desktop.machine.PngPixels;
import rombix.standins.booth.Booth;

/** What a computer as gear sees on its screen. */
@Timeout(300)
class ComputerSightsTest extends ComputerUnderTest {
    @Test
    void aPictureIsFoundAndClickedWhereverItsWindowIs() throws Exception {
        sights();
        assertThat(done("click", with("place", next("everywhere alike 95 take sole at middle wait 0")))).isEqualTo(
                "sent");
        assertThat(booth.look().slides()).isEqualTo(1);
        done("place-window", with("app", "booth", "x", 640, "y", 300, "width", 360, "height", 420));
        assertThat(done("click", with("place", next("window booth alike 100 take closest at 2 3 wait 0")))).isEqualTo(
                "sent");
        assertThat(booth.look().slides()).isEqualTo(2);
        assertThat(booth.look().pointerX()).isEqualTo(640 + 80 + 2);
        assertThat(done("click", with("place", next("region 1 0 0 300 300 alike 95 take sole at middle wait 0"))))
                .isEqualTo("Booth: “Next” isn't on the screen there");
    }

    @Test
    void aPictureThatIsThereOftenIsAFaultThatSaysSoAndEachOfThemIsClickedInTurn() throws Exception {
        Path file = folder.resolve("hole.png");
        PngPixels.write(screen().part(346, 402, 9, 8), file.toString());
        Sights sights = new Sights(Map.of("phole", Base64.getEncoder().encodeToString(Files.readAllBytes(file))),
                Map.of(),
                Map.of("phole", "Hole"), Set.of());
        link.sights(() -> sights);
        String how = "picture phole in window booth alike 100 take %s at middle wait 0";
        assertThat(done("look-for", with("place", how.formatted("sole"), "until", "come"))).matches(
                "Booth: “Hole” was found \\d+ times: choose in the step which one to use");
        assertThat(done("click", with("place", how.formatted("each")))).isEqualTo("sent");
        assertThat(booth.look().clips()).isGreaterThan(2);
        for (String which : List.of("each", "first")) {
            done("click", with("place", how.formatted(which)));
            double x = booth.look().pointerX();
            double y = booth.look().pointerY();
            done("click", with("place", how.formatted("closest")));
            assertThat(List.of(booth.look().pointerX(), booth.look().pointerY())).as("nearest to the pointer, after %s",
                    which).extracting(Number::doubleValue).containsExactly(x, y);
        }
        assertThat(done("click", with("place", how.formatted("best")))).isEqualTo("sent");
    }

    @Test
    void aPictureIsWaitedForUntilItComesAndUntilItGoes() throws Exception {
        sights("pnext");
        soon(() -> Value.of(true).equals(now("seen/pnext")));
        done("minimise", with("app", "booth"));
        soon(() -> Value.of(false).equals(now("seen/pnext")));
        assertThat(done("look-for", with("place", next("everywhere alike 95 take sole at middle wait 0")))).isEqualTo(
                "Booth: “Next” isn't on the screen");
        link.close();
        booth.close();
    }

    @Test
    void aColourIsReadAndAPictureOfAWindowIsKept() throws Exception {
        assertThat(done("read-colour", with("place", "screen 1 at 5 5"))).isEqualTo("sent");
        soon(() -> Value.of("#101614").equals(now("colour")));
        Path file = folder.resolve("new/shown 21:30.png");
        assertThat(done("take-picture", with("of", "place", "place", "window booth from upper-left at 9 9", "file", file
                .toString()))).isEqualTo("sent");
        var image = javax.imageio.ImageIO.read(file.toFile());
        assertThat(image.getWidth()).isEqualTo(360);
        assertThat(image.getHeight()).isEqualTo(420);
    }
}
