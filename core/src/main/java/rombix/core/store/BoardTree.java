package rombix.core.store;

import java.nio.file.Path;
import rombix.core.board.Board;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Boards and their parts as trees of JSON, for what looks at all of their members alike. */
public final class BoardTree {
    private BoardTree() {
    }

    /** A part of a board as it would stand in a file. */
    public static JsonNode of(Object part) {
        return Json.MAPPER.valueToTree(part);
    }

    /** A board as it would stand in a file; a tree of the caller's own. */
    public static ObjectNode of(Board board) {
        return Json.MAPPER.valueToTree(board);
    }

    /** A value as the text of a file. */
    public static String text(Object value) {
        return Json.ordered(value) + "\n";
    }

    /** Reads a value of a kind of its own. @param file named in errors */
    public static <T> T read(Path file, String text, Class<T> type) throws BadFile {
        return Json.read(file, text, type, false);
    }

    /**
     * A tree as a board.
     *
     * @throws BadFile where it is none
     */
    public static Board board(JsonNode tree) throws BadFile {
        return Json.read(Path.of("board.json"), Json.write(tree), Board.class, false);
    }
}
