package rombix.links.desktop.machine;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.sight.Pixels;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/**
 * A stand-in computer at the other end of a connection: a line for each call, its words apart by tabs, and a line for each
 * answer that begins with {@code ok} or {@code no}. One thread's.
 */
@OwnedBy(Owner.LINK)
public final class StandInMachine implements Machine {
    private static final int PATIENCE_MILLIS = 4000;
    /** It draws its screen first. */
    private static final int PICTURE_MILLIS = 15_000;

    private final Socket socket;
    private final BufferedReader in;

    public StandInMachine(InetSocketAddress at) throws Unable {
        socket = new Socket();
        try {
            socket.connect(new InetSocketAddress(at.getHostString(), at.getPort()), PATIENCE_MILLIS);
            socket.setSoTimeout(PATIENCE_MILLIS);
            socket.setTcpNoDelay(true);
            in = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
        } catch (IOException e) {
            close();
            throw new Unable("no stand-in computer at " + at.getHostString() + ":" + at.getPort());
        }
    }

    private List<String> ask(String... words) throws Unable {
        StringBuilder line = new StringBuilder();
        for (String word : words) {
            line.append(line.isEmpty() ? "" : "\t").append(word.replace("\\", "\\\\").replace("\t", "\\t").replace("\n",
                    "\\n"));
        }
        try {
            socket.getOutputStream().write((line + "\n").getBytes(StandardCharsets.UTF_8));
            String answer = in.readLine();
            if (answer == null) {
                throw new IOException("gone");
            }
            List<String> parts = new ArrayList<>(List.of(answer.split("\t", -1)));
            parts.replaceAll(p -> p.replace("\\n", "\n").replace("\\t", "\t").replace("\\\\", "\\"));
            if (!parts.getFirst().equals("ok")) {
                throw new Unable(parts.size() > 1 ? parts.get(1) : "the stand-in refused");
            }
            return parts.subList(1, parts.size());
        } catch (IOException e) {
            close();
            throw new Unable("lost the connection to the stand-in computer");
        }
    }

    private List<String> asked(String... words) {
        try {
            return ask(words);
        } catch (Unable e) {
            return List.of();
        }
    }

    @Override
    public Map<String, String> unable() {
        return Map.of();
    }

    @Override
    public boolean shown() {
        return false;
    }

    @Override
    public void ready() {
        if (socket.isClosed()) {
            throw new IllegalStateException("lost the connection to the stand-in computer"); // It is connected anew.
        }
    }

    @Override
    public void key(String key, boolean down) throws Unable {
        ask("key", key, down ? "1" : "0");
    }

    @Override
    public void type(int codePoint) throws Unable {
        ask("type", Character.toString(codePoint));
    }

    @Override
    public Set<String> down() {
        return new LinkedHashSet<>(asked("down"));
    }

    @Override
    public boolean touched() {
        return false; // Nobody else has hands there.
    }

    @Override
    public Point pointer() throws Unable {
        List<String> at = ask("pointer");
        return new Point(Integer.parseInt(at.get(0)), Integer.parseInt(at.get(1)));
    }

    @Override
    public void move(Point to) throws Unable {
        ask("move", String.valueOf(to.x()), String.valueOf(to.y()));
    }

    @Override
    public void button(String button, boolean down) throws Unable {
        ask("button", button, down ? "1" : "0");
    }

    @Override
    public void wheel(String way) throws Unable {
        ask("wheel", way);
    }

    @Override
    public List<Box> screens() throws Unable {
        List<String> size = ask("screen");
        return List.of(new Box(0, 0, Integer.parseInt(size.get(0)), Integer.parseInt(size.get(1))));
    }

    @Override
    public Pixels picture(Box part) throws Unable {
        try {
            socket.setSoTimeout(PICTURE_MILLIS);
            String png = ask("picture").getFirst();
            socket.setSoTimeout(PATIENCE_MILLIS);
            return PngPixels.of(png).part(part.x(), part.y(), part.width(), part.height());
        } catch (SocketException e) {
            throw new Unable("lost the connection to the stand-in computer");
        }
    }

    @Override
    public List<Window> windows() {
        List<String> words = asked("windows");
        List<Window> all = new ArrayList<>();
        for (int i = 0; i + 6 < words.size(); i += 7) {
            int[] n = words.subList(i + 3, i + 7).stream().mapToInt(Integer::parseInt).toArray();
            all.add(new Window(Long.parseLong(words.get(i)), words.get(i + 1), words.get(i + 2), new Box(n[0], n[1],
                    n[2], n[3])));
        }
        return all;
    }

    @Override
    public Optional<Window> front() {
        return windows().stream().findFirst();
    }

    private static String id(Window window) {
        return String.valueOf(window.id());
    }

    @Override
    public void bring(Window window) throws Unable {
        ask("bring", id(window));
    }

    @Override
    public void close(Window window) throws Unable {
        ask("close", id(window));
    }

    @Override
    public void minimise(Window window) throws Unable {
        ask("close", id(window));
    }

    @Override
    public void place(Window window, Box box) throws Unable {
        ask("place", id(window), String.valueOf(box.x()), String.valueOf(box.y()), String.valueOf(box.width()), String
                .valueOf(box.height()));
    }

    @Override
    public void open(String what) throws Unable {
        ask("open", what);
    }

    @Override
    public Program run(List<String> command, @Nullable String folder) throws Unable {
        List<String> said = ask("run", String.join(" ", command));
        return new Program() {
            @Override
            public End end() {
                return new End(0, said.isEmpty() ? "" : said.getFirst());
            }

            @Override
            public void stop() {
                // It has ended.
            }
        };
    }

    @Override
    public String clipboard() throws Unable {
        return ask("clipboard").getFirst();
    }

    @Override
    public void clipboard(String text) throws Unable {
        ask("clipboard", text);
    }

    @Override
    public void system(String what, String value) throws Unable {
        ask("system", what, value);
    }

    @Override
    public List<PlayingApplication> sounding() {
        List<String> words = asked("sounding");
        List<PlayingApplication> all = new ArrayList<>();
        for (int i = 0; i + 2 < words.size(); i += 3) {
            all.add(new PlayingApplication(words.get(i), Integer.parseInt(words.get(i + 1)),
                    words.get(i + 2).equals("true")));
        }
        return all;
    }

    @Override
    public Map<String, String> system() {
        List<String> words = asked("readings");
        return words.size() < 4
                ? Map.of()
                : Map.of("volume/output", words.get(0), "mute/output", words.get(1),
                        "volume/input", words.get(2), "mute/input", words.get(3));
    }

    @Override
    public void close() {
        try {
            socket.close();
        } catch (IOException e) {
            // It is closed either way.
        }
    }
}
