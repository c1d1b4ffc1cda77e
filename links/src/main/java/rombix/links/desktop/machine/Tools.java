package rombix.links.desktop.machine;

import com.sun.jna.Platform;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The system's own programs for what is changed with none of its windows: volume, brightness, lock, sleep, notes. What
 * has no such program here is said. Safe to use from any thread.
 */
final class Tools implements AutoCloseable {
    private static final long PATIENCE_SECONDS = 4;
    private static final Pattern PERCENT = Pattern.compile("(\\d+)%");
    private static final String VOLUME = "pactl set-%s-volume @DEFAULT_%s@ {}%%";
    private static final String MUTE = "pactl set-%s-mute @DEFAULT_%s@ {}";

    /** For each change the programs that may make it, the best first; {@code {}} is the value. */
    private static final Map<String, List<String>> LINUX = Map.of("open", List.of("xdg-open {}", "gio open {}"),
            "note", List.of("notify-send Rombix {}"), "lock", List.of("loginctl lock-session",
                    "xdg-screensaver lock"),
            "sleep", List.of("systemctl suspend"), "brightness", List.of(
                    "brightnessctl set {}%"),
            "volume output", List.of(VOLUME.formatted("sink", "SINK")), "volume input", List
                    .of(VOLUME.formatted("source", "SOURCE")),
            "mute output", List.of(MUTE.formatted("sink", "SINK")),
            "mute input", List.of(MUTE.formatted("source", "SOURCE")), "sound", List.of("pactl list"));
    private static final Map<String, List<String>> WINDOWS = Map.of("open", List.of(
            "rundll32 url.dll,FileProtocolHandler {}"), "lock", List.of("rundll32 user32.dll,LockWorkStation"),
            "sleep", List.of("rundll32 powrprof.dll,SetSuspendState 0,1,0"));
    private static final Map<String, List<String>> MAC = Map.of("open", List.of("open {}"), "sleep", List.of(
            "pmset sleepnow"), "lock", List.of("pmset displaysleepnow"));
    private static final List<String> ALL = List.of("open", "note", "lock", "sleep", "brightness", "volume output",
            "volume input", "mute output", "mute input", "sound");

    private final Map<String, List<String>> programs = new LinkedHashMap<>();
    private final Map<String, String> missing = new TreeMap<>();
    private final Map<String, String> now = new ConcurrentHashMap<>();
    private volatile List<PlayingApplication> sounding = List.of();
    private @Nullable Process watching;

    private Tools(Map<String, List<String>> of) {
        for (String what : ALL) {
            List<String> may = of.getOrDefault(what, List.of());
            may.stream().filter(line -> found(line.substring(0, line.indexOf(' ') < 0
                    ? line.length()
                    : line.indexOf(' ')))).findFirst().ifPresentOrElse(line -> programs.put(what, List.of(line.split(
                            " "))), () -> missing.put(group(what), may.isEmpty()
                                    ? "not supported on this system"
                                    : "the program “" + may.getFirst().split(" ")[0]
                                            + "” is missing: install it"));
        }
    }

    /** Those of this system. */
    static Tools here() {
        return new Tools(Platform.isWindows() ? WINDOWS : Platform.isMac() ? MAC : LINUX);
    }

    /** The first word of the messages that ask for it. */
    private static String group(String what) {
        return what.equals("open") ? "files" : what.split(" ", 2)[0];
    }

    private static boolean found(String program) {
        for (String folder : System.getenv().getOrDefault("PATH", "").split(File.pathSeparator)) {
            if (new File(folder, program).canExecute() || new File(folder, program + ".exe").canExecute()) {
                return true;
            }
        }
        return false;
    }

    /** What there is no program for, with what to do. */
    Map<String, String> missing() {
        return missing;
    }

    void open(String what) throws Unable {
        change("open", what);
    }

