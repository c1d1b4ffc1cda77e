package rombix.links.link;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.util.ArrayList;
import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.event.Cause.Reason;
import rombix.core.event.Status;
import rombix.core.event.Status.Phase;
import rombix.core.traffic.WhyNot;
import rombix.core.traffic.WhyNot.Stage;
import rombix.core.traffic.WhyNot.Verdict;
import rombix.core.trust.Redactor;
import rombix.core.twin.Twin;
import rombix.core.value.Visible;

/**
 * Tests the connection to a gear step by step: address, name lookup, port, TLS, login, response, readings. The first step
 * that fails ends it. The last ones go by what the link has met.
 */
public final class ConnectionTest {
    private static final int PATIENCE_MILLIS = 3000;
    private static final String ADDRESS = "Address";
    private static final String NAME = "Name lookup";
    private static final String PORT = "Port";
    private static final String TLS = "TLS";
    private static final String LOGIN = "Login";
    private static final String RESPONSE = "Response";
    private static final String READINGS = "Readings";

    private final Twin twin;
    private final LinkType type;
    private final Target target;
    private final Status status;
    private final boolean read;
    private final List<Stage> stages = new ArrayList<>();
    private boolean ended;

    /** @param read whether any of its readings has come since it answers */
    private ConnectionTest(Twin twin, LinkType type, Target target, Status status, boolean read) {
        this.twin = twin;
        this.type = type;
        this.target = target;
        this.status = status;
        this.read = read;
    }

    /** Walks it now. It may take some seconds: not on the conductor's or the interface's thread. */
    public static WhyNot walk(GearReport report, LinkType type, Target target) {
        ConnectionTest walk = new ConnectionTest(report.twin(), type, target, report.status(), report.read());
        walk.go();
        return new WhyNot(walk.stages.stream().map(s -> new Stage(s.what(), s.verdict(), clean(s.words()), clean(s
                .next()))).toList());
    }

    private static String clean(String text) {
        return Visible.line(Redactor.PROCESS.clean(text));
    }

    private void go() {
        String wrong = twin.protocol().wrongAddress(target.address());
        stage(ADDRESS, wrong == null ? Verdict.GOOD : Verdict.FAILED, wrong == null ? target.address() : wrong,
                wrong == null ? "" : "Set the address, or choose the gear under Discovered.");
        Reach reach = twin.protocol().descriptor().reach();
        if (reach == Reach.NETWORK && target.address().contains(":") || reach == Reach.EITHER && target.address()
                .contains(":")) {
            network();
        } else if (reach != Reach.NETWORK) {
            port();
        }
        login();
        answers();
        readings();
    }

    private void stage(String what, Verdict verdict, String words, String next) {
        stages.add(ended ? new Stage(what, Verdict.UNTRIED, "", "") : new Stage(what, verdict, words, next));
        ended |= verdict == Verdict.FAILED;
    }

    private void good(String what, String words) {
        stage(what, Verdict.GOOD, words, "");
    }

    private void network() {
        if (ended) {
            stage(NAME, Verdict.UNTRIED, "", "");
            stage(PORT, Verdict.UNTRIED, "", "");
            return;
        }
        InetSocketAddress at = target.hostPort();
        try {
            InetSocketAddress known = HostPort.resolved(at);
            good(NAME, HostPort.isNumeric(at)
                    ? "not needed: numeric address"
                    : "“" + at.getHostString() + "” is " + known.getAddress().getHostAddress());
            if (type.connects(target)) {
                connection(at, known);
            } else {
                datagrams();
            }
        } catch (IOException e) {
            stage(NAME, Verdict.FAILED, "no computer named “" + at.getHostString() + "” was found",
                    "Check the spelling, or use its IP address, such as 192.168.1.20. Is this computer on the right network?");
            stage(PORT, Verdict.UNTRIED, "", "");
        }
    }

