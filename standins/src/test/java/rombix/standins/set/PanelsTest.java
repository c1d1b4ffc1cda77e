package rombix.standins.set;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.standins.Received;
import rombix.standins.set.Panel.Choice;
import rombix.standins.set.Panel.Control;
import rombix.standins.set.Panel.Level;
import rombix.standins.set.Panel.Switch;

@Timeout(300)
@ResourceLock("MIDI ports")
class PanelsTest {
    private static Control control(Panel panel, String id) {
        return panel.controls().stream().filter(c -> c.id().equals(id)).findFirst().orElseThrow();
    }

    /** Works a control, and sees that it is so. */
    private static void work(Panel panel, Control c) {
        String as = panel.title() + ", " + c.id();
        switch (c) {
            case Switch s -> {
                panel.work(s.id(), String.valueOf(!s.on()));
                assertThat(((Switch) control(panel, s.id())).on()).as(as).isNotEqualTo(s.on());
            }
            case Level l -> {
                double to = Math.rint((l.min() + l.max()) / 2);
                panel.work(l.id(), String.valueOf(to));
                assertThat(((Level) control(panel, l.id())).now()).as(as).isEqualTo(to);
            }
            case Choice o -> {
                String other = o.all().keySet().stream().filter(x -> !x.equals(o.now())).findFirst().orElseThrow();
                panel.work(o.id(), other);
                assertThat(((Choice) control(panel, o.id())).now()).as(as).isEqualTo(other);
            }
            case Panel.Press _,Panel.Said _ -> panel.work(c.id(), "hello");
            case Panel.Seen s -> assertThat(s.now()).as(as).isNotEmpty();
        }
    }

    @Test
    void whatIsWorkedByHandIsSoAndNoControlLeavesItsPlace() throws Exception {
        try (StandIns all = StandIns.onFreePorts()) {
            List<Panel> panels = Panels.of(all);
            assertThat(panels).hasSize(12).extracting(Panel::title).doesNotHaveDuplicates();
            for (Panel panel : panels) {
                List<Control> before = panel.controls();
                assertThat(before).as(panel.title()).isNotEmpty().extracting(Control::id).doesNotHaveDuplicates();
                if (!panel.title().contains("projector")) { // Its lamp has to be warm first.
                    before.forEach(c -> work(panel, c));
                }
                assertThat(panel.controls().stream().map(Control::id)).isEqualTo(before.stream().map(Control::id)
                        .toList());
            }
            assertThat(all.chat().messages()).contains("hello");
        }
    }

    @Test
    void aProjectorIsWorkedAsItsLampLetsIt() throws Exception {
        try (StandIns all = StandIns.onFreePorts()) {
            Panel panel = Panels.of(all).stream().filter(p -> p.title().contains("projector")).findFirst()
                    .orElseThrow();
            panel.work("INPUT", "DECK");
            assertThat(((Choice) control(panel, "INPUT")).now()).as("not while it is dark").isEqualTo("SKY");
            panel.work("POWER", "true");
            assertThat(all.projector().power()).isEqualTo("WARMING");
            panel.work("SHUTTER", "true");
            assertThat(all.projector().shutter()).isTrue();
        }
    }

    @Test
    void theLastThatCameIsKeptAndNoMore() {
        Received came = new Received();
        for (int i = 0; i < 100; i++) {
            came.add("message " + i + "\n");
        }
        assertThat(came.count()).isEqualTo(100);
        assertThat(came.lines()).hasSize(40);
        assertThat(came.lines().getFirst()).endsWith("message 99");
    }
}
