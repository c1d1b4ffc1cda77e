package rombix.core.bundle;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.Objects;

/**
 * What is in a bundle, as {@code manifest.json} in it says.
 *
 * @param name the board's
 * @param board the file in the bundle that is the board
 * @param addresses whether its gear has the addresses that it had
 * @param files all files but this one, the board first
 * @param missing names of files that the board names and that were not there
 */
public record Manifest(@JsonProperty("rombix-bundle") int format, String name, String board, boolean addresses,
        List<Entry> files, List<String> missing) {
    /** The format that this Rombix writes, and the newest that it reads. */
    public static final int FORMAT = 1;
    /** Where it is in a bundle. */
    public static final String FILE = "manifest.json";

    /** A file: where it is in the bundle, with {@code /} between folders, how long it is, and its SHA-256 in hex. */
    public record Entry(String file, long bytes, String sha256) {
        public Entry {
            Objects.requireNonNull(file, "a file needs its name as \"file\"");
            Objects.requireNonNull(sha256, "a file needs its \"sha256\"");
        }
    }

    public Manifest {
        Objects.requireNonNull(name, "a bundle needs the \"name\" of its board");
        Objects.requireNonNull(board, "a bundle needs the file of its \"board\"");
        files = List.copyOf(Objects.requireNonNullElse(files, List.of()));
        missing = List.copyOf(Objects.requireNonNullElse(missing, List.of()));
    }
}
