package rombix.core.store;

import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonParser.NumberType;
import tools.jackson.core.JsonToken;

/** Versions of the board file. Migrations from older versions go here, one function a version. */
final class Formats {
    private Formats() {
    }

    /** Why a board of this format cannot be read, before anything else in it is looked at; null if it can. */
    static @Nullable String refusal(String text) {
        Integer format = null;
        boolean there = false;
        try (JsonParser in = Json.MAPPER.createParser(text)) {
            if (in.nextToken() != JsonToken.START_OBJECT) {
                return null; // The reading proper says what is wrong, and where.
            }
            while (!there && in.nextToken() == JsonToken.PROPERTY_NAME) {
                there = in.currentName().equals("rombix");
                JsonToken value = in.nextToken();
                if (there && value == JsonToken.VALUE_NUMBER_INT && in.getNumberType() == NumberType.INT) {
                    format = in.getIntValue();
                }
                in.skipChildren();
            }
        } catch (JacksonException e) {
            return null; // So it does here.
        }
        if (!there) {
            return "this isn't a board: the field \"rombix\" (format version) is missing";
        }
        if (format == null || format < 1) {
            return "\"rombix\" is the version of the file format: expected a whole number from 1";
        }
        return format > Board.FORMAT
                ? "this board has format %d; this Rombix reads up to %d. Use a newer Rombix, the file is unchanged."
                        .formatted(format, Board.FORMAT)
                : null;
    }
}
