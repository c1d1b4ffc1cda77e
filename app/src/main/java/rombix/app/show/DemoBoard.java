package rombix.app.show;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** The demo board that ships, and the copy of it that a person works on. */
public final class DemoBoard {
    private static final String NAME = "star-night.json";

    private DemoBoard() {
    }

    /** The board as it ships. */
    public static String text() {
        try (InputStream in = DemoBoard.class.getResourceAsStream("/rombix/demo/" + NAME)) {
            if (in == null) {
                throw new IllegalStateException("the demo board does not ship");
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where the person's copy is in a folder. */
    public static Path copyIn(Path folder) {
        return folder.resolve(NAME);
    }

    /**
     * The person's copy in a folder. It is made where there is none, and made anew where it was never changed or where
     * that is asked for; a changed one is then kept under another name.
     */
    public static Path copy(Path folder, boolean fresh) throws IOException {
        Files.createDirectories(folder);
        Path copy = copyIn(folder);
        Path asShipped = folder.resolve("." + NAME + ".shipped");
        Path journal = rombix.core.store.BoardFile.journalOf(copy);
        boolean untouched = Files.exists(copy) && Files.exists(asShipped) && Files.mismatch(copy, asShipped) == -1
                && !Files.exists(journal);
        if (!Files.exists(copy) || untouched || fresh) {
            if (Files.exists(copy) && !untouched) {
                Files.move(copy, folder.resolve("star-night-before.json"), StandardCopyOption.REPLACE_EXISTING);
                Files.deleteIfExists(journal);
            }
            Files.writeString(copy, text());
            Files.writeString(asShipped, text());
        }
        return copy;
    }
}
