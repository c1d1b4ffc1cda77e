package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import rombix.core.store.BoardFile;

final class RigTest {
    /** Symptom: an edit of one piece of gear drew the whole rack anew, with all of its rows. */
    @Test
    void anEditOfOnePieceOfGearKeepsTheTwinsOfAllOthers() throws Exception {
        Rig before = BoardFile.read(Path.of("../demo/star-night.json"));
        List<Gear> gear = before.board().gear().stream()
                .map(g -> g.id().equals("desk") ? g.withName("Sound desk") : g).toList();
        Rig after = before.with(before.board().withGear(gear));
        assertThat(after.twins().keySet()).containsExactlyElementsOf(before.twins().keySet());
        after.twins().forEach((id, twin) -> {
            if (id.equals("desk")) {
                assertThat(twin.title()).isEqualTo("Sound desk");
            } else {
                assertThat(twin).isSameAs(before.twins().get(id));
            }
        });
    }
}
