package rombix.running.owner;

import java.io.IOException;
import java.io.Reader;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.store.WholeFile;

/**
 * What Rombix remembers on this computer, apart from boards: a small file in the folder Rombix of the home folder. What
 * cannot be read counts as not there; what cannot be written is logged. Safe to use from any thread.
 */
public final class Settings {
    private static final Logger LOG = LoggerFactory.getLogger(Settings.class);
    private static final String RECENT = "board.";
    private static final int MAX_RECENT = 6;

    private final Path file;
    private volatile String trouble = "";

    /** Those of this user; elsewhere where the property {@code rombix.settings} says so. */
    public Settings() {
        this(usual());
    }

    public static Path usual() {
        return Path.of(System.getProperty("rombix.settings", System.getProperty("user.home")
                + "/Rombix/settings.properties"));
    }

    public Settings(Path file) {
        this.file = file;
    }

    /** Why what was set last is not remembered; nothing where it is. */
    public String trouble() {
        return trouble;
    }

    public synchronized Optional<String> get(String key) {
        return Optional.ofNullable(all().getProperty(key));
    }

    public synchronized void set(Map<String, String> values) {
        Properties all = all();
        all.putAll(values);
        store(all);
    }

    /** The boards that were open last and are still there, newest first. */
    public synchronized List<Path> recentBoards() {
        Properties all = all();
        List<Path> boards = new ArrayList<>();
        for (int i = 0; i < MAX_RECENT; i++) {
            String board = all.getProperty(RECENT + i);
            if (board != null && Files.isRegularFile(Path.of(board))) {
                boards.add(Path.of(board));
            }
        }
        return boards;
    }

    /** A board is open now. */
    public synchronized void opened(Path board) {
        Path whole = board.toAbsolutePath().normalize();
        List<Path> boards = new ArrayList<>(recentBoards());
        if (!boards.isEmpty() && boards.getFirst().equals(whole)) {
            return;
        }
        boards.remove(whole);
        boards.addFirst(whole);
        Properties all = all();
        for (int i = 0; i < MAX_RECENT; i++) {
            all.remove(RECENT + i);
            if (i < boards.size()) {
                all.setProperty(RECENT + i, boards.get(i).toString());
            }
        }
        store(all);
    }

    private Properties all() {
        Properties all = new Properties();
        if (Files.isReadable(file)) {
            try (Reader in = Files.newBufferedReader(file)) {
                all.load(in);
            } catch (IOException | IllegalArgumentException e) {
                LOG.warn("{} can't be read: {}", file, e.getMessage());
            }
        }
        return all;
    }

    private void store(Properties all) {
        try {
            Path folder = file.toAbsolutePath().getParent();
            if (folder != null) {
                Files.createDirectories(folder);
            }
            StringWriter out = new StringWriter();
            all.store(out, null);
            WholeFile.write(Files.exists(file) ? file.toRealPath() : file, out.toString(),
                    WholeFile.Readers.AS_BEFORE);
            trouble = "";
        } catch (IOException e) {
            trouble = "“" + file + "” can't be written";
            LOG.warn("{} can't be written: {}", file, e.getMessage());
        }
    }
}
