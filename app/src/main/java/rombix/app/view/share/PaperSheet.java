package rombix.app.view.share;

import java.awt.image.BufferedImage;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Pos;
import javafx.print.PageLayout;
import javafx.print.PageOrientation;
import javafx.print.Printer;
import javafx.print.PrinterJob;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.paper.BoardPaper;
import rombix.app.paper.BoardPaper.Sheet;
import rombix.app.paper.PaperSize;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Rig;
import rombix.core.store.WholeFile;
import rombix.running.RunningDeck;
import rombix.running.state.DeckState;

/** The board on paper: what goes on it, how its first sheet looks, and the way to a file or a printer. */
public final class PaperSheet {
    private static final double PREVIEW_WIDTH = 420;
    private static final double PREVIEW_HEIGHT = 420;

    private final Desk desk;
    private final Consumer<String> notices;
    private final Set<Sheet> sheets = EnumSet.allOf(Sheet.class);
    private final AtomicInteger asked = new AtomicInteger();
    private boolean thisPage = true;
    private boolean colours;
    private PaperSize size = Locale.getDefault().getCountry().matches("US|CA|MX|PH")
            ? PaperSize.LETTER
            : PaperSize.A4;
    private byte @Nullable [] pdf;

    public PaperSheet(Desk desk, Consumer<String> notices) {
        this.desk = desk;
        this.notices = notices;
    }

    public void open(Node by) {
        ImageView preview = new ImageView();
        preview.setPreserveRatio(true);
        preview.setFitWidth(PREVIEW_WIDTH);
        preview.setFitHeight(PREVIEW_HEIGHT);
        preview.setId("paper-preview");
        StackPane frame = new StackPane(preview);
        frame.setMinSize(PREVIEW_WIDTH, PREVIEW_HEIGHT);
        Label count = Fields.read("");
        count.setId("paper-count");
        Button save = Fields.plain("Save as PDF…", "");
        save.setId("paper-save");
        Button print = Fields.plain("Print…", "");
        print.setId("paper-print");
        Runnable draw = () -> draw(preview, count, save, print);
        save.setOnAction(_ -> choose(save));
        print.setOnAction(_ -> print(print));
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        VBox options = new VBox(Space.S8, kind("Pages, with what their buttons do", Sheet.PAGES, draw), kind(
                "Run sheets: what happens when", Sheet.RUN_SHEETS, draw), kind("The patch", Sheet.PATCH, draw),
                kind(
                        "The gear, with its addresses", Sheet.GEAR, draw),
                Fields.check("paper-this-page",
                        "Only the page “" + desk.bench().page().name() + "”", thisPage, on -> {
                            thisPage = on;
                            draw.run();
                        }),
                Fields.check("paper-colours", "In the colours of the buttons", colours, on -> {
                    colours = on;
                    draw.run();
                }), Fields.named("Paper", Fields.choice("paper-size", List.of(PaperSize.values()), size,
                        PaperSize::words, s -> {
                            size = s;
                            draw.run();
                        })));
        HBox foot = new HBox(Space.S8, count, save, print, close);
        foot.setAlignment(Pos.CENTER_RIGHT);
        VBox box = new VBox(Space.S10, Styles.label("On paper", "gear-name"), new HBox(Space.S16, options, frame),
                foot);
        box.setId("paper");
        draw.run();
        desk.overlay().show(box, by, by::requestFocus);
        save.requestFocus();
    }

    private CheckBox kind(String words, Sheet sheet, Runnable draw) {
        return Fields.check("paper-" + sheet.name().toLowerCase(Locale.ROOT).replace('_', '-'), words, sheets.contains(
                sheet), on -> {
                    if (on) {
                        sheets.add(sheet);
                    } else {
                        sheets.remove(sheet);
                    }
                    draw.run();
                });
    }

    private BoardPaper.Wanted wanted() {
        return new BoardPaper.Wanted(sheets.isEmpty() ? Set.of() : EnumSet.copyOf(sheets), thisPage
                ? Set.of(desk.bench().page().id())
                : Set.of(), size, colours);
    }

    /** Draws it anew off the interface's thread; only what was asked for last is shown. */
    private void draw(ImageView preview, Label count, Button save, Button print) {
        int mine = asked.incrementAndGet();
        Rig rig = desk.bench().rig();
        BoardPaper.Wanted wanted = wanted();
        DeckState state = desk.model().state();
        save.setDisable(true);
        print.setDisable(true);
        Thread.ofPlatform().daemon().name("paper").start(() -> {
            try {
                byte[] drawn = BoardPaper.pdf(rig, wanted, state::readings, RunningDeck.CLOCK.wall());
                List<BufferedImage> all = BoardPaper.pictures(drawn);
                Platform.runLater(() -> {
                    if (mine == asked.get()) {
                        pdf = drawn;
                        preview.setImage(SwingFXUtils.toFXImage(all.getFirst(), null));
                        count.setText(all.size() == 1 ? "1 sheet" : all.size() + " sheets");
                        save.setDisable(false);
                        print.setDisable(false);
                    }
                });
            } catch (IOException e) {
                Platform.runLater(() -> {
                    if (mine == asked.get()) {
                        preview.setImage(null);
                        count.setText(String.valueOf(e.getMessage()));
                    }
                });
            }
        });
    }

    private void choose(Region by) {
        byte[] drawn = pdf;
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Save as PDF");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("PDF", "*.pdf"));
        chooser.setInitialFileName(String.valueOf(desk.bench().file().getFileName()).replaceFirst("\\.json$", "")
                + ".pdf");
        File chosen = chooser.showSaveDialog(by.getScene().getWindow());
        if (chosen != null && drawn != null) {
            save(chosen.toPath(), drawn);
        }
    }

    private void save(Path to, byte[] drawn) {
        Thread.ofVirtual().name("paper").start(() -> {
            String told;
            try {
                WholeFile.write(to, drawn, WholeFile.Readers.AS_BEFORE);
                told = "“" + to.getFileName() + "” is saved.";
            } catch (IOException e) {
                told = "The PDF can't be saved: " + e.getMessage();
            }
            String words = told;
            Platform.runLater(() -> {
                desk.overlay().close();
                notices.accept(words);
            });
        });
    }

    private void print(Region by) {
        byte[] drawn = pdf;
        PrinterJob job = Printer.getAllPrinters().isEmpty() ? null : PrinterJob.createPrinterJob();
        if (job == null || drawn == null) {
            notices.accept("There is no printer here. Save a PDF instead.");
            return;
        }
        if (!job.showPrintDialog(by.getScene().getWindow())) {
            return;
        }
        try {
            for (BufferedImage sheet : BoardPaper.pictures(drawn)) {
                boolean across = sheet.getWidth() > sheet.getHeight();
                PageLayout layout = job.getPrinter().createPageLayout(job.getJobSettings().getPageLayout().getPaper(),
                        across ? PageOrientation.LANDSCAPE : PageOrientation.PORTRAIT,
                        Printer.MarginType.HARDWARE_MINIMUM);
                ImageView view = new ImageView(SwingFXUtils.toFXImage(sheet, null));
                view.setPreserveRatio(true);
                view.setFitWidth(layout.getPrintableWidth());
                view.setFitHeight(layout.getPrintableHeight());
                job.printPage(layout, view);
            }
            job.endJob();
            desk.overlay().close();
        } catch (IOException e) {
            notices.accept("It can't be printed: " + e.getMessage());
        }
    }
}
