package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rombix.core.edit.Edits;
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

    @Test
    void aButtonIsFoundAfterEveryKindOfEdit() throws Exception {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Rig renamed = demo.with(Edits.button(demo.board(), "gate", b -> b.withName("Barrier")));
        assertThat(renamed.button("gate").orElseThrow().name()).isEqualTo("Barrier");
        Page first = renamed.board().pages().getFirst();
        List<Page> turned = new ArrayList<>(renamed.board().pages());
        turned.set(0, first.withButtons(first.buttons().reversed()));
        Rig reversed = renamed.with(renamed.board().withPages(turned));
        Rig without = reversed.with(reversed.board().withPages(reversed.board().pages().reversed().stream()
                .filter(p -> !p.id().equals("dome")).toList()));
        for (Rig rig : List.of(demo, renamed, reversed, without)) {
            for (Page page : rig.board().pages()) {
                page.buttons().forEach(b -> {
                    assertThat(rig.button(b.id())).containsSame(b);
                    assertThat(rig.pageOf(b.id())).containsSame(page);
                });
            }
        }
        assertThat(demo.page("dome").orElseThrow().buttons()).isNotEmpty()
                .allSatisfy(b -> assertThat(without.button(b.id()))
                        .isEmpty());
    }
}
