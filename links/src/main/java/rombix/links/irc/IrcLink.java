package rombix.links.irc;

import java.io.IOException;
import java.io.OutputStream;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;
import rombix.core.thread.Bounded;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.LineInput;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Reconnector;
import rombix.links.link.Refused;
import rombix.links.link.Target;
import rombix.links.link.Web;
import rombix.wire.Malformed;
import rombix.wire.irc.IrcLine;

/**
 * IRC: joins the channels that the card's packets name, sends commands, and follows what is said and what modes are
 * set. A packet goes to {@code COMMAND PARAMS}, and what it carries follows as the last parameters. What comes in has
 * the same form; a change of modes comes as one packet for each mode, {@code MODE #channel m}, which carries {@code +}
 * or {@code -}.
 */
final class IrcLink implements Link {
    private static final int CONNECT_MILLIS = 3000;
    /** How often it is looked whether the server is still there. */
    private static final int LOOK_MILLIS = 2000;
    private static final long QUIET_NANOS = TimeUnit.SECONDS.toNanos(20);
    private static final long WELCOME_NANOS = TimeUnit.SECONDS.toNanos(10);
    private static final long ANSWER_NANOS = TimeUnit.SECONDS.toNanos(4);
    private static final long SLOW_NANOS = TimeUnit.SECONDS.toNanos(30);
    private static final int LONGEST_IN = 8192;
    /** What servers put before a line that they pass on, which must have room in it, too. */
    private static final int PREFIX = 100;
    private static final String KEEP = "keep";
    private static final String NICK = "rombix";
    private static final String MODES_ARE = "324";
    private static final String WELCOME = "001";
    private static final String WRONG_PASSWORD = "464";
    private static final String LOGGED_IN = "903";
    private static final String NICK_TAKEN = "433";
    private static final String NO_MESSAGE_OF_THE_DAY = "422";

    private final GearReport report;
    private final Target target;
    private final GearPlaces places;
    private final Pacing pacing;
    private final Bounded<Outgoing> queue = new Bounded<>(1000, Bounded.Full.REFUSE);
    private final Set<String> channels = new LinkedHashSet<>();
    private final Reconnector<Socket> connected;
    private final Loop writer;
    /** Orders that the server has not answered for yet, by the token that stands behind them, oldest first. */
    private final Map<String, Waiting> waiting = Collections.synchronizedMap(new LinkedHashMap<>());
    private volatile @Nullable Socket socket;
    private volatile boolean joined;
    /** Whether it was left as it answers for no order. */
    private volatile boolean frozen;
    /** When the last whole line came. */
    private volatile long heard;
    /** The reader's. */
    private String nick = NICK;
    private long token;

    private record Outgoing(long ticket, List<String> lines, long atNanos) {
    }

    private record Waiting(long ticket, long atNanos, long wiredNanos) {
    }

    IrcLink(GearReport report, Target target) {
        this.report = report;
        this.target = target;
        this.places = new GearPlaces(report.twin(), target);
        this.pacing = new Pacing((long) places.number(Irc.PACE, 0));
        target.hostPort(); // One that makes no sense is told at once.
        report.twin().fixedArrivals().forEach(a -> {
            for (String word : a.split(" ")) {
                if (word.startsWith("#")) {
                    channels.add(word);
                }
            }
        });
        writer = Loop.start("irc-out " + report.twin().gear(), this::write, report::troubled);
        connected = new Reconnector<>(report, "irc-in", new Reconnector.Way<>() {
            @Override
            public Socket connect() throws IOException {
                return dial();
            }

            @Override
            public void serve(Socket s) throws IOException {
                try {
                    frozen = false;
                    socket = s;
                    talk(s);
                } catch (IOException e) {
                    throw frozen ? new Refused(e, Cause.STOPPED_ANSWERING) : e;
                } finally {
                    socket = null;
                    joined = false;
                    List.copyOf(waiting.keySet()).forEach(t -> answered(t, "didn't respond"));
                }
                throw new Refused(Cause.ENDED);
            }
        });
    }

    private Socket dial() throws IOException {
        target.secret(); // Where it is missing nobody is bothered.
        Socket s = target.connect(CONNECT_MILLIS);
        s.setSoTimeout(LOOK_MILLIS);
        return s;
    }

