package rombix.links.talk;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import rombix.core.card.Packet;
import rombix.core.card.Poll;
import rombix.core.event.Cause;
import rombix.core.twin.Figures;
import rombix.core.twin.Order;
import rombix.links.link.GearReport;
import rombix.links.link.Refused;

/** Says and awaits what stands at the beginning of a connection, or once more when a login has run out. */
final class Greeting {
    private static final long GREETER_MILLIS = 1000;

    private final GearReport report;
    private final Exchange exchange;

    Greeting(GearReport report, Exchange exchange) {
        this.report = report;
        this.exchange = exchange;
    }

    /**
     * Greets a connection that was just opened.
     *
     * @param stopped whether the gear had stopped answering: then it has to answer something, if only a question
     */
    void begin(Wire to, boolean stopped) throws IOException, InterruptedException {
        List<Order.Outgoing> greeting = report.twin().greeting();
        say(to, greeting.isEmpty() && stopped ? question() : greeting);
    }

    /** Greets over a connection that goes on. */
    void again(Wire to) throws IOException, InterruptedException {
        say(to, report.twin().greeting().stream().filter(p -> !p.address().equals(Talk.WAIT)).toList());
    }

    /** Whether it is one that is answered: a login, which the gear may end. */
    boolean login() {
        return report.twin().greeting().stream().anyMatch(p -> p.reply() != null);
    }

    /** Waits for a moment until a greeting has ended, and ends it. */
    static void ended(Thread greeter) {
        try {
            greeter.join(GREETER_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        greeter.interrupt();
    }

    private List<Order.Outgoing> question() {
        Stream<Packet> all = report.twin().polls().stream().map(Poll::ask).filter(p -> p.reply() != null);
        return all.flatMap(p -> report.twin().packets(p, "a poll", report.lists()).stream()).limit(1).toList();
    }

    private void say(Wire to, List<Order.Outgoing> packets) throws IOException, InterruptedException {
        for (Order.Outgoing packet : packets) {
            try {
                exchange.say(to, packet, false, false, made -> report.recordOutgoing("greeting", made));
            } catch (IOException e) {
                throw Replies.root(e.getCause()) instanceof TimeoutException && packet.reply() != null
                        ? new Refused(e, Cause.LOGIN_UNANSWERED, Figures.span(packet.reply().withinMillis()))
                        : e;
            }
        }
    }
}
