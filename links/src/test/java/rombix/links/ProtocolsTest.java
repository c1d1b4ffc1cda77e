package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import rombix.core.card.Protocol;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.links.link.LinkType;

/** What the links bring: every protocol by its id, and nobody else has to know it. */
class ProtocolsTest {
    @Test
    void everyProtocolComesWithItsLink() {
        assertThat(Protocol.all()).isNotEmpty().allMatch(p -> p.descriptor() instanceof LinkType)
                .extracting(Protocol::id)
                .contains("osc", "midi", "dmx", "mqtt", "irc", "desktop");
    }

    @Test
    void theSchemaOfBoardsNamesThem() throws Exception {
        String schema = Files.readString(Path.of("../docs/board.schema.json"));
        for (Protocol p : Protocol.all()) {
            Matcher named = Pattern.compile("\"protocol\"\\s*:\\s*\\{[^}]*\"" + p.id() + "\"").matcher(schema);
            assertThat(named.find()).as(p.id()).isTrue();
        }
    }

    @Test
    void aBoardInAProtocolThatNobodySpeaksIsRefusedInWords(@org.junit.jupiter.api.io.TempDir Path folder)
            throws Exception {
        Path file = folder.resolve("b.json");
        Files.writeString(file, Files.readString(Path.of("../demo/star-night.json")).replaceFirst(
                "\"protocol\"(\\s*:\\s*)\"osc\"", "\"protocol\"$1\"smoke\""));
        assertThatThrownBy(() -> BoardFile.read(file)).isInstanceOf(BadFile.class).hasMessageContaining(
                "“smoke” is not one of artnet, desktop, dmx, http, irc, line, midi, mqtt, osc");
    }
}