    /** Changes something; waits until it is. */
    void change(String what, String value) throws Unable {
        if (what.startsWith("sound ")) {
            sound(what.split(" ", 3), value);
            return;
        }
        List<String> program = programs.get(what);
        if (program == null) {
            throw new Unable(missing.getOrDefault(group(what), "this computer doesn't support “" + what + "”"));
        }
        run(program, value, !what.equals("open"));
        if (what.startsWith("volume") || what.startsWith("mute")) {
            look();
        }
    }

    /** @param what {@code sound}, {@code volume} or {@code mute}, and the program's id */
    private void sound(String[] what, String value) throws Unable {
        if (missing.containsKey("sound")) {
            throw new Unable(missing.get("sound"));
        }
        look();
        PlayingApplication program = sounding.stream().filter(s -> s.id().equals(what[2])).findFirst()
                .orElseThrow(() -> new Unable(
                        "“" + what[2] + "” isn't playing sound"));
        for (String stream : program.streams()) {
            run(List.of("pactl", "set-sink-input-" + what[1], stream, what[1].equals("volume") ? value + "%" : value),
                    "",
                    true);
        }
        look();
    }

    /** The programs that play sound; kept true by the sound server's own word. */
    List<PlayingApplication> sounding() {
        readings();
        return sounding;
    }

    private static String run(List<String> program, String value, boolean wait) throws Unable {
        List<String> command = new ArrayList<>(program);
        command.replaceAll(part -> part.replace("{}", value));
        try {
            Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
            process.getOutputStream().close();
            if (!wait && !process.waitFor(300, TimeUnit.MILLISECONDS)) {
                return ""; // What opens things may stay as long as they are open.
            }
            if (!process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                process.destroy();
                throw new Unable("“" + command.getFirst() + "” didn't finish within " + PATIENCE_SECONDS + " s");
            }
            try (BufferedReader out = process.inputReader()) {
                String line = String.valueOf(out.readLine());
                if (process.exitValue() != 0) {
                    throw new Unable("“" + command.getFirst() + "” says: " + line);
                }
                return line;
            }
        } catch (IOException e) {
            throw new Unable("“" + command.getFirst() + "” can't be started");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Unable("stopped");
        }
    }

    /** How sound is now, as far as the system tells; kept true by its own word from the first time on. */
    synchronized Map<String, String> readings() {
        if (watching == null && programs.containsKey("volume output") && missing.get("pactl") == null) {
            try {
                watching = new ProcessBuilder("pactl", "subscribe").redirectErrorStream(true).start();
                Thread.ofVirtual().name("volume").start(this::watch);
            } catch (IOException e) {
                missing.put("pactl", String.valueOf(e.getMessage()));
            }
        }
        return Map.copyOf(now);
    }

    private void watch() {
        look();
        Process of = watching;
        if (of == null) {
            return;
        }
        try (BufferedReader out = of.inputReader()) {
            for (String line = out.readLine(); line != null; line = out.readLine()) {
                if (line.contains("sink") || line.contains("source") || line.contains("server")) {
                    look();
                }
            }
        } catch (IOException e) {
            // It was closed.
        }
    }

    private void look() {
        try {
            sounding = PlayingApplication
                    .listed(run(List.of("pactl", "--format=json", "list", "sink-inputs"), "", true));
        } catch (Unable e) {
            sounding = List.of();
        }
        for (String side : new String[]{"sink", "source"}) {
            String name = side.equals("sink") ? "output" : "input";
            String of = "@DEFAULT_" + side.toUpperCase(java.util.Locale.ROOT) + "@";
            try {
                Matcher percent = PERCENT.matcher(run(List.of("pactl", "get-" + side + "-volume", of), "", true));
                if (percent.find()) {
                    now.put("volume/" + name, percent.group(1));
                }
                now.put("mute/" + name, String.valueOf(run(List.of("pactl", "get-" + side + "-mute", of), "", true)
                        .endsWith("yes")));
            } catch (Unable e) {
                now.remove("volume/" + name); // It has none.
                now.remove("mute/" + name);
            }
        }
    }

    @Override
    public synchronized void close() {
        if (watching != null) {
            watching.destroy();
        }
    }
}
