package rombix.links.irc;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadLocalRandom;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Order;
import rombix.core.value.Value;
import rombix.links.link.Connected;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.Loop;
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
    private static final int QUIET_MILLIS = 60_000;
    private static final String MODES_ARE = "324";
    private static final String WELCOME = "001";
    private static final String NICK_TAKEN = "433";

    private final GearReport report;
    private final InetSocketAddress address;
    private final BlockingQueue<Outgoing> queue = new LinkedBlockingQueue<>(1000);
    private final Set<String> channels = new LinkedHashSet<>();
    private final Connected<Socket> connected;
    private final Loop writer;
    private volatile @Nullable Socket socket;
    private volatile boolean joined;

    private record Outgoing(long ticket, List<String> lines) {
    }

    IrcLink(GearReport report, InetSocketAddress address) {
        this.report = report;
        this.address = address;
        report.twin().fixedArrivals().forEach(a -> {
            for (String word : a.split(" ")) {
                if (word.startsWith("#")) {
                    channels.add(word);
                }
            }
        });
        writer = Loop.start("irc-out " + report.twin().gear(), this::write, report::troubled);
        connected = new Connected<>(report, "irc-in", new Connected.Way<>() {
            @Override
            public Socket connect() throws IOException {
                return dial();
            }

            @Override
            public void serve(Socket s) throws IOException {
                try {
                    socket = s;
                    talk(s);
                } finally {
                    socket = null;
                    joined = false;
                }
                throw new IOException("it ended the connection");
            }
        });
    }

    private Socket dial() throws IOException {
        Socket s = new Socket();
        try {
            s.connect(address, CONNECT_MILLIS);
            s.setSoTimeout(QUIET_MILLIS);
            s.setTcpNoDelay(true);
            return s;
        } catch (IOException e) {
            s.close();
            throw new IOException("no answer at " + HostPort.words(address), e);
        }
    }

    private void talk(Socket s) throws IOException {
        String nick = "rombix";
        say(s, IrcLine.of("NICK", nick));
        say(s, IrcLine.of("USER", "rombix", "0", "*", "Rombix"));
        BufferedReader in = new BufferedReader(new InputStreamReader(s.getInputStream(), StandardCharsets.UTF_8));
        for (String text = in.readLine(); text != null; text = in.readLine()) {
            try {
                IrcLine line = IrcLine.decode(text);
                switch (line.command()) {
                    case "PING" -> say(s, IrcLine.of("PONG", line.param(0)));
                    case NICK_TAKEN -> say(s, IrcLine.of("NICK", "rombix" + ThreadLocalRandom.current().nextInt(1000)));
                    case WELCOME -> {
                        for (String channel : channels) {
                            say(s, IrcLine.of("JOIN", channel));
                            say(s, IrcLine.of("MODE", channel));
                        }
                        joined = true;
                        report.ready();
                    }
                    case MODES_ARE -> modes(line.param(1), line.param(2));
                    case "MODE" -> modes(line.param(0), line.param(1));
                    case "PRIVMSG", "NOTICE" -> landed(line.command() + " " + line.param(0), List.of(Value.of(line
                            .param(1)), Value.of(line.nick())));
                    default -> {
                        // The rest is between the server and its people.
                    }
                }
            } catch (Malformed e) {
                report.ignored(String.valueOf(e.getMessage()));
            }
        }
    }

    /** {@code +m-s}: one packet a mode. */
    private void modes(String channel, String modes) {
        String sign = "+";
        for (char c : modes.toCharArray()) {
            if (c == '+' || c == '-') {
                sign = String.valueOf(c);
            } else {
                landed("MODE " + channel + " " + c, List.of(Value.of(sign)));
            }
        }
    }

    private void landed(String place, List<Value> args) {
        report.landed(place, args);
    }

    private static void say(Socket s, IrcLine line) throws IOException {
        byte[] bytes = (line.encode() + "\r\n").getBytes(StandardCharsets.UTF_8);
        OutputStream out = s.getOutputStream();
        synchronized (s) {
            out.write(bytes);
            out.flush();
        }
    }

    private void write() throws InterruptedException, IOException {
        Outgoing next = queue.take();
        Socket s = socket;
        if (s == null || !joined) {
            report.failed(next.ticket(), "is not connected");
            return;
        }
        try {
            for (String line : next.lines()) {
                s.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.UTF_8));
            }
            report.sent(next.ticket());
        } catch (IOException e) {
            report.failed(next.ticket(), "the connection broke: " + e.getMessage());
            s.close();
        }
    }

    @Override
    public void send(long ticket, Order order) {
        List<String> lines = new ArrayList<>();
        for (Order.Outgoing packet : order.packets()) {
            List<String> words = new ArrayList<>(List.of(packet.address().split(" ")));
            String command = words.removeFirst();
            packet.args().forEach(a -> words.add(a.toString()));
            String line = new IrcLine("", command, words).encode();
            if (line.getBytes(StandardCharsets.UTF_8).length + 2 > IrcLine.LONGEST) {
                report.failed(ticket, "a message has at most " + IrcLine.LONGEST + " bytes; this one is longer");
                return;
            }
            lines.add(line);
        }
        if (writer.closed()) {
            report.failed(ticket, "was closed");
        } else if (!queue.offer(new Outgoing(ticket, lines))) {
            report.failed(ticket, "has too many orders waiting");
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
