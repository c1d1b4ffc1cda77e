package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The JSON Schemas that ship say the same of boards and cards as the reader does. */
class BoardSchemaTest {
    private final Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
            .getSchema(text("../docs/board.schema.json"), InputFormat.JSON);

    private static String text(String file) {
        try {
            return Files.readString(Path.of(file));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void theDemoBoardIsOne() {
        assertThat(schema.validate(text("../demo/star-night.json"), InputFormat.JSON)).isEmpty();
    }

    @Test
    void whatTheApplicationWritesIsOne() throws BadFile {
        String written = BoardFile.format(BoardFile.read(Path.of("../demo/star-night.json")).board());
        assertThat(schema.validate(written, InputFormat.JSON)).isEmpty();
    }

    @Test
    void anUnknownStepIsNone() {
        String bad = text("../demo/star-night.json").replaceFirst("\"step\": \"do\"", "\"step\": \"dance\"");
        assertThat(schema.validate(bad, InputFormat.JSON)).isNotEmpty();
    }

    @Test
    void cardsThatShipAreWhatTheSchemaOfCardsSays() throws IOException {
        Schema cards = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12).getSchema(text(
                "../docs/card.schema.json"), InputFormat.JSON);
        try (Stream<Path> all = Stream.concat(Files.list(Path.of("src/main/resources/rombix/cards")),
                Files.list(Path.of(
                        "../docs/cookbook")))) {
            assertThat(all.toList()).hasSizeGreaterThan(30)
                    .allSatisfy(c -> assertThat(cards.validate(Files.readString(c),
                            InputFormat.JSON)).isEmpty());
        }
        assertThat(
                cards.validate("{\"card\": 1, \"id\": \"x\", \"title\": \"X\", \"commands\": [{}]}", InputFormat.JSON))
                .isNotEmpty();
    }
}
