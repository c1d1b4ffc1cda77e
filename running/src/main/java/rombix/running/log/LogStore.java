package rombix.running.log;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.sqlite.SQLiteErrorCode;
import rombix.core.store.WholeFile;
import rombix.running.log.Aftermath.Left;
import rombix.running.log.LogRow.Kind;

/** The log on disk, an SQLite file. Safe to use from any thread: one writes while others read. */
public final class LogStore implements AutoCloseable {
    /** How long rows are kept, in days, and how many at most. */
    static final long MAX_DAYS = 90;
    static final long MAX_ROWS = 2_000_000;
    private static final String COLUMNS = "at, kind, press, button, name, who, place, gear, words, late, message, rehearsed";

    private final Path file;
    /** Guards what is written; and {@code reads} what is read. Where both are held, this one first. */
    private final Object writes = new Object();
    private final Object reads = new Object();
    private @Nullable Connection writing;
    private @Nullable Connection reading;
    private boolean closed;
    /** What tells the file that is open from another one of its name. */
    private @Nullable Object key;
    private final GoingTable going;

    /** The file cannot be used, in plain words. */
    public static final class Trouble extends Exception {
        Trouble(String message, Throwable cause) {
            super(message, cause);
        }

        /** Whether the file is there, but is no log, or no longer. */
        boolean damaged() {
            return getCause() instanceof SQLException e && Set.of(SQLiteErrorCode.SQLITE_NOTADB.code,
                    SQLiteErrorCode.SQLITE_CORRUPT.code).contains(e.getErrorCode() & 0xFF);
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
        this(file, GoingTable.process(ProcessHandle.current()));
    }

    LogStore(Path file, String process) throws Trouble {
        this.file = file;
        this.going = new GoingTable(process);
        synchronized (writes) {
            writing();
        }
    }

    private LogStore(Path file, boolean later) {
        this.file = file;
        this.going = new GoingTable(GoingTable.process(ProcessHandle.current()));
    }

    /** Where the log of a board is kept: beside it, hidden. */
    public static Path beside(Path board) {
        return board.toAbsolutePath().resolveSibling("." + board.getFileName() + ".as-run");
    }

    /**
     * The log of a board that is in play. A damaged one is kept aside and a new one begun; one that cannot be opened now,
     * as another program has locked it, is opened when there is something to write.
     *
     * @param told takes what there is to tell of it, in a sentence
     */
    public static LogStore ofBoard(Path file, Consumer<String> told) {
        try {
            return new LogStore(file);
        } catch (Trouble e) {
            if (!e.damaged()) {
                told.accept("The log can't be written yet: %s. Rombix keeps trying.".formatted(e.getMessage()));
                return new LogStore(file, true);
            }
        }
        try {
            Path aside = WholeFile.aside(file);
            for (String beside : List.of("-wal", "-shm")) { // They belong to the damaged one.
                Files.deleteIfExists(file.resolveSibling(file.getFileName() + beside));
            }
            told.accept("The log was damaged. It is kept as “%s”; a new one was started.".formatted(aside
                    .getFileName()));
        } catch (IOException e) {
            told.accept("The log is damaged and can't be moved: %s.".formatted(e.getMessage()));
        }
        return new LogStore(file, true);
    }

    /** The connection that writes; opened where it is not. Its lock is held. */
    private Connection writing() throws Trouble {
        Connection open = writing;
        if (open != null && Objects.equals(key, key())) {
            return open;
        }
        letGo(); // The file was taken away, or another one put in its place.
        Connection made = null;
        try {
            if (closed) {
                throw new IOException("it is closed");
            }
            owners(file);
            String url = "jdbc:sqlite:" + file.toAbsolutePath();
            made = DriverManager.getConnection(url);
            try (Statement s = made.createStatement()) {
                s.execute("PRAGMA journal_mode = WAL");
                s.execute("PRAGMA synchronous = NORMAL");
                s.execute("""
                        CREATE TABLE IF NOT EXISTS as_run (id INTEGER PRIMARY KEY AUTOINCREMENT, at INTEGER NOT NULL,
                         kind TEXT NOT NULL, press INTEGER NOT NULL, button TEXT NOT NULL, name TEXT NOT NULL,
                         who TEXT NOT NULL, place TEXT NOT NULL, gear TEXT NOT NULL, words TEXT NOT NULL,
                         late INTEGER NOT NULL, message TEXT NOT NULL, rehearsed INTEGER NOT NULL)""");
                s.execute(GoingTable.CREATE);
                s.execute("CREATE INDEX IF NOT EXISTS as_run_press ON as_run (press)");
                s.execute("CREATE INDEX IF NOT EXISTS as_run_at ON as_run (at)");
            }
            made.setAutoCommit(false);
            synchronized (reads) {
                reading = DriverManager.getConnection(url);
            }
            writing = made;
            key = key();
            return made;
        } catch (SQLException | IOException e) {
            closed(made);
            throw new Trouble("the as-run log %s can't be used: %s".formatted(file, e.getMessage()), e);
        }
    }

