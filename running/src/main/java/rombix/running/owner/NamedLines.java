package rombix.running.owner;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Texts by their names, each in a line of a file that only its owner may read. Safe to use from any thread. */
public final class NamedLines {
    private static final Logger LOG = LoggerFactory.getLogger(NamedLines.class);

    private final OwnersFile file;
    private boolean told;

    NamedLines(OwnersFile file) {
        this.file = file;
    }

    public NamedLines(Path file) {
        this(new OwnersFile(file));
    }

    /** Those of a file in the folder of this user's settings. */
    public static NamedLines beside(String name) {
        return new NamedLines(OwnersFile.beside(name));
    }

    /**
     * What stands in the file.
     *
     * @param damaged lines that nobody can read; they stay where they are
     */
    private record Read(Map<String, String> good, List<String> damaged) {
    }

    private Read read() throws IOException {
        Map<String, String> good = new TreeMap<>();
        List<String> damaged = new ArrayList<>();
        for (String line : file.lines()) {
            int space = line.indexOf(' ');
            try {
                if (space > 0) {
                    good.put(line.substring(0, space), new String(Base64.getDecoder().decode(line.substring(space + 1)),
                            StandardCharsets.UTF_8));
                } else {
                    damaged.add(line);
                }
            } catch (IllegalArgumentException e) {
                damaged.add(line);
            }
        }
        return new Read(good, damaged);
    }

    /** As the file is now: another Rombix may have written it. What cannot be read counts as not there. */
    public synchronized Map<String, String> all() {
        try {
            return read().good();
        } catch (IOException e) {
            LOG.warn("{} can't be read", file.path()); // Not more: what stands there is nobody else's.
            return Map.of();
        }
    }

    /** Whether something stands there, or may, that cannot be read. */
    synchronized boolean damaged() {
        try {
            List<String> lines = read().damaged();
            if (!lines.isEmpty() && !told) {
                told = true;
                LOG.warn("{} has {} damaged; the rest is used, and they stay as they are", file.path(),
                        lines.size() == 1
                                ? "a line that is"
                                : lines.size() + " lines that are");
            }
            return !lines.isEmpty();
        } catch (IOException e) {
            return true;
        }
    }

    public Optional<String> get(String name) {
        return Optional.ofNullable(all().get(name));
    }

    /**
     * @param text null takes it away
     * @throws IOException also where what is there can't be read: it would be lost
     */
    public synchronized void set(String name, @Nullable String text) throws IOException {
        Read read = read();
        Map<String, String> all = read.good();
        if (text == null) {
            all.remove(name);
        } else {
            all.put(name, text);
        }
        List<String> lines = new ArrayList<>();
        all.forEach((n, t) -> lines.add(n + " " + Base64.getEncoder().encodeToString(t.getBytes(
                StandardCharsets.UTF_8))));
        lines.addAll(read.damaged());
        file.replace(lines);
    }
}
