package rombix.app.log;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import rombix.app.deck.Aftermath.Left;
import rombix.app.log.LogRow.Kind;

/** The log on disk, an SQLite file. Safe to use from any thread: one writes while others read. */
public final class LogStore implements AutoCloseable {
    /** How long rows are kept, in days, and how many at most. */
    static final long MAX_DAYS = 90;
    static final long MAX_ROWS = 2_000_000;
    private static final String COLUMNS = "at, kind, press, button, name, who, place, gear, words, late, message, rehearsed";

    private final Connection writing;
    private final Connection reading;
    /** Who writes, among those who write into this file. */
    private final String process;

    /** The file cannot be used, in plain words. */
    public static final class Trouble extends Exception {
        Trouble(String message, Throwable cause) {
            super(message, cause);
        }
    }

    /**
     * Which rows are asked for, newest first.
     *
     * @param text words that all stand in the row; blank for any
     * @param kinds none for all
     * @param press 0 for any
     * @param before only rows with a lower number; {@link Long#MAX_VALUE} for the newest
     */
    public record Query(String text, Set<Kind> kinds, long press, long before, int max) {
        public Query {
            kinds = Set.copyOf(kinds);
        }

        public static Query newest(int max) {
            return new Query("", Set.of(), 0, Long.MAX_VALUE, max);
        }
    }

    /** Opens the file, or makes it. */
    public LogStore(Path file) throws Trouble {
        this(file, process(ProcessHandle.current()));
    }

    LogStore(Path file, String process) throws Trouble {
        this.process = process;
        try {
            owners(file);
            String url = "jdbc:sqlite:" + file.toAbsolutePath();
            writing = DriverManager.getConnection(url);
            try (Statement s = writing.createStatement()) {
                s.execute("PRAGMA journal_mode = WAL");
                s.execute("PRAGMA synchronous = NORMAL");
                s.execute("""
                        CREATE TABLE IF NOT EXISTS as_run (id INTEGER PRIMARY KEY AUTOINCREMENT, at INTEGER NOT NULL,
                         kind TEXT NOT NULL, press INTEGER NOT NULL, button TEXT NOT NULL, name TEXT NOT NULL,
                         who TEXT NOT NULL, place TEXT NOT NULL, gear TEXT NOT NULL, words TEXT NOT NULL,
                         late INTEGER NOT NULL, message TEXT NOT NULL, rehearsed INTEGER NOT NULL)""");
                s.execute(
                        "CREATE TABLE IF NOT EXISTS going (id TEXT PRIMARY KEY, button TEXT NOT NULL, what TEXT NOT NULL)");
                s.execute("CREATE INDEX IF NOT EXISTS as_run_press ON as_run (press)");
                s.execute("CREATE INDEX IF NOT EXISTS as_run_at ON as_run (at)");
            }
            writing.setAutoCommit(false);
            reading = DriverManager.getConnection(url);
        } catch (SQLException | IOException e) {
            throw new Trouble("the as-run log %s cannot be used: %s".formatted(file, e.getMessage()), e);
        }
    }

    /** Nobody but its owner may read what was run; what SQLite writes beside it has the same permissions. */
    private static void owners(Path file) throws IOException {
        if (!Files.exists(file)) {
            Files.createFile(file);
        }
        PosixFileAttributeView view = Files.getFileAttributeView(file, PosixFileAttributeView.class);
        if (view != null) {
            view.setPermissions(PosixFilePermissions.fromString("rw-------"));
        }
    }

    /** Keeps rows, all or none. */
    void add(List<LogRow> rows) throws Trouble {
        synchronized (writing) {
            try (PreparedStatement s = writing.prepareStatement("INSERT INTO as_run (" + COLUMNS
                    + ") VALUES (?,?,?,?,?,?,?,?,?,?,?,?)")) {
                for (LogRow r : rows) {
                    s.setLong(1, r.atMillis());
                    s.setString(2, r.kind().name());
                    s.setLong(3, r.press());
                    s.setString(4, r.button());
                    s.setString(5, r.name());
                    s.setString(6, r.who());
                    s.setString(7, r.place());
                    s.setString(8, r.gear());
                    s.setString(9, r.words());
                    s.setLong(10, r.lateMicros());
                    s.setString(11, r.message());
                    s.setBoolean(12, r.rehearsed());
                    s.addBatch();
                }
                s.executeBatch();
                writing.commit();
            } catch (SQLException e) {
                rollBack();
                throw new Trouble(String.valueOf(e.getMessage()), e);
            }
        }
    }

    /** Keeps what goes on now: what has begun, and nothing where it has ended, by a name of its own. */
    void going(Map<String, Optional<Left>> changes) throws Trouble {
        synchronized (writing) {
            try (PreparedStatement begun = writing.prepareStatement("INSERT OR REPLACE INTO going VALUES (?,?,?)");
                    PreparedStatement over = writing.prepareStatement("DELETE FROM going WHERE id = ?")) {
                for (Map.Entry<String, Optional<Left>> e : changes.entrySet()) {
                    PreparedStatement s = e.getValue().isPresent() ? begun : over;
                    s.setString(1, process + e.getKey());
                    if (e.getValue().isPresent()) {
                        s.setString(2, e.getValue().get().button());
                        s.setString(3, e.getValue().get().what());
                    }
                    s.executeUpdate();
                }
                writing.commit();
            } catch (SQLException e) {
                rollBack();
                throw new Trouble(String.valueOf(e.getMessage()), e);
            }
        }
    }