    private @Nullable Object key() {
        try {
            return Files.readAttributes(file, BasicFileAttributes.class).fileKey();
        } catch (IOException e) {
            return file; // It is not there.
        }
    }

    /** Takes back what was not committed. A connection that is broken, and not just locked out, is opened anew next time. */
    private Trouble failed(SQLException e) {
        Connection now = writing;
        try {
            if (now != null) {
                now.rollback();
            }
        } catch (SQLException f) {
            // There is nothing to take back.
        }
        int code = e.getErrorCode() & 0xFF;
        if (code != SQLiteErrorCode.SQLITE_BUSY.code && code != SQLiteErrorCode.SQLITE_LOCKED.code
                && code != SQLiteErrorCode.SQLITE_FULL.code) {
            letGo();
        }
        return new Trouble(String.valueOf(e.getMessage()), e);
    }

    private void letGo() {
        closed(writing);
        writing = null;
        synchronized (reads) {
            closed(reading);
            reading = null;
        }
    }

    private static void closed(@Nullable Connection c) {
        try {
            if (c != null) {
                c.close();
            }
        } catch (SQLException e) {
            // It is closed as far as it can be.
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
        synchronized (writes) {
            Connection db = writing();
            try (PreparedStatement s = db.prepareStatement("INSERT INTO as_run (" + COLUMNS
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
                db.commit();
            } catch (SQLException e) {
                throw failed(e);
            }
        }
    }

    /** Keeps what goes on now: what has begun, and nothing where it has ended, by a name of its own. */
    void going(Map<String, Optional<Left>> changes) throws Trouble {
        synchronized (writes) {
            Connection db = writing();
            try {
                going.keep(db, changes);
                db.commit();
            } catch (SQLException e) {
                throw failed(e);
            }
        }
    }

    /** What was going on in processes that were killed, until it is {@link #forget forgotten}. */
    public List<Left> leftOver() throws Trouble {
        synchronized (writes) {
            Connection db = writing();
            try {
                return going.leftOver(db);
            } catch (SQLException e) {
                throw failed(e);
            }
        }
    }

    /** Forgets what was going on in processes that were killed: it was ended, or somebody said to leave it. */
    public void forget() throws Trouble {
        synchronized (writes) {
            Connection db = writing();
            try {
                going.forget(db);
                db.commit();
            } catch (SQLException e) {
                throw failed(e);
            }
        }
    }

    /** The connection that reads. Its lock is held. */
    private Connection reading() throws Trouble {
        Connection open = reading;
        if (open == null) {
            throw new Trouble("the as-run log %s is not open yet".formatted(file), new IOException());
        }
        return open;
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
        synchronized (reads) {
            try (PreparedStatement s = reading().prepareStatement(sql.toString())) {
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

    /** The highest number of a press so far; empty while the file cannot be read. */
    OptionalLong lastPress() {
        synchronized (reads) {
            if (reading == null) {
                return OptionalLong.empty();
            }
        }
        return OptionalLong.of(number("SELECT COALESCE(MAX(press), 0) FROM as_run"));
    }

    /** How many rows are kept. */
    public long rows() {
        return number("SELECT COUNT(*) FROM as_run");
    }

    private long number(String sql) {
        synchronized (reads) {
            try (Statement s = reading().createStatement(); ResultSet r = s.executeQuery(sql)) {
                return r.next() ? r.getLong(1) : 0;
            } catch (SQLException | Trouble e) {
                return 0;
            }
        }
    }

    /** Lets go of rows that are older than {@value #MAX_DAYS} days, and of the oldest above {@value #MAX_ROWS}. */
    void tidy(long nowMillis) {
        tidy(nowMillis - TimeUnit.DAYS.toMillis(MAX_DAYS), MAX_ROWS);
    }

    void tidy(long oldestMillis, long max) {
        synchronized (writes) {
            try (PreparedStatement old = writing().prepareStatement("DELETE FROM as_run WHERE at < ?");
                    PreparedStatement many = writing().prepareStatement(
                            "DELETE FROM as_run WHERE id <= (SELECT id FROM as_run ORDER BY id DESC LIMIT 1 OFFSET ?)")) {
                old.setLong(1, oldestMillis);
                old.executeUpdate();
                many.setLong(1, max);
                many.executeUpdate();
                writing().commit();
            } catch (SQLException e) {
                failed(e);
            } catch (Trouble e) {
                // Then there is nothing to tidy.
            }
        }
    }

    @Override
    public void close() {
        synchronized (writes) {
            closed = true;
            letGo();
        }
    }
}
