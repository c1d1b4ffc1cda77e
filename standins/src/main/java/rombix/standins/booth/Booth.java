package rombix.standins.booth;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * A stand-in computer, the booth's: a window with notes, two buttons and a slider, and a star chart. It is worked by the
 * same calls as a real one, a line each over a connection, and keeps a log of what came in. Safe to use from any thread.
 */
public final class Booth implements AutoCloseable {
    private static final int MOST_LINES = 200;

    private final ServerSocket server;
    private final Set<Socket> callers = java.util.concurrent.ConcurrentHashMap.newKeySet();
    private final List<BoothLook.Window> windows = new ArrayList<>(List.of(
            new BoothLook.Window(1, "booth", "Booth notes", new BoothLook.Area(100, 90,
                    360, 420)),
            new BoothLook.Window(2, "chart", "Star chart", new BoothLook.Area(700, 120, 420, 320))));
    private final Set<String> down = new LinkedHashSet<>();
    private final List<String> log = new ArrayList<>();
    private String text = "";
    private String clipboard = "";
    private int slides;
    private int clips;
    private int slider = 40;
    private int x = BoothLook.WIDTH / 2;
    private int y = BoothLook.HEIGHT / 2;
    private String[] sound = {"60", "false", "80", "false"};
    /** How loud its programs are, and whether they are muted. */
    private final Map<String, String[]> programs = new LinkedHashMap<>(Map.of("booth", new String[]{"70", "false"}));

    private volatile Runnable watching = () -> {
    };

    /** @param port 0 for any free one */
    public Booth(int port) throws IOException {
        server = new ServerSocket(port, 8, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().name("booth").start(this::listen);
    }

    public int port() {
        return server.getLocalPort();
    }

    private void listen() {
        while (!server.isClosed()) {
            try {
                Socket caller = server.accept();
                callers.add(caller);
                Thread.ofVirtual().name("booth caller").start(() -> serve(caller));
            } catch (IOException e) {
                return;
            }
        }
    }

    private void serve(Socket caller) {
        try (caller;
                BufferedReader in = new BufferedReader(new InputStreamReader(caller.getInputStream(),
                        StandardCharsets.UTF_8))) {
            caller.setTcpNoDelay(true);
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                List<String> words = Arrays.stream(line.split("\t", -1)).map(w -> w.replace("\\n", "\n").replace("\\t",
                        "\t").replace("\\\\", "\\")).toList();
                String answer = answer(words).stream().map(w -> w.replace("\\", "\\\\").replace("\t", "\\t").replace(
                        "\n", "\\n")).collect(Collectors.joining("\t"));
                if (!List.of("windows", "screen", "picture", "down", "pointer", "readings")
                        .contains(words.getFirst())) {
                    watching.run();
                }
                caller.getOutputStream().write((answer + "\n").getBytes(StandardCharsets.UTF_8));
            }
        } catch (IOException e) {
            // Gone.
        } finally {
            callers.remove(caller);
        }
    }

    /** Has another told, on any thread, whenever something came in. */
    public void watch(Runnable another) {
        watching = another;
    }

    private synchronized List<String> answer(List<String> words) {
        List<String> answer = new ArrayList<>(List.of("ok"));
        switch (words.getFirst()) {
            case "key" -> key(words.get(1), words.get(2).equals("1"));
            case "type" -> write(words.get(1));
            case "down" -> answer.addAll(down);
            case "pointer" -> answer.addAll(List.of(String.valueOf(x), String.valueOf(y)));
            case "move" -> {
                x = Integer.parseInt(words.get(1));
                y = Integer.parseInt(words.get(2));
                if (down.contains("button left")) {
                    slide();
                }
            }
            case "button" -> button(words.get(1), words.get(2).equals("1"));
            case "wheel" -> note("wheel " + words.get(1));
            case "screen" -> answer.addAll(List.of(String.valueOf(BoothLook.WIDTH), String.valueOf(BoothLook.HEIGHT)));
            case "picture" -> answer.add(BoothPicture.png(look()));
            case "windows" -> windows.forEach(w -> answer.addAll(List.of(String.valueOf(w.id()), w.application(), w
                    .title(), String.valueOf(w.area().x()), String.valueOf(w.area().y()),
                    String.valueOf(w.area()
                            .width()),
                    String.valueOf(w.area().height()))));
            case "bring", "close", "place" -> window(words);
            case "open" -> {
                note("opened " + words.get(1));
                if (words.get(1).contains("chart")) {
                    bring(new BoothLook.Window(2, "chart", "Star chart", new BoothLook.Area(700, 120, 420, 320)));
                }
            }
            case "run" -> {
                note("ran " + words.get(1));
                answer.add("done");
            }
            case "clipboard" -> {
                if (words.size() > 1) {
                    clipboard = words.get(1);
                } else {
                    answer.add(clipboard);
                }
            }
            case "system" -> system(words.get(1), words.get(2));
            case "readings" -> answer.addAll(List.of(sound));
            case "sounding" -> programs.forEach((name, of) -> answer.addAll(List.of(name, of[0], of[1])));
            default -> {
                return List.of("no", "the booth's computer knows no “" + words.getFirst() + "”");
            }
        }
        return answer;
    }