    private void talk(Socket s) throws IOException {
        nick = wanted();
        String password = target.secret();
        boolean account = places.text(Irc.LOGIN).equals(Irc.SASL);
        if (password != null && account) {
            say(s, IrcLine.of("CAP", "REQ", "sasl"));
        } else if (password != null) {
            say(s, IrcLine.of("PASS", password));
        }
        say(s, IrcLine.of("NICK", nick));
        say(s, IrcLine.of("USER", NICK, "0", "*", "Rombix"));
        LineInput in = new LineInput(s.getInputStream(), LONGEST_IN);
        long begun = System.nanoTime();
        long heard = begun;
        boolean asked = false;
        while (true) {
            if (!joined && System.nanoTime() - begun > WELCOME_NANOS) {
                throw new Refused(Cause.NOT_LET_IN);
            }
            try {
                String text = in.next();
                if (text == null) {
                    return;
                }
                heard = System.nanoTime();
                this.heard = heard;
                asked = false;
                take(s, IrcLine.decode(text));
            } catch (SocketTimeoutException e) {
                long now = System.nanoTime();
                if (asked && now - heard > QUIET_NANOS + ANSWER_NANOS) {
                    throw new Refused(e, Cause.STOPPED_ANSWERING);
                }
                if (!asked && now - heard > QUIET_NANOS) {
                    asked = true;
                    say(s, IrcLine.of("PING", KEEP));
                }
            } catch (Malformed e) {
                report.ignored(String.valueOf(e.getMessage()));
            }
        }
    }

    /** The name that we would have there. */
    private String wanted() {
        String nick = places.text(Irc.NICK);
        return !nick.isBlank() ? nick : target.user().isEmpty() ? NICK : target.user();
    }

    private void join(Socket s, String channel) throws IOException {
        String key = places.text(Irc.KEY);
        say(s, key.isBlank() ? IrcLine.of("JOIN", channel) : IrcLine.of("JOIN", channel, key));
        say(s, IrcLine.of("MODE", channel));
    }

    /** Logs in to an account before the server lets us in (SASL PLAIN, RFC 4616). */
    private void account(Socket s, IrcLine line) throws IOException {
        switch (line.command()) {
            case "CAP" -> {
                if (line.param(1).equals("ACK")) {
                    say(s, IrcLine.of("AUTHENTICATE", "PLAIN"));
                } else if (line.param(1).equals("NAK")) {
                    throw new Refused(Cause.NO_ACCOUNTS);
                }
            }
            case "AUTHENTICATE" -> {
                String secret = target.secret();
                say(s, IrcLine.of("AUTHENTICATE",
                        Base64.getEncoder()
                                .encodeToString(("\0" + target.user() + "\0" + (secret == null ? "" : secret))
                                        .getBytes(StandardCharsets.UTF_8))));
            }
            case LOGGED_IN -> say(s, IrcLine.of("CAP", "END"));
            default -> throw Web.unknown(target);
        }
    }

    private void take(Socket s, IrcLine line) throws IOException {
        switch (line.command()) {
            case "PING" -> say(s, IrcLine.of("PONG", line.param(0)));
            case "PONG" -> answered(line.params().isEmpty() ? "" : line.params().getLast(), null);
            case "CAP", "AUTHENTICATE", LOGGED_IN, "902", "904", "905", "906" -> account(s, line);
            case NICK_TAKEN -> {
                nick = wanted() + ThreadLocalRandom.current().nextInt(1000);
                say(s, IrcLine.of("NICK", nick));
            }
            case WELCOME -> {
                for (String channel : channels) {
                    join(s, channel);
                }
                joined = true;
                if (nick.equals(wanted())) {
                    report.ready();
                } else {
                    report.status(Phase.READY, Cause.READY_AS, nick, wanted());
                }
            }
            case MODES_ARE -> {
                modes(line.param(1), line.param(2));
                notAmong(line.param(1), line.param(2));
            }
            case "MODE" -> modes(line.param(0), line.param(1));
            case WRONG_PASSWORD -> throw Web.unknown(target);
            case "ERROR" -> throw new Refused(Cause.ENDED_SAYING, line.param(0));
            case "KICK" -> {
                if (line.param(1).equalsIgnoreCase(nick)) {
                    report.status(Phase.SILENT, Cause.REMOVED, line.param(0), line.nick(), line.param(2));
                    pacing.rest();
                    join(s, line.param(0));
                }
            }
            case "PRIVMSG", "NOTICE" ->
                report.landed(line.command() + " " + line.param(0), List.of(Value.of(line.param(1)),
                        Value.of(line.nick())));
            default -> {
                if (line.command().matches("[45]\\d\\d") && !line.command().equals(NO_MESSAGE_OF_THE_DAY)) {
                    refused(line);
                }
            }
        }
    }

