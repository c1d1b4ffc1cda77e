package rombix.standins;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * The dome projector, which speaks in lines of text over TCP: it asks for its password, then answers each line with one
 * line, {@code OK}, {@code NAME=VALUE} or {@code ERR why}. Its lamp takes a while to be warm, and to be cold again. It
 * tells nothing by itself.
 */
public final class Projector implements AutoCloseable {
    private static final List<String> INPUTS = List.of("SKY", "DECK", "TRAILER");
    private static final long USUAL_WARM_UP = 3000;

    private final ServerSocket server;
    private final Received came = new Received();
    private final Set<Socket> connections = ConcurrentHashMap.newKeySet();
    private final ScheduledExecutorService lamp = Executors.newSingleThreadScheduledExecutor(Thread.ofPlatform()
            .daemon().name("projector lamp").factory());
    private final long warmUpMillis;
    private String power = "OFF";
    private String input = "SKY";
    private boolean shutter;
    private int hours = 1204;
    private volatile boolean frozen;

    /** @param port 0 for any free one */
    public Projector(int port) throws IOException {
        this(port, USUAL_WARM_UP);
    }

    /** @param warmUpMillis how long its lamp takes to be warm or cold */
    public Projector(int port, long warmUpMillis) throws IOException {
        this.warmUpMillis = warmUpMillis;
        server = new ServerSocket();
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        Thread.ofVirtual().name("projector").start(this::accept);
    }

    public int port() {
        return server.getLocalPort();
    }

    /** {@code OFF}, {@code WARMING}, {@code ON} or {@code COOLING}. */
    public synchronized String power() {
        return power;
    }

    public synchronized String input() {
        return input;
    }

    public synchronized boolean shutter() {
        return shutter;
    }

    /** What came. */
    public Received received() {
        return came;
    }

    /** Works it by hand, as with its own remote control. @param line as over its wire, such as {@code POWER ON} */
    public void work(String line) {
        answer(line);
    }

    /** Whether it takes what comes and answers nothing. */
    public void freeze(boolean on) {
        frozen = on;
    }

    /** Whoever is connected is not any more. */
    public void hangUp() throws IOException {
        for (Socket s : connections) {
            s.close();
        }
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Socket socket = server.accept();
                connections.add(socket);
                Thread.ofVirtual().start(() -> serve(socket));
                if (server.isClosed()) {
                    socket.close();
                }
            } catch (IOException e) {
                // Closed, or gone again at once.
            }
        }
    }

    private void serve(Socket socket) {
        try (socket) {
            socket.setTcpNoDelay(true);
            OutputStream out = socket.getOutputStream();
            BufferedReader in = new BufferedReader(new InputStreamReader(socket.getInputStream(),
                    StandardCharsets.UTF_8));
            say(out, "PASSWORD?");
            if (!DemoLogin.WORD.equals(in.readLine())) {
                say(out, "ERR wrong password");
                return;
            }
            say(out, "OK");
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                came.add(line);
                if (!frozen) {
                    say(out, answer(line.strip()));
                }
            }
        } catch (IOException e) {
            // Gone.
        } finally {
            connections.remove(socket);
        }
    }

    private static void say(OutputStream out, String line) throws IOException {
        out.write((line + "\r\n").getBytes(StandardCharsets.UTF_8));
        out.flush();
    }

    private synchronized String answer(String line) {
        String[] words = line.split(" ", 2);
        String what = words.length > 1 ? words[1] : "";
        return switch (words[0]) {
            case "POWER?" -> "POWER=" + power;
            case "INPUT?" -> "INPUT=" + input;
            case "SHUTTER?" -> "SHUTTER=" + (shutter ? "SHUT" : "OPEN");
            case "HOURS?" -> "HOURS=%05d".formatted(hours);
            case "POWER" -> power(what);
            case "INPUT" -> input(what);
            case "SHUTTER" -> shut(what);
            default -> "ERR unknown command";
        };
    }

    private String power(String to) {
        if (!to.equals("ON") && !to.equals("OFF")) {
            return "ERR ON or OFF";
        }
        if (power.equals("WARMING") || power.equals("COOLING")) {
            return "ERR busy while " + power.toLowerCase(java.util.Locale.ROOT);
        }
        if (!power.equals(to)) {
            power = to.equals("ON") ? "WARMING" : "COOLING";
            lamp.schedule(() -> powerTo(to), warmUpMillis, TimeUnit.MILLISECONDS);
        }
        return "OK";
    }

    private synchronized void powerTo(String to) {
        power = to;
        hours += to.equals("ON") ? 1 : 0;
    }

    private String input(String to) {
        if (!INPUTS.contains(to)) {
            return "ERR no input " + to;
        }
        if (!power.equals("ON")) {
            return "ERR not while the lamp is off";
        }
        input = to;
        return "OK";
    }

    private String shut(String to) {
        if (!to.equals("SHUT") && !to.equals("OPEN")) {
            return "ERR SHUT or OPEN";
        }
        shutter = to.equals("SHUT");
        return "OK";
    }

    @Override
    public void close() throws IOException {
        server.close();
        lamp.shutdownNow();
        hangUp();
    }
}
