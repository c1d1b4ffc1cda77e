package rombix.app.show;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rombix.core.store.WholeFile;

/** The demo board that ships, and the copy of it that a person works on. */
public final class DemoBoard {
    private static final String NAME = "star-night.json";
    private static final Pattern SOUND = Pattern.compile("\"file\": \"(sounds/[^\"]+)\"");

    private DemoBoard() {
    }

    /** The board as it ships. */
    public static String text() {
        try (InputStream in = shipped(NAME)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static InputStream shipped(String name) {
        InputStream in = DemoBoard.class.getResourceAsStream("/rombix/demo/" + name);
        if (in == null) {
            throw new IllegalStateException("“" + name + "” of the demo is missing");
        }
        return in;
    }

    /** Puts the clips that the board plays beside it, where they are not there yet. */
    private static void sounds(String board, Path folder) throws IOException {
        for (Matcher clip = SOUND.matcher(board); clip.find();) {
            Path file = folder.resolve(clip.group(1));
            if (!Files.exists(file)) {
                Files.createDirectories(file.getParent());
                try (InputStream in = shipped(clip.group(1))) {
                    WholeFile.write(file, in.readAllBytes(), WholeFile.Readers.AS_BEFORE);
                }
            }
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
            WholeFile.write(copy, text(), WholeFile.Readers.AS_BEFORE);
            WholeFile.write(asShipped, text(), WholeFile.Readers.AS_BEFORE);
        }
        sounds(text(), folder);
        return copy;
    }
}