    private void note(String line) {
        log.add(line);
        if (log.size() > MOST_LINES) {
            log.removeFirst();
        }
    }

    private void key(String key, boolean on) {
        if (on) {
            down.add(key);
        } else {
            down.remove(key);
        }
        note(key + (on ? " down" : " up"));
        if (!on || key.contains("Ctrl") || key.contains("Shift") || key.contains("Alt") || key.contains("Meta")) {
            return;
        }
        if (down.stream().anyMatch(k -> k.contains("Ctrl"))) {
            switch (key) {
                case "V" -> write(clipboard);
                case "C" -> clipboard = text;
                case "A" -> note("all selected");
                default -> {
                }
            }
            return;
        }
        switch (key) {
            case "Enter", "Numpad Enter" -> write("\n");
            case "Space" -> write(" ");
            case "Tab" -> write("\t");
            case "Backspace" -> text = text.isEmpty() ? "" : text.substring(0, text.length() - 1);
            default -> {
                if (key.length() == 1) {
                    write(down.stream().anyMatch(k -> k.contains("Shift")) ? key : key.toLowerCase(Locale.ROOT));
                }
            }
        }
    }

    private void write(String more) {
        if (!windows.isEmpty() && windows.getFirst().id() == 1) {
            text += more;
        }
    }

    private void button(String button, boolean on) {
        if (!on) {
            down.remove("button " + button);
            return;
        }
        down.add("button " + button);
        note("%s button at %d, %d".formatted(button, x, y));
        windows.stream().filter(w -> w.area().holds(x, y)).findFirst().ifPresent(w -> {
            bring(w);
            int px = x - w.area().x();
            int py = y - w.area().y();
            if (w.id() == 1 && BoothLook.NEXT.holds(px, py)) {
                slides++;
            } else if (w.id() == 1 && BoothLook.CLIP.holds(px, py)) {
                clips++;
            }
        });
        slide();
    }

    private void slide() {
        windows.stream().filter(w -> w.id() == 1).findFirst().ifPresent(w -> {
            int px = x - w.area().x();
            int py = y - w.area().y();
            if (windows.getFirst() == w && py >= BoothLook.SLIDER.y()
                    && py < BoothLook.SLIDER.y() + BoothLook.SLIDER.height()) {
                slider = Math.clamp(Math.round(100.0 * (px - BoothLook.SLIDER.x()) / BoothLook.SLIDER.width()), 0, 100);
            }
        });
    }

    private void window(List<String> words) {
        int id = Integer.parseInt(words.get(1));
        windows.stream().filter(w -> w.id() == id).findFirst().ifPresent(w -> {
            switch (words.getFirst()) {
                case "bring" -> bring(w);
                case "close" -> windows.remove(w);
                default -> {
                    int[] n = words.subList(2, 6).stream().mapToInt(Integer::parseInt).toArray();
                    windows.set(windows.indexOf(w),
                            new BoothLook.Window(id, w.application(), w.title(), new BoothLook.Area(n[0], n[1],
                                    n[2], n[3])));
                }
            }
            note(words.getFirst() + " " + w.title());
        });
    }

    private void bring(BoothLook.Window window) {
        windows.removeIf(w -> w.id() == window.id());
        windows.addFirst(window);
    }

    private void system(String what, String value) {
        switch (what) {
            case "volume output" -> sound[0] = value;
            case "mute output" -> sound[1] = String.valueOf(value.equals("1"));
            case "volume input" -> sound[2] = value;
            case "mute input" -> sound[3] = String.valueOf(value.equals("1"));
            default -> {
                String[] words = what.split(" ", 3);
                String[] of = words.length < 3 ? null : programs.get(words[2]);
                if (of != null) {
                    of[words[1].equals("volume") ? 0 : 1] = words[1].equals("volume")
                            ? value
                            : String.valueOf(value.equals("1"));
                }
            }
        }
        note((what + " " + value).strip());
    }

    /** What it shows now: {@code 0xRRGGBB} for each pixel, row by row. */
    public int[] picture() {
        return BoothPicture.pixels(look());
    }

    /** How it is now. */
    public synchronized BoothLook look() {
        return new BoothLook(text, slides, clips, slider, List.copyOf(windows), x, y, Set.copyOf(down), clipboard, List
                .copyOf(log));
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Socket caller : callers) {
            caller.close();
        }
    }
}
