package rombix.core.store;

import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/** Versions of the board file. Migrations from older versions go here, one function a version. */
final class Formats {
    private Formats() {
    }

    /** Why a board of this format cannot be read, before anything else in it is looked at; null if it can. */
    static @Nullable String refusal(String text) {
        JsonNode format;
        try {
            format = Json.MAPPER.readTree(text).path("rombix");
        } catch (JacksonException e) {
            return null; // The reading proper says what is wrong, and where.
        }
        if (format.isMissingNode()) {
            return "this is no board: it lacks \"rombix\", the version of its format";
        }
        if (!format.isInt() || format.intValue() < 1) {
            return "\"rombix\" is the version of the file format: expected a whole number from 1";
        }
        return format.intValue() > Board.FORMAT
                ? "this board has format %d; this Rombix reads up to %d. Use a newer Rombix, the file is unchanged."
                        .formatted(format.intValue(), Board.FORMAT)
                : null;
    }
}
