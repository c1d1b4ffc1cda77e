package rombix.app.view.share;

import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javax.print.PrintService;
import org.jspecify.annotations.Nullable;
import rombix.app.paper.BoardPaper;
import rombix.app.paper.BoardPaper.Sheet;
import rombix.app.paper.PaperFile;
import rombix.app.paper.PaperSize;
import rombix.app.paper.Printers;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Rig;
import rombix.core.thread.Idle;
import rombix.core.twin.Figures;
import rombix.running.RunningDeck;
import rombix.running.state.DeckState;

/** The board on paper: what goes on it, how its first sheet looks, and the way to a file or a printer. */
public final class PaperSheet {
    private static final Executor DRAWER = Idle.executor("paper");

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
        PaperPreview preview = new PaperPreview(DRAWER);
        OutFile file = new OutFile("paper-file", desk.bench().file(), "PDF and PNG", PaperFile.ENDINGS);
        Label trouble = Styles.label("", "trouble");
        trouble.setWrapText(true);
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        Button save = Fields.plain("Save", "");
        save.setId("paper-save");
        save.setOnAction(_ -> save(file.path(), trouble));
        file.field().setOnAction(_ -> save.fire());
        ComboBox<PrintService> printer = Fields.choice("paper-printer", List.<PrintService>of(), null,
                PrintService::getName, _ -> {
                });
        printer.setPromptText("Looking for printers…");
        Button print = Fields.plain("Print", "");
        print.setId("paper-print");
        print.disableProperty().bind(printer.valueProperty().isNull());
        print.setOnAction(_ -> print(printer.getValue()));
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8, save, new HBox(print), close);
        foot.setAlignment(Pos.CENTER_RIGHT);
        Runnable draw = () -> draw(preview, foot);
        VBox box = new VBox(Space.S10, Styles.label("Print or save as PDF", "gear-name"),
                new HBox(Space.S16, options(draw, printer), preview.node()),
                Fields.named("File: .pdf, or .png for a picture of each sheet", file.node()),
                trouble, foot);
        box.setId("paper");
        draw.run();
        DRAWER.execute(() -> {
            List<PrintService> all = Printers.all();
            Platform.runLater(() -> {
                printer.getItems().setAll(all);
                printer.setPromptText("No printer found");
                printer.setDisable(all.isEmpty());
                printer.setValue(all.isEmpty() ? null : all.getFirst());
            });
        });
        desk.overlay().show(box, by, by::requestFocus);
        file.field().requestFocus();
    }

    private VBox options(Runnable draw, ComboBox<PrintService> printer) {
        return new VBox(Space.S8, Fields.heading("Sheets"),
                kind("Pages, with what their buttons do", Sheet.PAGES, draw),
                kind("Run sheets: what happens when", Sheet.RUNS, draw), kind("Patch", Sheet.PATCH, draw), kind(
                        "Gear, with addresses", Sheet.GEAR, draw),
                Fields.heading("Which, and how"), Fields.check(
                        "paper-this-page", "Only the page “" + desk.bench().page().name() + "”", thisPage, on -> {
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
                        })),
                Fields.named("Printer", printer));
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
    private void draw(PaperPreview preview, HBox ways) {
        int mine = asked.incrementAndGet();
        Rig rig = desk.bench().rig();
        BoardPaper.Wanted wanted = wanted();
        DeckState state = desk.model().state();
        pdf = null;
        usable(ways, false);
        preview.tell("Drawing…");
        DRAWER.execute(() -> {
            if (mine != asked.get()) {
                return;
            }
            try {
                byte[] drawn = BoardPaper.pdf(rig, wanted, state::readings, RunningDeck.CLOCK.wall());
                int all = PaperFile.sheets(drawn);
                last(mine, () -> {
                    pdf = drawn;
                    preview.show(drawn, all);
                    usable(ways, true);
                });
            } catch (IOException | RuntimeException e) {
                last(mine, () -> preview.nothing(Figures.capitalized(e.getMessage() + ".")));
            }
        });
    }

    private void last(int mine, Runnable shown) {
        Platform.runLater(() -> {
            if (mine == asked.get()) {
                shown.run();
            }
        });
    }

    /** All ways out but the last one, which closes. */
    private static void usable(HBox ways, boolean usable) {
        ways.getChildren().subList(0, ways.getChildren().size() - 1).forEach(n -> n.setDisable(!usable));
    }

    private void save(Path to, Label trouble) {
        byte[] drawn = pdf;
        if (drawn == null) {
            return;
        }
        Thread.ofVirtual().name("paper").start(() -> {
            try {
                List<Path> written = PaperFile.save(to, drawn);
                Platform.runLater(() -> {
                    desk.overlay().close();
                    notices.accept(written.size() == 1
                            ? "“" + to.getFileName() + "” is saved."
                            : "%d pictures are saved, from “%s” on.".formatted(written.size(), written.getFirst()
                                    .getFileName()));
                });
            } catch (IOException e) {
                Platform.runLater(() -> trouble.setText("It can't be saved: " + e.getMessage()));
            }
        });
    }

    private void print(PrintService printer) {
        byte[] drawn = pdf;
        String name = desk.bench().board().name();
        PaperSize paper = size;
        if (drawn == null) {
            return;
        }
        desk.overlay().close();
        DRAWER.execute(() -> {
            try {
                Printers.print(printer, drawn, paper, name);
                Platform.runLater(() -> notices.accept("“%s” was sent to the printer “%s”.".formatted(name, printer
                        .getName())));
            } catch (IOException | RuntimeException e) {
                Platform.runLater(() -> notices.accept("It can't be printed: " + e.getMessage()));
            }
        });
    }
}
