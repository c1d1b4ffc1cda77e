package rombix.running.log;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import rombix.running.log.Aftermath.Left;

/** What runs and is held now, by process: what a killed process left stays in the table. The caller commits. */
final class GoingTable {
    static final String CREATE = "CREATE TABLE IF NOT EXISTS going (id TEXT PRIMARY KEY, button TEXT NOT NULL, what TEXT NOT NULL)";
    private static final String DELETE = "DELETE FROM going WHERE id = ?";

    /** Tells the rows of this process from those of others. */
    private final String process;

    GoingTable(String process) {
        this.process = process;
    }

    void keep(Connection db, Map<String, Optional<Left>> changes) throws SQLException {
        try (PreparedStatement begun = db.prepareStatement("INSERT OR REPLACE INTO going VALUES (?,?,?)");
                PreparedStatement over = db.prepareStatement(DELETE)) {
            for (Map.Entry<String, Optional<Left>> e : changes.entrySet()) {
                PreparedStatement s = e.getValue().isPresent() ? begun : over;
                s.setString(1, process + e.getKey());
                if (e.getValue().isPresent()) {
                    s.setString(2, e.getValue().get().button());
                    s.setString(3, e.getValue().get().what());
                }
                s.executeUpdate();
            }
        }
    }

    List<Left> leftOver(Connection db) throws SQLException {
        List<Left> left = new ArrayList<>();
        try (Statement s = db.createStatement();
                ResultSet all = s.executeQuery("SELECT id, button, what FROM going ORDER BY rowid")) {
            while (all.next()) {
                if (!alive(all.getString(1))) {
                    left.add(new Left(all.getString(2), all.getString(3)));
                }
            }
        }
        return left.stream().distinct().toList();
    }

    void forget(Connection db) throws SQLException {
        List<String> dead = new ArrayList<>();
        try (Statement s = db.createStatement(); ResultSet all = s.executeQuery("SELECT id FROM going")) {
            while (all.next()) {
                if (!alive(all.getString(1))) {
                    dead.add(all.getString(1));
                }
            }
        }
        try (PreparedStatement over = db.prepareStatement(DELETE)) {
            for (String id : dead) {
                over.setString(1, id);
                over.executeUpdate();
            }
        }
    }

    /** Who this process is, wherever it runs: its number, and when it began, as numbers are given again. */
    static String process(ProcessHandle of) {
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
}
