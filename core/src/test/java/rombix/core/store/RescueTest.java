package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;

class RescueTest {
    /** The journal of the demo board broke off in the middle of a fade's arguments: all of it was lost. */
    @Test
    void whereverAJournalBreaksOffWhatStandsBeforeIsKept() throws Exception {
        Path file = Path.of("../demo/star-night.json");
        Rig whole = BoardFile.read(file);
        Board edited = Edits.button(whole.board(), "doors-open", b -> b.withName("Doors wide open"));
        String text = Json.MAPPER.writeValueAsString(edited);
        assertThat(Files.exists(file)).isTrue();
        int from = text.indexOf("\"record\"", text.indexOf("Doors wide open"));
        for (int cut = from + 1; cut < text.length(); cut += 997) {
            assertThat(Rescue.of(file, text.substring(0, cut), whole)).as("cut at " + cut).hasValueSatisfying(
                    b -> assertThat(b.button("doors-open").orElseThrow().name()).isEqualTo("Doors wide open"));
        }
    }
}
