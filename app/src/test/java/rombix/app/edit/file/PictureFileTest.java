package rombix.app.edit.file;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.board.Board.Picture;

@Execution(ExecutionMode.CONCURRENT)
class PictureFileTest {
    @Test
    void aPictureToBeFoundKeepsEachPixelAndIsNeitherDrawnNorMadeSmaller() throws IOException {
        BufferedImage image = new BufferedImage(60, 40, BufferedImage.TYPE_INT_RGB);
        image.setRGB(59, 39, 0x123456);
        Path small = folder.resolve("next.png");
        javax.imageio.ImageIO.write(image, "png", small.toFile());
        Picture picture = PictureFile.exact(small);
        assertThat(picture.name()).isEqualTo("next");
        BufferedImage again = PictureFile.drawn(picture);
        assertThat(again.getWidth()).isEqualTo(60);
        assertThat(again.getRGB(59, 39) & 0xFFFFFF).isEqualTo(0x123456);
        Path large = folder.resolve("large.png");
        javax.imageio.ImageIO.write(new BufferedImage(900, 20, BufferedImage.TYPE_INT_RGB), "png", large.toFile());
        assertThatThrownBy(() -> PictureFile.exact(large))
                .hasMessageContaining("900 × 20 pixels; the limit is 512 each way");
        assertThatThrownBy(() -> PictureFile.exact(written("square.svg", RED_SQUARE))).hasMessageContaining(
                "no pixels");
    }

    private static final String RED_SQUARE = """
            <svg xmlns="http://www.w3.org/2000/svg" width="20" height="10"><rect width="20" height="10" fill="#ff0000"/></svg>
            """;
    @TempDir
    Path folder;

    private Path written(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private static BufferedImage plain(int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < width; x++) {
            image.setRGB(x, height / 2, Color.GREEN.getRGB());
        }
        return image;
    }

    @Test
    void anSvgIsDrawnAsLargeAsATileNeedsIt() throws IOException {
        Picture picture = PictureFile.read(written("square.svg", RED_SQUARE));
        assertThat(picture.name()).isEqualTo("square.svg");
        BufferedImage drawn = PictureFile.drawn(picture);
        assertThat(drawn).isNotNull();
        assertThat(drawn.getWidth()).isEqualTo(PictureFile.MAX_PIXELS);
        assertThat(drawn.getHeight()).isEqualTo(PictureFile.MAX_PIXELS / 2);
        assertThat(drawn.getRGB(100, 100)).isEqualTo(0xFFFF0000);
    }

    /** Found by feeding spoiled pictures: the library's reader never came to the end of such a path. */
    @Test
    @Timeout(300)
    void aPathThatGoesOnBehindItsEndTakesNeitherAllMemoryNorTheWindow() {
        String svg = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 9 9'><path d='M1 1h7v7%s'/></svg>";
        for (String end : List.of("z*/^.,:eE", "z45", "&#122;5", "\u2028")) {
            assertThat(drawn(svg.formatted(end))).isNull();
        }
        assertThat(drawn(svg.formatted("z m1 1 Z"))).isNotNull();
    }

    private static BufferedImage drawn(String svg) {
        return PictureFile.drawn(new Picture("p", "p", Base64.getEncoder().encodeToString(svg.getBytes(
                StandardCharsets.UTF_8))));
    }

    @ParameterizedTest
    @ValueSource(strings = {"png", "jpg", "gif", "bmp"})
    void rasterPicturesAreReadAndLargeOnesMadeSmaller(String kind) throws IOException {
        Path file = folder.resolve("wide." + kind);
        ImageIO.write(plain(2000, 500), kind, file.toFile());
        BufferedImage drawn = PictureFile.drawn(PictureFile.read(file));
        assertThat(drawn).isNotNull();
        assertThat(drawn.getWidth()).isEqualTo(PictureFile.MAX_PIXELS);
        assertThat(drawn.getHeight()).isEqualTo(PictureFile.MAX_PIXELS / 4);
    }

