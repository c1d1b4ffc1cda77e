package rombix.core.store;

import java.nio.file.Path;

/** A file that cannot be used. Its message is one sentence for a person, with the file, line and column in front. */
public final class BadFile extends Exception {
    private static final long serialVersionUID = 1L;

    private final String reason;
    private final int line;
    private final int column;

    /** A flaw at a place; lines and columns count from 1, 0 where there is none. */
    public BadFile(Path file, int line, int column, String message) {
        super((line > 0 ? "%s:%d:%d: ".formatted(file, line, column) : file + ": ") + message);
        this.reason = message;
        this.line = line;
        this.column = column;
    }

    /** What is wrong, without where. */
    public String reason() {
        return reason;
    }

    public int line() {
        return line;
    }

    public int column() {
        return column;
    }
}
