package rombix.links.desktop;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import rombix.core.card.Order;
import rombix.core.engine.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Loop;

/** What is in front on this machine's desktop, looked at four times a second. */
final class DesktopLink implements Link {
    private static final long LOOK_MILLIS = 250;

    private final GearReport report;
    /** Applications that were seen; the loop's. */
    private final Set<String> seen = new TreeSet<>();
    private final Loop loop;

    DesktopLink(GearReport report) {
        this.report = report;
        loop = Loop.startOften("desktop", this::watch, report::troubled);
    }

    private void watch() throws InterruptedException {
        try (Front front = Front.open()) {
            report.ready();
            while (!loop.closed()) {
                look(front);
                Thread.sleep(LOOK_MILLIS);
            }
        } catch (Front.NoDesktop e) {
            report.status(Phase.OFF, String.valueOf(e.getMessage()),
                    "Pages and triggers that follow what is in front do nothing; the rest works.");
            loop.close();
        }
    }

    private void look(Front front) {
        Set<String> now = new TreeSet<>(seen);
        now.addAll(front.applications());
        Optional<Front.Window> window = front.now();
        window.ifPresent(w -> now.add(w.application()));
        if (seen.addAll(now)) {
            List<Value> pairs = new ArrayList<>();
            seen.forEach(a -> pairs.addAll(List.of(Value.of(a), Value.of(a))));
            report.landed("applications", pairs);
        }
        window.ifPresent(w -> {
            report.landed("front", List.of(Value.of(w.application())));
            report.landed("window", List.of(Value.of(w.title())));
        });
    }

    @Override
    public void send(long ticket, Order order) {
        report.failed(ticket, "the desktop can only be watched");
    }

    @Override
    public void close() {
        loop.close();
    }
}