    private void connection(InetSocketAddress at, InetSocketAddress known) {
        try (Socket plain = new Socket()) {
            plain.connect(known, PATIENCE_MILLIS);
            good(PORT, "port " + at.getPort() + " is open");
        } catch (ConnectException e) {
            stage(PORT, Verdict.FAILED, "the host is up, but nothing is listening on port " + at.getPort(),
                    "Start the program there, turn its remote control on, or check the port.");
        } catch (SocketTimeoutException e) {
            stage(PORT, Verdict.FAILED, "no answer from " + HostPort.words(at),
                    "Check that it is switched on and on the same network. A firewall may be blocking it.");
        } catch (IOException e) {
            stage(PORT, Verdict.FAILED, "no route to " + at.getHostString(),
                    "Check that this computer is on the same network as the gear.");
        }
        tls();
    }

    private void tls() {
        if (target.link().tls() == null) {
            stage(TLS, Verdict.NOTHING, "not used", "");
            return;
        }
        if (ended) {
            stage(TLS, Verdict.UNTRIED, "", "");
            return;
        }
        try {
            target.connect(PATIENCE_MILLIS).close();
            good(TLS, "encrypted; the certificate is accepted");
        } catch (Refused e) {
            stage(TLS, Verdict.FAILED, String.valueOf(e.getMessage()), e.hint());
        } catch (IOException e) {
            stage(TLS, Verdict.FAILED, String.valueOf(e.getMessage()), "Check the port, or turn TLS off.");
        }
    }

    private void datagrams() {
        if (status.reason() == Reason.NOTHING_LISTENS) {
            stage(PORT, Verdict.FAILED, "the host is up, but nothing is listening on that port",
                    "Start the program there, or check the port.");
        } else {
            stage(PORT, Verdict.NOTHING, "can't be checked over UDP", "");
        }
    }

    private void port() {
        boolean there = status.phase() != Phase.OFF;
        stage(PORT, there ? Verdict.GOOD : Verdict.FAILED, there
                ? "“" + target.address() + "” is connected"
                : status
                        .words(),
                there
                        ? ""
                        : next(
                                "Plug it in. If another program is using the port, close it."));
    }

    private void login() {
        if (!type.secures() || target.link().user() == null && target.link().secret() == null && !refused()) {
            stage(LOGIN, Verdict.NOTHING, type.secures() ? "none set" : "not supported by this protocol", "");
            return;
        }
        try {
            target.secret();
        } catch (Refused e) {
            stage(LOGIN, Verdict.FAILED, String.valueOf(e.getMessage()), e.hint());
            return;
        }
        if (refused()) {
            stage(LOGIN, Verdict.FAILED, status.words(), next("Check the user and the secret in the gear's window."));
        } else {
            stage(LOGIN, status.sends() ? Verdict.GOOD : Verdict.NOTHING, status.sends()
                    ? "accepted"
                    : "not reached", "");
        }
    }

    /** Whether the link was told that we are not welcome. */
    private boolean refused() {
        return status.phase() == Phase.OFF && (status.reason() == Reason.LOGIN_REFUSED || status
                .reason() == Reason.SECRET_MISSING);
    }

    private String next(String otherwise) {
        return status.hint().isBlank() ? otherwise : status.hint();
    }

    private void answers() {
        switch (status.phase()) {
            case READY -> good(RESPONSE, status.words());
            case SILENT ->
                stage(RESPONSE, Verdict.FAILED, "commands go out, but nothing comes back: " + status
                        .words(),
                        next("Check that the gear sends its replies to this computer and to the right port."));
            case CONNECTING -> stage(RESPONSE, Verdict.FAILED, "still connecting", "Wait a moment, then try again.");
            case OFF -> stage(RESPONSE, Verdict.FAILED, status.words(), next(
                    "Check that it speaks " + type.title() + " on that port; its manual lists the ports."));
        }
    }

    private void readings() {
        boolean reports = twin.card().readings().stream().anyMatch(r -> r.arrives().containsKey(twin.protocol()));
        if (!reports) {
            stage(READINGS, Verdict.NOTHING, "doesn't report; values shown are as sent", "");
        } else if (read) {
            good(READINGS, "received");
        } else {
            stage(READINGS, Verdict.FAILED, status.ignored() > 0
                    ? "messages arrive, but none match the card: " + status.ignored() + " ignored"
                    : "none received yet",
                    "Operate the gear by hand and watch its traffic. If its messages differ from the card, edit the card.");
        }
    }
}
