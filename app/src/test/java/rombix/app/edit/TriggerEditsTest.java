package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.app.edit.TriggerEdits.Row;
import rombix.core.board.Schedule;
import rombix.core.board.Trigger;
import rombix.core.chain.Condition;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

class TriggerEditsTest {
    private Workbench bench;
    private TriggerEdits edits;

    @BeforeEach
    void open() throws Exception {
        bench = new Workbench(Path.of("b.json"), BoardFile.read(Path.of("../demo/star-night.json")));
        edits = new TriggerEdits(bench);
    }

    private List<Row> of(String button) {
        return edits.rows().stream().filter(r -> r.button().id().equals(button)).toList();
    }

    private String words(Trigger trigger) {
        return TriggerEdits.words(trigger, bench, _ -> Readings.NONE);
    }

    @Test
    void allStandInOneListPageByPageAndNothingIsWrongWithThem() {
        assertThat(edits.rows()).extracting(Row::page).startsWith("Doors").endsWith("Levels").containsOnly("Doors",
                "Observing", "Questions", "Booth", "Levels");
        assertThat(edits.rows()).extracting(Row::trouble).containsOnly("");
    }

    @Test
    void addedChangedMovedAndTakenOffEachCanBeUndone() {
        edits.add("gate", new Trigger.Osc("/gate"));
        edits.replace(of("gate").getLast(), new Trigger.Osc("/gate/open"));
        assertThat(of("gate")).extracting(r -> words(r.trigger())).containsExactly("/gate/open");
        edits.moveTo(of("gate").getFirst(), "tea-urn");
        assertThat(of("gate")).isEmpty();
        assertThat(of("tea-urn")).hasSize(1);
        edits.remove(of("tea-urn").getFirst());
        assertThat(of("tea-urn")).isEmpty();
        for (int i = 0; i < 4; i++) {
            bench.undo();
        }
        assertThat(bench.undoName()).isEmpty();
        assertThat(of("gate")).isEmpty();
    }

    @Test
    void ofTwoThatAreTheSameBothSaySo() {
        edits.add("gate", new Trigger.Osc("/doors/open"));
        assertThat(of("gate").getFirst().trouble()).contains("“Doors open”");
        assertThat(of("doors-open").getFirst().trouble()).contains("“Gate”");
        edits.replace(of("gate").getFirst(), new Trigger.Osc("/gate"));
        assertThat(edits.rows()).extracting(Row::trouble).containsOnly("");
    }

    @Test
    void theyAreToldWithTheNamesOfWhatTheyName() {
        assertThat(words(new Trigger.Key("Ctrl+F13", true))).isEqualTo("Ctrl+F13, everywhere");
        assertThat(words(new Trigger.Clock(Schedule.of("21:30"), true)))
                .isEqualTo("every day at 21:30, late if missed");
        assertThat(words(new Trigger.When(Trigger.When.What.GEAR_LOST, "desk"))).isEqualTo("gear is lost: Sound desk");
        assertThat(words(new Trigger.Becomes(Condition.OnReading.is("house", "locked/gate", Value.of(false)))))
                .contains("Gate",
                        "OPEN")
                .doesNotContain("house");
        for (Trigger t : bench.rig().button("host-talk").orElseThrow().triggers()) {
            assertThat(TriggerEdits.kind(t)).isIn("key", "controller");
        }
    }
}
