package rombix.links.link;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.util.ArrayList;
import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Twin;
import rombix.core.engine.Status.Phase;
import rombix.core.engine.Status.Reason;
import rombix.core.engine.Status;
import rombix.core.traffic.WhyNot.Stage;
import rombix.core.traffic.WhyNot.Verdict;
import rombix.core.traffic.WhyNot;
import rombix.core.trust.Redactor;
import rombix.core.value.Visible;

/**
 * Walks the whole way to a gear: its address, its name, the network, its port, TLS, the login, whether it answers, and
 * whether its readings come. The first that fails ends it. What the link has met by itself counts for the last ones.
 */
public final class WayThere {
    private static final int PATIENCE_MILLIS = 3000;

    private final Twin twin;
    private final LinkType type;
    private final Target target;
    private final Status status;
    private final boolean read;
    private final List<Stage> stages = new ArrayList<>();
    private boolean ended;

    /** @param read whether any of its readings has come since it answers */
    private WayThere(Twin twin, LinkType type, Target target, Status status, boolean read) {
        this.twin = twin;
        this.type = type;
        this.target = target;
        this.status = status;
        this.read = read;
    }

    /** Walks it now. It may take some seconds: not on the conductor's or the interface's thread. */
    public static WhyNot walk(GearReport report, LinkType type, Target target) {
        WayThere walk = new WayThere(report.twin(), type, target, report.status(), report.read());
        walk.go();
        return new WhyNot(walk.stages.stream().map(s -> new Stage(s.what(), s.verdict(), clean(s.words()), clean(s
                .next()))).toList());
    }

    private static String clean(String text) {
        return Visible.line(Redactor.PROCESS.clean(text));
    }

    private void go() {
        String wrong = twin.protocol().wrongAddress(target.address());
        stage("Where it is", wrong == null ? Verdict.GOOD : Verdict.FAILED, wrong == null
                ? "at " + target.address()
                : wrong, wrong == null ? "" : "Set its address in the gear's window, or choose it under Found here.");
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
            stage("Its name", Verdict.UNTRIED, "", "");
            stage("Its port", Verdict.UNTRIED, "", "");
            return;
        }
        InetSocketAddress at = target.hostPort();
        try {
            InetSocketAddress known = HostPort.resolved(at);
            good("Its name", HostPort.isNumeric(at)
                    ? "it is a number, nobody has to be asked"
                    : "“" + at.getHostString() + "” is " + known.getAddress().getHostAddress());
            if (type.connects(target)) {
                connection(at, known);
            } else {
                datagrams();
            }
        } catch (IOException e) {
            stage("Its name", Verdict.FAILED, "nobody here knows a computer “" + at.getHostString() + "”",
                    "Check how it is written, or give its number, such as 192.168.1.20. Is this computer on the right network?");
            stage("Its port", Verdict.UNTRIED, "", "");
        }
    }

    private void connection(InetSocketAddress at, InetSocketAddress known) {
        try (Socket plain = new Socket()) {
            plain.connect(known, PATIENCE_MILLIS);
            good("Its port", "something listens at port " + at.getPort());
        } catch (ConnectException e) {
            stage("Its port", Verdict.FAILED, "the computer is there, but nothing listens at port " + at.getPort(),
                    "Start the program there, switch its remote control on, or check the port.");
        } catch (SocketTimeoutException e) {
            stage("Its port", Verdict.FAILED, "nothing answers at " + HostPort.words(at),
                    "Is it switched on, and on the same network? A firewall may keep it back.");
        } catch (IOException e) {
            stage("Its port", Verdict.FAILED, "there is no way to " + at.getHostString(),
                    "Is this computer on the network that the gear is on?");
        }
        tls();
    }

    private void tls() {
        if (target.link().tls() == null) {
            stage("TLS", Verdict.NOTHING, "not asked for", "");
            return;
        }
        if (ended) {
            stage("TLS", Verdict.UNTRIED, "", "");
            return;
        }
        try {
            target.connect(PATIENCE_MILLIS).close();
            good("TLS", "agreed on, and its certificate is taken");
        } catch (Refused e) {
            stage("TLS", Verdict.FAILED, String.valueOf(e.getMessage()), e.hint());
        } catch (IOException e) {
            stage("TLS", Verdict.FAILED, String.valueOf(e.getMessage()), "Check the port, or switch TLS off.");
        }
    }

    private void datagrams() {
        if (status.reason() == Reason.NOTHING_LISTENS) {
            stage("Its port", Verdict.FAILED, "the computer says that nothing listens there",
                    "Start the program there, or check the port.");
        } else {
            stage("Its port", Verdict.NOTHING, "is not asked for an answer over this wire", "");
        }
    }

    private void port() {
        boolean there = status.phase() != Phase.OFF;
        stage("Its port", there ? Verdict.GOOD : Verdict.FAILED, there
                ? "“" + target.address() + "” is here"
                : status
                        .words(),
                there
                        ? ""
                        : next(
                                "Plug it in. If another program has the port, end that."));
    }

    private void login() {
        if (!type.secures() || target.link().user() == null && target.link().secret() == null && !refused()) {
            stage("Login", Verdict.NOTHING, type.secures() ? "none is set" : "there is none on this wire", "");
            return;
        }
        try {
            target.secret();
        } catch (Refused e) {
            stage("Login", Verdict.FAILED, String.valueOf(e.getMessage()), e.hint());
            return;
        }
        if (refused()) {
            stage("Login", Verdict.FAILED, status.words(), next("Check the user and the secret in the gear's window."));
        } else {
            stage("Login", status.sends() ? Verdict.GOOD : Verdict.NOTHING, status.sends()
                    ? "it lets us in"
                    : "not come so far", "");
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
            case READY -> good("It answers", status.words());
            case SILENT ->
                stage("It answers", Verdict.FAILED, "what is sent goes out, but nothing comes back: " + status
                        .words(), next("Does it send its answers to this computer, and to which port?"));
            case CONNECTING -> stage("It answers", Verdict.FAILED, "not yet: it is being tried", "Wait a moment.");
            case OFF -> stage("It answers", Verdict.FAILED, status.words(), next(
                    "Does it speak " + type.title() + " there? Its manual says which port is for what."));
        }
    }

    private void readings() {
        boolean reports = twin.card().readings().stream().anyMatch(r -> r.arrives().containsKey(twin.protocol()));
        if (!reports) {
            stage("Its readings", Verdict.NOTHING, "its card reads nothing from it", "");
        } else if (read) {
            good("Its readings", "come");
        } else {
            stage("Its readings", Verdict.FAILED, status.ignored() > 0
                    ? "it says something, but not what its card expects: " + status.ignored() + " ignored"
                    : "none has come yet",
                    "Work it by hand and look at its traffic: it may say the same in other words. The card sheet listens.");
        }
    }
}
