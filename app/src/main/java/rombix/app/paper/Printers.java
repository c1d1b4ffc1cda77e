package rombix.app.paper;

import java.awt.print.PrinterException;
import java.awt.print.PrinterJob;
import java.io.IOException;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import javax.print.DocFlavor;
import javax.print.PrintException;
import javax.print.PrintService;
import javax.print.PrintServiceLookup;
import javax.print.SimpleDoc;
import javax.print.attribute.HashPrintRequestAttributeSet;
import javax.print.attribute.PrintRequestAttributeSet;
import javax.print.attribute.standard.JobName;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.printing.PDFPageable;

/** The printers of this computer. All of it may take seconds. */
public final class Printers {
    private Printers() {
    }

    /** All printers, the default one first. */
    public static List<PrintService> all() {
        PrintService usual = PrintServiceLookup.lookupDefaultPrintService();
        return Arrays.stream(PrintServiceLookup.lookupPrintServices(null, null)).sorted(Comparator.comparing(
                (PrintService p) -> !p.equals(usual)).thenComparing(PrintService::getName)).toList();
    }

    /**
     * Prints a PDF, each sheet as it lies. A printer that takes PDF gets it as it is, as those of CUPS do; for others its
     * text and shapes are drawn anew.
     */
    public static void print(PrintService printer, byte[] pdf, PaperSize size, String name) throws IOException {
        try {
            if (printer.isDocFlavorSupported(DocFlavor.BYTE_ARRAY.PDF)) {
                PrintRequestAttributeSet about = new HashPrintRequestAttributeSet(new JobName(name, Locale.ROOT));
                about.add(size.media());
                printer.createPrintJob().print(new SimpleDoc(pdf, DocFlavor.BYTE_ARRAY.PDF, null), about);
            } else {
                draw(printer, pdf, name);
            }
        } catch (PrinterException | PrintException e) {
            throw new IOException("the printer “%s” says: %s".formatted(printer.getName(), Objects.requireNonNullElse(e
                    .getMessage(), "no")), e);
        }
    }

    private static void draw(PrintService printer, byte[] pdf, String name) throws IOException, PrinterException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PrinterJob job = PrinterJob.getPrinterJob();
            job.setJobName(name);
            job.setPrintService(printer);
            job.setPageable(new PDFPageable(document));
            job.print();
        }
    }
}
