package rombix.core.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** The last versions of a board, each as it was saved, in the folder {@code .rombix} beside it. */
public final class Versions {
    private static final int MOST = 10;
    private static final DateTimeFormatter NAME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH.mm.ss.SSS");
    private static final String END = ".json";

    private Versions() {
    }

    /** A version that was saved at a moment of this computer's clock. */
    public record Version(Path file, LocalDateTime saved) {
    }

    /** Keeps the file as it is, before another version takes its place; those that are too many go, oldest first. */
    static void keep(Path board) throws IOException {
        if (!Files.isRegularFile(board)) {
            return;
        }
        Path folder = folder(board);
        Files.createDirectories(folder);
        LocalDateTime saved = LocalDateTime.ofInstant(Files.getLastModifiedTime(board).toInstant(), ZoneId
                .systemDefault());
        Files.copy(board, folder.resolve(NAME.format(saved) + END), StandardCopyOption.REPLACE_EXISTING,
                StandardCopyOption.COPY_ATTRIBUTES);
        List<Version> all = of(board);
        for (Version old : all.subList(Math.min(MOST, all.size()), all.size())) {
            Files.deleteIfExists(old.file());
        }
    }

    /** Those of a board, newest first. */
    public static List<Version> of(Path board) {
        try (Stream<Path> files = Files.list(folder(board))) {
            return files.map(Versions::version).flatMap(Optional::stream).sorted(Comparator.comparing(Version::saved)
                    .reversed()).toList();
        } catch (IOException e) {
            return List.of();
        }
    }

    private static Optional<Version> version(Path file) {
        String name = String.valueOf(file.getFileName());
        try {
            return name.endsWith(END)
                    ? Optional.of(new Version(file, LocalDateTime.parse(name.substring(0, name.length() - END
                            .length()), NAME)))
                    : Optional.empty();
        } catch (DateTimeParseException e) {
            return Optional.empty(); // Not one of ours.
        }
    }

    private static Path folder(Path board) {
        Path whole = board.toAbsolutePath();
        return whole.resolveSibling(".rombix").resolve(String.valueOf(whole.getFileName()));
    }
}
