package rombix.bench.measure;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** An X server without a screen, for windows that are measured. */
public final class VirtualScreen implements AutoCloseable {
    private final Process process;
    private final String display;

    private VirtualScreen(Process process, String display) {
        this.process = process;
        this.display = display;
    }

    /** Starts one; empty where Xvfb is not installed, which is said. */
    public static Optional<VirtualScreen> start() throws IOException {
        Process process;
        try {
            process = new ProcessBuilder("Xvfb", "-displayfd", "1", "-screen", "0", "1400x900x24", "-nolisten", "tcp")
                    .redirectError(ProcessBuilder.Redirect.DISCARD).start();
        } catch (IOException e) {
            System.out.println("there is no Xvfb here, so nothing on a desktop is measured");
            return Optional.empty();
        }
        StringBuilder number = new StringBuilder();
        for (int c = process.getInputStream().read(); c >= '0'; c = process.getInputStream().read()) {
            number.append((char) c);
        }
        return Optional.of(new VirtualScreen(process, ":" + number));
    }

    public String display() {
        return display;
    }

    /** Whether a window with this in its title is to be seen. */
    public boolean shows(String title) throws IOException, InterruptedException {
        ProcessBuilder search = new ProcessBuilder("xdotool", "search", "--onlyvisible", "--name", title);
        search.environment().put("DISPLAY", display);
        Process found = search.redirectErrorStream(true).start();
        String out = new String(found.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return found.waitFor() == 0 && !out.isBlank();
    }

    @Override
    public void close() {
        process.destroy();
    }
}