    @Test
    void theSamePictureHasTheSameIdAndIsKeptOnce() throws IOException {
        String one = PictureFile.read(written("a.svg", RED_SQUARE)).id();
        assertThat(PictureFile.read(written("b.svg", RED_SQUARE)).id()).isEqualTo(one);
        assertThat(PictureFile.read(written("c.svg", RED_SQUARE.replace("ff0000", "00ff00"))).id()).isNotEqualTo(one);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "not a picture", "<svg", "<svg><rect width='broken", "\u0089PNG\r\n\u001a\n rubbish"})
    void whatIsNoPictureIsSaidSo(String text) throws IOException {
        Path file = written("holiday.png", text);
        assertThatThrownBy(() -> PictureFile.read(file)).isInstanceOf(IOException.class).hasMessageContaining(
                "holiday.png").hasMessageContaining("PNG, JPEG, GIF, BMP or SVG");
    }

    @Test
    void rubbishOfAnyKindNeverBreaksIt() throws IOException {
        Random random = new Random(7);
        byte[] svg = RED_SQUARE.getBytes(java.nio.charset.StandardCharsets.UTF_8);
        for (int i = 0; i < 120; i++) {
            byte[] bytes = svg.clone();
            for (int k = 0; k < 1 + i % 9; k++) {
                bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
            }
            Path file = Files.write(folder.resolve("odd.svg"), bytes);
            try {
                assertThat(PictureFile.drawn(PictureFile.read(file))).isNotNull();
            } catch (IOException e) {
                assertThat(e.getMessage()).contains("odd.svg");
            }
        }
    }

    @Test
    void entitiesWhichCouldNameFilesOrGrowWithoutEndAreRefused() throws IOException {
        Path secret = written("secret.txt", "hidden words");
        Path file = written("spy.svg", """
                <!DOCTYPE svg [<!ENTITY x SYSTEM "%s">]>
                <svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&x;</text></svg>
                """.formatted(secret.toUri()));
        assertThatThrownBy(() -> PictureFile.read(file)).isInstanceOf(IOException.class);
    }

    @Test
    void aPictureWithinAnSvgIsNotFetchedFromOutside() throws IOException {
        Path outside = folder.resolve("outside.png");
        ImageIO.write(plain(50, 50), "png", outside.toFile());
        Path file = written("frame.svg",
                """
                        <svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="50" height="50">
                        <image width="50" height="50" href="%s" xlink:href="%s"/></svg>
                        """
                        .formatted(outside.toUri(), outside.toUri()));
        BufferedImage drawn = PictureFile.drawn(PictureFile.read(file));
        assertThat(drawn).isNotNull();
        for (int x = 0; x < drawn.getWidth(); x++) {
            assertThat(drawn.getRGB(x, drawn.getHeight() / 2) >>> 24).as("nothing is drawn").isZero();
        }
    }

    @Test
    void aMissingFileIsSaidSo() {
        assertThatThrownBy(() -> PictureFile.read(folder.resolve("gone.png"))).isInstanceOf(IOException.class)
                .hasMessageContaining("no longer exists");
    }

    @Test
    void dataThatCannotBeDrawnGiveNothing() {
        assertThat(PictureFile.drawn(new Picture("x", "x", "no base64!"))).isNull();
        assertThat(PictureFile.drawn(new Picture("x", "x", "AAAA"))).isNull();
    }

    private static Picture of(String svg) {
        return new Picture("x", "x", Base64.getEncoder().encodeToString(svg.getBytes(StandardCharsets.UTF_8)));
    }

    @Test
    @Timeout(300)
    void tinyDashesHoldNobodyUp() {
        assertThat(PictureFile.drawn(of("""
                <svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"><path d="M0 10 H20" stroke="#ff0000"
                 stroke-width="4" stroke-dasharray="0.000001 0.000001"/></svg>"""))).isNotNull();
    }

    @Test
    @Timeout(300)
    void dashesOnALineThatLeavesThePictureByFarHoldNobodyUp() {
        assertThat(PictureFile.drawn(
                of("""
                        <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M1 1h7v7777777777777777777777z" stroke="#ff0000"
                         stroke-dasharray="2 1"/></svg>""")))
                .isNotNull();
    }

    @Test
    @Timeout(300)
    void aPictureThatNeverComesToItsEndIsNone() {
        StringBuilder svg = new StringBuilder("""
                <svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"><defs>
                <g id="g0"><rect width="9" height="9"/></g>""");
        for (int i = 1; i < 12; i++) {
            svg.append("<g id='g%d'>%s</g>".formatted(i, "<use href='#g%d'/>".formatted(i - 1).repeat(10)));
        }
        assertThat(PictureFile.drawn(of(svg + "</defs><use href='#g11'/></svg>"))).isNull();
    }

    @Test
    void aPictureOfTooManyPixelsIsRefusedBeforeItTakesMemory() throws IOException {
        byte[] png = new ByteArrayOutputStream() {
            {
                ImageIO.write(plain(8, 8), "png", this);
            }
        }.toByteArray();
        ByteBuffer.wrap(png).putInt(16, 30_000).putInt(20, 30_000); // Its head says so; its checksum need not be right.
        Path file = Files.write(folder.resolve("vast.png"), png);
        assertThatThrownBy(() -> PictureFile.read(file)).hasMessageContaining("30000 × 30000").hasMessageContaining(
                "16 megapixels");
    }
}