    /** The server refuses something: the oldest order that it has not answered for, or what was asked at the start. */
    private void refused(IrcLine line) {
        String about = line.params().size() > 2 ? line.param(1) + ": " : "";
        String why = about + (line.params().isEmpty() ? line.command() : line.params().getLast());
        String oldest;
        synchronized (waiting) {
            oldest = waiting.keySet().stream().findFirst().orElse(null);
        }
        if (oldest != null) {
            answered(oldest, "refused: " + why);
        } else {
            report.status(Phase.SILENT, Cause.STILL_SENT, why);
        }
    }

    private void answered(String to, @Nullable String fault) {
        Waiting w = waiting.remove(to);
        if (w == null) {
            return;
        }
        if (fault == null) {
            report.sent(w.ticket(), w.wiredNanos(), "");
        } else {
            report.failed(w.ticket(), fault);
        }
    }

    /** {@code +m-s}: one packet a mode. */
    private void modes(String channel, String modes) {
        String sign = "+";
        for (char c : modes.toCharArray()) {
            if (c == '+' || c == '-') {
                sign = String.valueOf(c);
            } else {
                report.landed("MODE " + channel + " " + c, List.of(Value.of(sign)));
            }
        }
    }

    /** A server names the modes that are set; those that it does not name are not. */
    private void notAmong(String channel, String modes) {
        String at = "MODE " + channel + " ";
        report.twin().fixedArrivals().stream().filter(a -> a.startsWith(at) && a.length() == at.length() + 1
                && modes.indexOf(a.charAt(at.length())) < 0).forEach(a -> report.landed(a, List.of(Value.of("-"))));
    }

    private static void say(Socket s, IrcLine line) throws IOException {
        byte[] bytes = (line.encode() + "\r\n").getBytes(StandardCharsets.UTF_8);
        OutputStream out = s.getOutputStream();
        synchronized (s) {
            out.write(bytes);
            out.flush();
        }
    }

    private static void put(Socket s, String line) throws IOException {
        synchronized (s) {
            s.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.UTF_8));
        }
    }

    private void write() throws InterruptedException, IOException {
        Outgoing next = queue.poll(LOOK_MILLIS, TimeUnit.MILLISECONDS);
        Socket s = socket;
        long now = System.nanoTime();
        if (s != null && List.copyOf(waiting.values()).stream().anyMatch(w -> now - w.atNanos() > (now
                - heard < ANSWER_NANOS ? SLOW_NANOS : ANSWER_NANOS))) {
            frozen = true; // Though it may still say a letter now and then; one that says lines is slow.
            s.close();
        }
        if (next == null) {
            return;
        }
        if (s == null || !joined) {
            report.failed(next.ticket(), connected.closed() ? "was closed" : "is not connected");
            return;
        }
        if (report.stale(next.ticket(), next.atNanos())) {
            return;
        }
        // A server answers in order: when this comes back, it has done what went before, or has said that it did not.
        String mark = "t" + ++token;
        waiting.put(mark, new Waiting(next.ticket(), System.nanoTime(), report.now()));
        try {
            for (String line : next.lines()) {
                pacing.next();
                put(s, line);
            }
            put(s, IrcLine.of("PING", mark).encode());
        } catch (IOException e) {
            answered(mark, "the connection was lost");
            s.close();
        }
    }

    @Override
    public void send(long ticket, Order order) {
        List<String> lines = new ArrayList<>();
        List<Order.Outgoing> packets;
        try {
            packets = places.made(order);
        } catch (Refused | IllegalArgumentException e) {
            report.failed(ticket, String.valueOf(e.getMessage()));
            return;
        }
        for (Order.Outgoing packet : packets) {
            List<String> words = new ArrayList<>(List.of(packet.address().split(" ")));
            String command = words.removeFirst();
            packet.args().forEach(a -> words.add(a.toString()));
            List<IrcLine> all = new IrcLine("", command, words).split(IrcLine.LONGEST - PREFIX - 2);
            if (all.isEmpty()) {
                report.failed(ticket, "a message has at most " + (IrcLine.LONGEST - PREFIX)
                        + " bytes; this one is longer");
                return;
            }
            all.forEach(line -> lines.add(line.encode()));
        }
        if (writer.closed()) {
            report.failed(ticket, "was closed");
        } else if (!queue.offer(new Outgoing(ticket, lines, System.nanoTime()))) {
            report.failed(ticket, "has too many commands waiting");
        }
    }

    @Override
    public void close() {
        connected.close();
        writer.close();
        for (Outgoing left = queue.poll(); left != null; left = queue.poll()) {
            report.failed(left.ticket(), "was closed");
        }
        Socket s = socket;
        if (s != null) {
            try {
                s.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        }
    }
}
