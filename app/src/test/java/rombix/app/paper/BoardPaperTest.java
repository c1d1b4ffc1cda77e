package rombix.app.paper;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import javax.imageio.ImageIO;
import javax.print.DocFlavor;
import javax.print.StreamPrintServiceFactory;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.app.paper.BoardPaper.Sheet;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin;

/** What stands on paper is text, and all of it is there. */
@Execution(ExecutionMode.CONCURRENT)
class BoardPaperTest {
    private static final ZonedDateTime NOW = ZonedDateTime.of(2026, 12, 5, 20, 0, 0, 0, ZoneId.of("UTC"));
    private Rig demo;

    @BeforeEach
    void board() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    private static String text(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
        }
    }

    private byte[] pdf(Rig rig, Set<Sheet> sheets, String... pages) throws IOException {
        return BoardPaper.pdf(rig, new BoardPaper.Wanted(sheets, Set.of(pages), PaperSize.A4, false),
                _ -> Twin.Readings.NONE, NOW);
    }

    @Test
    void aPageSaysOfEachButtonWhatItDoesAndWhatElsePressesIt() throws Exception {
        String doors = text(pdf(demo, EnumSet.of(Sheet.PAGES), "doors"));
        demo.page("doors").orElseThrow().buttons().stream().filter(b -> b.states().getFirst().face().label() == null)
                .forEach(b -> assertThat(doors).contains(b.name()));
        assertThat(doors).contains("Unlock Gate", "key F9", "Doors");
        assertThat(doors).contains("Show countdown", "Star Night, 5 December 2026, 1 of 1").doesNotContain("See 1.",
                ".”.");
        // What finds no room is told behind, in full.
        assertThat(text(pdf(demo, EnumSet.of(Sheet.PAGES), "booth"))).contains("See 1.", "in full",
                "Milky Way, press: Set Target of the night to Milky Way.");
    }

    @Test
    void allOtherSheetsHaveTheirTables() throws Exception {
        assertThat(text(pdf(demo, EnumSet.of(Sheet.GEAR)))).contains("Sound desk", "MIDI", "127.0.0.1:9101");
        assertThat(text(pdf(demo, EnumSet.of(Sheet.PATCH)))).contains("Universe", "Desk Key");
        assertThat(text(pdf(demo, EnumSet.of(Sheet.RUNS), "dome"))).contains("Fog burst", "0:03.0",
                "Fog fan off");
        assertThat(text(pdf(demo, EnumSet.of(Sheet.RUNS)))).contains("Run-down. Planned for 1 h 22 min.",
                "10:00 Saturn", "58 %");
    }

    /** Steps that began in the same tenth of a second stood in any order. */
    @Test
    void stepsThatBeginTogetherStandAsInTheirChain() throws Exception {
        assertThat(text(pdf(demo, EnumSet.of(Sheet.RUNS), "trouble"))).containsSubsequence("Clouded out", "One of 2",
                "Sting: Thunder", "Sting: Kettle", "Dew heaters on");
    }

    /** Faces whose label is filled in showed a dash or a question mark. */
    @Test
    void aFaceHasNoWordsThatChange() throws Exception {
        assertThat(text(pdf(demo, EnumSet.of(Sheet.PAGES), "questions"))).contains("Visitor in Press").doesNotContain(
                "— so far");
    }

    /** Icons are shapes and pictures are pictures: in the text there are no signs that nobody can read. */
    @Test
    void iconsAndPicturesAreNoText() throws Exception {
        byte[] trouble = pdf(demo, EnumSet.of(Sheet.PAGES), "trouble");
        assertThat(text(trouble).codePoints()).noneMatch(c -> Character.getType(c) == Character.PRIVATE_USE);
        try (PDDocument document = Loader.loadPDF(trouble)) {
            assertThat(document.getPage(0).getResources().getXObjectNames()).as("the picture of Clouded out")
                    .hasSize(1);
        }
    }

    @Test
    void fontsAreInTheFileAndNothingIsColoured() throws Exception {
        try (PDDocument document = Loader.loadPDF(pdf(demo, EnumSet.allOf(Sheet.class)))) {
            for (PDPage page : document.getPages()) {
                for (COSName name : page.getResources().getFontNames()) {
                    assertThat(page.getResources().getFont(name).isEmbedded()).isTrue();
                }
            }
            assertThat(document.getPage(0).getMediaBox().getWidth()).isCloseTo(841.89f, org.assertj.core.data.Offset
                    .offset(0.1f));
        }
        byte[] gear = pdf(demo, EnumSet.of(Sheet.GEAR));
        assertThat(PaperFile.sheets(gear)).isEqualTo(1);
        assertThat(PaperFile.picture(gear, 0).getWidth()).isGreaterThan(800);
    }

    /** A sign that the fonts lack ended the printing. */
    @Test
    void signsThatNoFontHasAreLeftOut() throws Exception {
        Board board = Edits.button(demo.board(), "gate", b -> b.withName("門 🚪 Gate\u0007"));
        assertThat(text(pdf(demo.with(board), EnumSet.of(Sheet.PAGES), "doors"))).contains("? ? Gate");
    }

    /** All sheets go to a printer, upright and across, as it wants them: here one that writes PostScript to a stream. */
    @Test
    void itIsPrinted() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        StreamPrintServiceFactory[] printers = StreamPrintServiceFactory.lookupStreamPrintServiceFactories(
                DocFlavor.SERVICE_FORMATTED.PAGEABLE, "application/postscript");
        Printers.print(printers[0].getPrintService(out), pdf(demo, EnumSet.of(Sheet.PAGES, Sheet.GEAR), "doors"),
                PaperSize.A4, "Night");
        String sent = out.toString(StandardCharsets.ISO_8859_1);
        assertThat(sent).startsWith("%!PS").contains("%%Page: 2 2").doesNotContain("%%Page: 3 3");
    }

    @Test
    void eachSheetCanBeAPicture(@TempDir Path folder) throws Exception {
        byte[] pdf = pdf(demo, EnumSet.of(Sheet.PAGES), "doors", "close");
        assertThat(PaperFile.save(folder.resolve("night.png"), pdf)).extracting(p -> p.getFileName().toString())
                .containsExactly("night-1.png", "night-2.png");
        assertThat(ImageIO.read(folder.resolve("night-2.png").toFile()).getWidth()).isGreaterThan(1000);
    }

    @Test
    void whereThereIsNothingToPrintItIsSaid() {
        assertThatThrownBy(() -> pdf(Rig.of(Board.empty("Nothing"), Map.of()), EnumSet.of(Sheet.GEAR, Sheet.PATCH)))
                .isInstanceOf(IOException.class).hasMessageContaining("nothing to print");
    }
}
