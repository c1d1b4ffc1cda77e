package rombix.app.cli.option;

import java.nio.file.Path;
import java.util.List;
import rombix.core.trust.Ask;

/** Prints that a board is a guest, and what it asks for. */
public final class GuestWords {
    private GuestWords() {
    }

    public static String of(Path file, String board, List<Ask> missing) {
        StringBuilder all = new StringBuilder(
                "“%s” is a guest on this computer, so it opens for viewing only and isn't connected to its gear. It asks for:%n"
                        .formatted(board));
        Ask.Kind kind = null;
        for (Ask ask : missing) {
            if (ask.kind() != kind) {
                kind = ask.kind();
                all.append("  ").append(kind.title()).append(System.lineSeparator());
            }
            all.append("    %-20s %s%n".formatted(ask.name(), ask.words()));
        }
        return all.append("“rombix open --trust %s” trusts it.%n".formatted(file)).toString();
    }
}
