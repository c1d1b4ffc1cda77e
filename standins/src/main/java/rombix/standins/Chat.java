package rombix.standins;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import rombix.wire.Malformed;
import rombix.wire.irc.IrcLine;

/** The chat: a small IRC server with one channel, whose modes are members only ({@code M}) and moderated ({@code m}). */
public final class Chat implements AutoCloseable {
    public static final String CHANNEL = "#star-night";
    private static final String NAME = "chat.larkmoor";

    private final ServerSocket server;
    private final Received came = new Received();
    private final Set<Person> people = ConcurrentHashMap.newKeySet();
    private final Set<Character> modes = new TreeSet<>();
    private final List<String> said = new CopyOnWriteArrayList<>();

    /** Somebody who is connected. */
    private static final class Person {
        private final Socket socket;
        private String nick = "*";
        private boolean welcomed;

        Person(Socket socket) {
            this.socket = socket;
        }

        void tell(IrcLine line) {
            try {
                synchronized (socket) {
                    socket.getOutputStream().write((line.encode() + "\r\n").getBytes(StandardCharsets.UTF_8));
                }
            } catch (IOException e) {
                // Gone; the reader notices.
            }
        }

        void reply(String number, String... rest) {
            String[] params = new String[rest.length + 1];
            params[0] = nick;
            System.arraycopy(rest, 0, params, 1, rest.length);
            tell(new IrcLine(NAME, number, List.of(params)));
        }
    }

    /** @param port 0 for any free one */
    public Chat(int port) throws IOException {
        server = new ServerSocket();
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        Thread.ofVirtual().name("chat").start(this::serve);
    }

    public int port() {
        return server.getLocalPort();
    }

    /** What was said on the channel, oldest first. */
    public List<String> messages() {
        return List.copyOf(said);
    }

    public synchronized boolean has(char mode) {
        return modes.contains(mode);
    }

    /** What came. */
    public Received received() {
        return came;
    }

    /** Somebody on the channel says something. */
    public void say(String text) {
        said.add(text);
        IrcLine line = new IrcLine("visitor!v@larkmoor", "PRIVMSG", List.of(CHANNEL, text));
        people.forEach(p -> p.tell(line));
    }

    /** Somebody on the channel sets or clears a mode by hand. */
    public void mode(char mode, boolean on) {
        set(new IrcLine("keeper!k@larkmoor", "MODE", List.of(CHANNEL, (on ? "+" : "-") + mode)));
    }

    private void serve() {
        while (!server.isClosed()) {
            try {
                Socket socket = server.accept();
                socket.setTcpNoDelay(true); // A line that waits for the last one's acknowledgement is 40 ms late.
                Person person = new Person(socket);
                people.add(person);
                Thread.ofVirtual().name("chat person").start(() -> read(person));
                if (server.isClosed()) {
                    person.socket.close();
                }
            } catch (IOException e) {
                // Closed.
            }
        }
    }

    private void read(Person person) {
        try (Socket s = person.socket;
                BufferedReader in = new BufferedReader(new InputStreamReader(s.getInputStream(),
                        StandardCharsets.UTF_8))) {
            for (String text = in.readLine(); text != null; text = in.readLine()) {
                try {
                    take(person, IrcLine.decode(text));
                } catch (Malformed e) {
                    person.reply("421", "?", "Unknown command");
                }
            }
        } catch (IOException e) {
            // Gone.
        } finally {
            people.remove(person);
        }
    }

    private void take(Person person, IrcLine line) {
        if (!line.command().matches("PING|PASS")) {
            came.add(person.nick + ": " + line.command() + " " + String.join(" ", line.params()));
        }
        IrcLine from = new IrcLine(person.nick + "!u@larkmoor", line.command(), line.params());
        switch (line.command()) {
            case "NICK" -> {
                if (people.stream().anyMatch(p -> p != person && p.nick.equalsIgnoreCase(line.param(0)))) {
                    person.reply("433", line.param(0), "Nickname is already in use");
                } else {
                    person.nick = line.param(0);
                    welcome(person, false);
                }
            }
            case "USER" -> welcome(person, true);
            case "PING" -> person.tell(new IrcLine(NAME, "PONG", List.of(NAME, line.param(0))));
            case "JOIN" -> {
                person.tell(from);
                person.reply("353", "=", CHANNEL, String.join(" ", people.stream().map(p -> p.nick).sorted().toList()));
                person.reply("366", CHANNEL, "End of /NAMES list");
            }
            case "MODE" -> {
                if (line.params().size() < 2) {
                    synchronized (this) { // A mode that is set by hand is told before the answer, or after it.
                        person.reply("324", CHANNEL, modes());
                    }
                } else {
                    set(from);
                }
            }
            case "PRIVMSG", "NOTICE" -> {
                said.add(line.param(1));
                people.stream().filter(p -> p != person).forEach(p -> p.tell(from));
            }
            case "QUIT" -> {
                try {
                    person.socket.close();
                } catch (IOException e) {
                    // Gone already.
                }
            }
            default -> {
                // A small server passes over what it does not know.
            }
        }
    }

    private static void welcome(Person person, boolean user) {
        if (user) {
            person.welcomed = true;
        }
        if (person.welcomed && !person.nick.equals("*")) {
            person.reply("001", "Welcome to the star night, " + person.nick);
            person.reply("422", "No message of the day");
        }
    }

    private String modes() {
        StringBuilder all = new StringBuilder("+");
        modes.forEach(all::append);
        for (char c : new char[]{'M', 'm'}) {
            if (!modes.contains(c)) {
                all.append('-').append(c);
            }
        }
        return all.toString();
    }

    private synchronized void set(IrcLine line) {
        boolean on = true;
        for (char c : line.param(1).toCharArray()) {
            if (c == '+' || c == '-') {
                on = c == '+';
            } else if (on) {
                modes.add(c);
            } else {
                modes.remove(c);
            }
        }
        people.forEach(p -> p.tell(line));
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Person p : Set.copyOf(people)) {
            p.socket.close();
        }
    }
}
