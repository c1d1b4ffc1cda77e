package rombix.links.desktop.machine;

import com.sun.jna.Platform;
import java.awt.Toolkit;
import java.awt.datatransfer.DataFlavor;
import java.awt.datatransfer.StringSelection;
import java.awt.datatransfer.UnsupportedFlavorException;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import org.jspecify.annotations.Nullable;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** What all systems have alike: programs, files, the clipboard, and the system's own tools. One thread's. */
@OwnedBy(Owner.LINK)
abstract class RealMachine implements Machine {
    private static final int LONGEST_LINE = 400;

    private final Tools tools = Tools.here();

    @Override
    public Map<String, String> unable() {
        return new TreeMap<>(tools.missing());
    }

    @Override
    public void open(String what) throws Unable {
        if (!what.matches("[a-zA-Z][a-zA-Z0-9+.-]+://.*") && !what.startsWith("mailto:") && !new File(what).exists()) {
            throw new Unable("there is no file or folder “" + what + "”");
        }
        tools.open(what);
    }

    @Override
    public Program run(List<String> command, @Nullable String folder) throws Unable {
        try {
            ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectInput(
                    ProcessBuilder.Redirect.from(new File(Platform.isWindows() ? "NUL" : "/dev/null")));
            if (folder != null && !folder.isBlank()) {
                builder.directory(new File(folder));
            }
            return new Running(builder.start());
        } catch (IOException e) {
            throw new Unable(folder != null && !folder.isBlank() && !new File(folder).isDirectory()
                    ? "there is no folder “" + folder + "”"
                    : "the program “" + command.getFirst()
                            + "” can't be started: it doesn't exist or isn't executable");
        }
    }

    /** A program, whose output is read on so that it never waits for us. */
    private static final class Running implements Program {
        private final Process process;
        private final CompletableFuture<String> line = new CompletableFuture<>();

        Running(Process process) {
            this.process = process;
            Thread.ofVirtual().name("program").start(this::listen);
        }

        private void listen() {
            try (BufferedReader out = process.inputReader(StandardCharsets.UTF_8)) {
                StringBuilder first = new StringBuilder();
                for (int c = out.read(); c >= 0 && c != '\n' && first.length() < LONGEST_LINE; c = out.read()) {
                    first.append((char) c);
                }
                line.complete(first.toString().strip());
                out.transferTo(java.io.Writer.nullWriter());
            } catch (IOException e) {
                // It has ended, or was ended.
            } finally {
                line.complete("");
            }
        }

        @Override
        public End end() throws InterruptedException {
            int code = process.waitFor();
            try {
                return new End(code, line.get());
            } catch (ExecutionException e) {
                return new End(code, "");
            }
        }

        @Override
        public void stop() {
            List<ProcessHandle> all = new ArrayList<>(process.descendants().toList());
            all.add(process.toHandle());
            all.forEach(ProcessHandle::destroy);
        }
    }

    @Override
    public String clipboard() throws Unable {
        try {
            Object text = Toolkit.getDefaultToolkit().getSystemClipboard().getData(DataFlavor.stringFlavor);
            return String.valueOf(text);
        } catch (UnsupportedFlavorException e) {
            return ""; // What is on it is no text.
        } catch (IOException | RuntimeException | Error e) {
            throw noClipboard(e);
        }
    }

    @Override
    public void clipboard(String text) throws Unable {
        try {
            Toolkit.getDefaultToolkit().getSystemClipboard().setContents(new StringSelection(text), null);
        } catch (RuntimeException | Error e) {
            throw noClipboard(e);
        }
    }

    private static Unable noClipboard(Throwable e) {
        return new Unable("the clipboard isn't available" + (e instanceof IllegalStateException
                ? ": another program is using it"
                : ""));
    }

    @Override
    public void system(String what, String value) throws Unable {
        tools.change(what, value);
    }

    @Override
    public List<PlayingApplication> sounding() {
        return tools.sounding();
    }

    @Override
    public Map<String, String> system() {
        return tools.readings();
    }

    @Override
    public void close() {
        tools.close();
    }
}