    /** What was going on in processes that were killed, until it is {@link #forget forgotten}. */
    public List<Left> leftOver() throws Trouble {
        synchronized (writing) {
            List<Left> left = new ArrayList<>();
            try (Statement s = writing.createStatement()) {
                try (ResultSet all = s.executeQuery("SELECT id, button, what FROM going ORDER BY rowid")) {
                    while (all.next()) {
                        if (!alive(all.getString(1))) {
                            left.add(new Left(all.getString(2), all.getString(3)));
                        }
                    }
                }
                return left.stream().distinct().toList();
            } catch (SQLException e) {
                rollBack();
                throw new Trouble(String.valueOf(e.getMessage()), e);
            }
        }
    }

    /** Forgets what was going on in processes that were killed: it was ended, or somebody said to leave it. */
    public void forget() throws Trouble {
        synchronized (writing) {
            try (Statement s = writing.createStatement();
                    PreparedStatement over = writing.prepareStatement(
                            "DELETE FROM going WHERE id = ?")) {
                List<String> dead = new ArrayList<>();
                try (ResultSet all = s.executeQuery("SELECT id FROM going")) {
                    while (all.next()) {
                        if (!alive(all.getString(1))) {
                            dead.add(all.getString(1));
                        }
                    }
                }
                for (String id : dead) {
                    over.setString(1, id);
                    over.executeUpdate();
                }
                writing.commit();
            } catch (SQLException e) {
                rollBack();
                throw new Trouble(String.valueOf(e.getMessage()), e);
            }
        }
    }

    /** Who this process is, wherever it runs: its number, and when it began, as numbers are given again. */
    private static String process(ProcessHandle of) {
        return of.pid() + "@" + of.info().startInstant().map(Instant::toEpochMilli).orElse(0L) + " ";
    }

    private static boolean alive(String id) {
        int at = id.indexOf('@');
        try {
            return at > 0 && ProcessHandle.of(Long.parseLong(id.substring(0, at))).filter(p -> id.startsWith(process(
                    p))).isPresent();
        } catch (NumberFormatException e) {
            return false;
        }
    }

    private void rollBack() {
        try {
            writing.rollback();
        } catch (SQLException e) {
            // There is nothing to take back.
        }
    }

    /** The rows that are asked for, newest first. */
    public List<LogRow> find(Query query) throws Trouble {
        StringBuilder sql = new StringBuilder("SELECT id, " + COLUMNS + " FROM as_run WHERE id < ?");
        List<Object> with = new ArrayList<>(List.of(query.before()));
        if (!query.kinds().isEmpty()) {
            sql.append(" AND kind IN (").append("?,".repeat(query.kinds().size() - 1)).append("?)");
            query.kinds().forEach(k -> with.add(k.name()));
        }
        if (query.press() != 0) {
            sql.append(" AND press = ?");
            with.add(query.press());
        }
        for (String word : Arrays.stream(query.text().strip().split("\\s+")).filter(w -> !w.isEmpty()).toList()) {
            sql.append(" AND (name || ' ' || who || ' ' || place || ' ' || gear || ' ' || words || ' ' || message)"
                    + " LIKE ? ESCAPE '\\'");
            with.add("%" + word.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%");
        }
        sql.append(" ORDER BY id DESC LIMIT ?");
        with.add(query.max());
        synchronized (reading) {
            try (PreparedStatement s = reading.prepareStatement(sql.toString())) {
                for (int i = 0; i < with.size(); i++) {
                    s.setObject(i + 1, with.get(i));
                }
                List<LogRow> rows = new ArrayList<>();
                try (ResultSet r = s.executeQuery()) {
                    while (r.next()) {
                        rows.add(new LogRow(r.getLong(1), r.getLong(2), Kind.valueOf(r.getString(3)), r.getLong(4), r
                                .getString(5), r.getString(6), r.getString(7), r.getString(8), r.getString(9),
                                r
                                        .getString(10),
                                r.getLong(11), r.getString(12), r.getBoolean(13)));
                    }
                }
                return rows;
            } catch (SQLException | IllegalArgumentException e) {
                throw new Trouble(String.valueOf(e.getMessage()), e);
            }
        }
    }

    /** The highest number of a press so far. */
    long lastPress() {
        return number("SELECT COALESCE(MAX(press), 0) FROM as_run");
    }

    /** How many rows are kept. */
    public long rows() {
        return number("SELECT COUNT(*) FROM as_run");
    }

    private long number(String sql) {
        synchronized (reading) {
            try (Statement s = reading.createStatement(); ResultSet r = s.executeQuery(sql)) {
                return r.next() ? r.getLong(1) : 0;
            } catch (SQLException e) {
                return 0;
            }
        }
    }

    /** Lets go of rows that are older than {@value #MAX_DAYS} days, and of the oldest above {@value #MAX_ROWS}. */
    void tidy(long nowMillis) {
        tidy(nowMillis - TimeUnit.DAYS.toMillis(MAX_DAYS), MAX_ROWS);
    }

    void tidy(long oldestMillis, long max) {
        synchronized (writing) {
            try (PreparedStatement old = writing.prepareStatement("DELETE FROM as_run WHERE at < ?");
                    PreparedStatement many = writing.prepareStatement(
                            "DELETE FROM as_run WHERE id <= (SELECT id FROM as_run ORDER BY id DESC LIMIT 1 OFFSET ?)")) {
                old.setLong(1, oldestMillis);
                old.executeUpdate();
                many.setLong(1, max);
                many.executeUpdate();
                writing.commit();
            } catch (SQLException e) {
                rollBack();
            }
        }
    }

    @Override
    public void close() {
        for (Connection c : new Connection[]{writing, reading}) {
            synchronized (c) {
                try {
                    c.close();
                } catch (SQLException e) {
                    // It is closed as far as it can be.
                }
            }
        }
    }
}
