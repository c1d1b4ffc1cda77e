package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Fields that a newer Rombix has written, at any place of a board, are still there when this one has saved it. */
class UnknownFieldsTest {
    private static final Path FILE = Path.of("b.json");
    /** Fields whose objects map ids to things: a new name there is a new thing, not an unknown field. */
    private static final Set<String> MAPS = Set.of("with", "on", "lists", "settings", "set", "lamps", "args");

    private static void addEverywhere(JsonNode node, String field) {
        if (node instanceof ObjectNode object) {
            object.properties().forEach(e -> addEverywhere(e.getValue(), e.getKey()));
            if (!MAPS.contains(field) && !object.has("formula")) {
                object.putObject("x-newer").put("kept", field);
            }
        } else {
            node.forEach(item -> addEverywhere(item, field));
        }
    }

    private static void nothingIsLost(String text) throws BadFile {
        JsonNode newer = Json.MAPPER.readTree(text);
        addEverywhere(newer, "");
        Board board = BoardFile.parse(FILE, Json.MAPPER.writeValueAsString(newer), CardLibrary.shipped());
        Set<String> lost = places(newer, "", new TreeSet<>());
        lost.removeAll(places(Json.MAPPER.readTree(BoardFile.format(board)), "", new TreeSet<>()));
        assertThat(lost).isEmpty();
    }

    /** Where unknown fields stand in a tree, as JSON pointers. */
    private static Set<String> places(JsonNode node, String pointer, Set<String> to) {
        if (node.has("x-newer")) {
            to.add(pointer);
        }
        node.properties().forEach(e -> places(e.getValue(), pointer + "/" + e.getKey(), to));
        for (int i = 0; node.isArray() && i < node.size(); i++) {
            places(node.get(i), pointer + "/" + i, to);
        }
        return to;
    }

    @Test
    void theDemoBoardKeepsThem() throws BadFile, IOException {
        String text = Files.readString(Path.of("../demo/star-night.json"));
        nothingIsLost(BoardFile.format(BoardFile.parse(FILE, text, CardLibrary.shipped())));
    }

    @Property(tries = 60)
    void aBoardWithEveryKindOfStepAndTriggerKeepsThem(@ForAll("boards") Board board) throws BadFile {
        nothingIsLost(BoardFile.format(board));
    }

    @Provide
    Arbitrary<Board> boards() {
        return new EveryStepRoundTripTest().boards();
    }
}
