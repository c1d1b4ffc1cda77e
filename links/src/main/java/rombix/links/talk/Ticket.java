package rombix.links.talk;

import org.jspecify.annotations.Nullable;
import rombix.core.event.Gears;
import rombix.core.twin.Order;
import rombix.links.link.GearReport;

/** Reports on an order of the deck: when it went out, what it waited behind, and its result. */
final class Ticket implements SendQueue.Done {
    private final GearReport report;
    private final long number;
    private volatile long wiredNanos;
    private volatile String waited = "";

    Ticket(GearReport report, long number) {
        this.report = report;
        this.number = number;
        this.wiredNanos = report.now();
    }

    @Override
    public void wired(int which, Order.Outgoing packet, String behind) {
        if (which == 0) {
            wiredNanos = report.now();
            waited = behind;
        }
        report.made(number, which, packet);
    }

    @Override
    public void done(@Nullable String fault) {
        if (fault == null) {
            report.sent(number, wiredNanos, waited);
        } else if (number != Gears.NO_ANSWER) {
            report.failed(number, fault);
        }
    }
}
