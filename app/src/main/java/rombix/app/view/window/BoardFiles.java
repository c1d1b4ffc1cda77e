package rombix.app.view.window;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.FutureTask;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.app.edit.Workbench;
import rombix.app.edit.file.BoardWrite;
import rombix.app.edit.file.Elsewhere;
import rombix.app.view.common.Desk;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.bundle.Bundle;
import rombix.core.diff.BoardMerge;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.BoardFile.Stamp;
import rombix.core.thread.Idle;
import rombix.running.owner.OpenedBoard;

/** The board's file as the hand meets it: save, choose another, open it; what goes wrong is said as a notice. */
public final class BoardFiles {
    private static final Logger LOG = LoggerFactory.getLogger(BoardFiles.class);

    /** How often what is not safe is written before another board comes: where it can't be, it is told. */
    private static final int ROUNDS = 2;

    /** What notices are about. */
    private static final String SAVING = "saving";
    private static final String ELSEWHERE = "elsewhere";
    private static final String LOGGING = "logging";
    private static final String REMEMBERING = "remembering";

    private final Desk desk;
    private final Workbench bench;
    private final Guests guests;
    private final Notices notices;
    private final Node over;

    private final ExecutorService writer = Idle.executor("board writer");
    /** The change by another program that was asked about. */
    private Optional<Stamp> asked = Optional.empty();
    private Runnable bare = () -> {
    };
    private Consumer<Path> bundles = _ -> {
    };
    /** Whether a save was asked for that has not begun. */
    private boolean saves;
    private boolean looking;
    private final AtomicInteger writing = new AtomicInteger();
    private final Queue<Runnable> done = new ConcurrentLinkedQueue<>();

    /** @param over something in the window that a chooser of files is to stand over */
    BoardFiles(Desk desk, Guests guests, Notices notices, Node over) {
        this.desk = desk;
        this.bench = desk.bench();
        this.guests = guests;
        this.notices = notices;
        this.over = over;
    }

    public void save() {
        saves = true;
        look(now -> {
            if (saves) {
                save(now);
            }
        });
    }

    /** @param now the file as it is */
    private void save(Optional<Stamp> now) {
        saves = false;
        if (now.isPresent() && !now.equals(bench.stamp())) {
            changedElsewhere(now); // Never over what somebody else has written, unasked.
        } else {
            write(bench.toSave(bench.file()));
        }
    }

    /** Once a second: writes what is not saved yet to the journal, and looks whether somebody else wrote the file. */
    void autosave() {
        settle();
        if (writing.get() == 0) {
            bench.toJournal().ifPresent(this::write);
            if (!looking) {
                looking = true;
                look(now -> {
                    looking = false;
                    if (now.isPresent() && bench.stamp().isPresent() && !now.equals(bench.stamp())
                            && !now.equals(asked)) {
                        changedElsewhere(now);
                    }
                });
            }
        }
    }

    /** Reads when the file was changed last, on the writer's thread: the disk may be far away. */
    private void look(Consumer<Optional<Stamp>> then) {
        settle(); // What was written just now is no change by somebody else.
        Path file = bench.file();
        Optional<Stamp> known = bench.stamp();
        writer.execute(() -> {
            Optional<Stamp> now = Stamp.of(file);
            Platform.runLater(() -> {
                settle();
                if (writing.get() == 0 && file.equals(bench.file()) && known.equals(bench.stamp())) {
                    then.accept(now);
                } else {
                    look(then); // We have written it meanwhile.
                }
            });
        });
    }

    private void changedElsewhere(Optional<Stamp> now) {
        asked = now;
        Path file = bench.file();
        CompletableFuture.supplyAsync(Elsewhere.reading(file, bench.saved()), writer).thenAcceptAsync(
                found -> changedElsewhere(now, file, found), Platform::runLater);
    }

    private void changedElsewhere(Optional<Stamp> now, Path file, Elsewhere found) {
        if (!file.equals(bench.file())) {
            return; // Another board was opened meanwhile.
        }
        List<Notices.Way> ways = new ArrayList<>(List.of(new Notices.Way("take-theirs", "Load their version",
                () -> theirs(file)), new Notices.Way("keep-mine", "Keep my version", () -> {
                    bench.seen(now);
                    write(bench.toSave(file));
                }), new Notices.Way("keep-both", "Keep both", () -> both(file))));
        found.merged().filter(_ -> bench.unsaved()).ifPresent(m -> ways.addFirst(new Notices.Way("merge", "Merge",
                () -> merge(now, m.apply(bench.rig())))));
        notices.state(ELSEWHERE, "“%s” was changed by another program. %s".formatted(file.getFileName(), Elsewhere
                .words(found.changes(), 1)).strip(), ways.toArray(Notices.Way[]::new));
    }

    /** What the other program changed comes into the board as it is here; it can be undone. */
    private void merge(Optional<Stamp> now, BoardMerge.Merged merged) {
        guests.before(merged.board(), () -> {
            bench.seen(now);
            bench.edit("merge their version", _ -> merged.board());
            notices.state(ELSEWHERE, "");
            Elsewhere.stayed(merged).ifPresent(notices::show);
        });
    }

    /** The file as it is now takes the place of what is here. */
    private void theirs(Path file) {
        bench.discardUnsaved();
        writer.execute(() -> {
            try {
                Files.deleteIfExists(BoardFile.journalOf(file));
            } catch (IOException e) {
                LOG.warn("{} can't be deleted: {}", BoardFile.journalOf(file), e.getMessage());
            }
        });
        open(file);
        notices.state(ELSEWHERE, "");
    }

    /** The board as it is here is saved beside, and theirs is opened. */
    private void both(Path file) {
        String name = String.valueOf(file.getFileName()).replaceFirst("\\.json$", "") + "-mine";
        String free = Edits.freshId(name, "board", id -> Files.exists(file.resolveSibling(id + ".json")));
        Board mine = bench.board();
        writer.execute(() -> {
            try {
                BoardFile.save(file.resolveSibling(free + ".json"), mine.withName(mine.name() + " (mine)"));
                Platform.runLater(() -> {
                    theirs(file);
                    notices.show("Your version was saved as “" + free + ".json”.");
                });
            } catch (IOException e) {
                Platform.runLater(
                        () -> notices.state(SAVING, "Your version can't be saved next to it: " + e.getMessage()));
            }
        });
    }

    /** Writes on the writer's thread: a board with pictures takes longer than a frame. */
    private void write(BoardWrite write) {
        writing.incrementAndGet();
        Consumer<Board> made = guests.made(bench.rig());
        writer.execute(() -> {
            IOException trouble = null;
            try {
                made.accept(write.board());
                write.write();
            } catch (IOException e) {
                trouble = e;
            }
            IOException wrong = trouble;
            done.add(() -> done(write, wrong));
            writing.decrementAndGet();
            Platform.runLater(this::settle);
        });
    }

    private void done(BoardWrite write, @Nullable IOException trouble) {
        if (trouble == null) {
            bench.written(write);
            notices.state(SAVING, ""); // It could be written again.
            if (!write.journal()) {
                notices.state(ELSEWHERE, "");
            }
            return;
        }
        LOG.warn("{} can't be written: {}", write.file(), trouble.getMessage());
        bench.notWritten(write);
        notices.state(SAVING, write.journal()
                ? "Your changes can't be autosaved: " + trouble.getMessage() + ". Save the board somewhere else."
                : "Can't save the board: " + trouble.getMessage()
                        + ". Your work is still here: free some disk space, or save it somewhere else.");
    }

    private void settle() {
        for (Runnable r = done.poll(); r != null; r = done.poll()) {
            r.run();
        }
    }

    /** Does something once all is written, what is not safe yet too. */
    private void whenSafe(Runnable next) {
        whenSafe(ROUNDS, next);
    }

    private void whenSafe(int rounds, Runnable next) {
        settle();
        boolean writes = writing.get() > 0; // What is being saved is no edit to keep in the journal.
        Optional<BoardWrite> left = writes || rounds == 0 ? Optional.empty() : bench.toJournal();
        if (!writes && rounds < ROUNDS && left.isEmpty()) {
            next.run();
            return;
        }
        left.ifPresent(this::write);
        writer.execute(() -> Platform.runLater(() -> whenSafe(writes ? rounds : rounds - 1, next)));
    }

    /** Waits until all is written, what is not safe yet too: before the window goes. */
    void flush() {
        try {
            for (int i = 0; i < ROUNDS; i++) { // What is being written now, and what there is after it.
                writer.submit(() -> {
                }).get();
                settle();
                if (saves) {
                    save(Stamp.of(bench.file()));
                }
                if (writing.get() == 0) {
                    bench.toJournal().ifPresent(this::write);
                }
            }
            writer.submit(() -> {
            }).get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (ExecutionException e) {
            LOG.warn("the writer failed", e);
        }
    }

    /** Asks for another board, and opens it. */
    void choose() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Open a board");
        chooser.getExtensionFilters()
                .add(new FileChooser.ExtensionFilter("Boards and bundles", "*.json", "*" + Bundle.END));
        Path folder = bench.file().toAbsolutePath().getParent();
        if (folder != null && folder.toFile().isDirectory()) {
            chooser.setInitialDirectory(folder.toFile());
        }
        File chosen = chooser.showOpenDialog(over.getScene().getWindow());
        if (chosen != null) {
            open(chosen.toPath());
        }
    }

    /** What is done with a bundle that is opened, and once a board without gear was made. */
    void whenOpened(Consumer<Path> bundle, Runnable withoutGear) {
        bundles = bundle;
        bare = withoutGear;
    }

    /** Makes a board's file on the writer's thread, and opens it. */
    void make(Path file, Supplier<String> text, Consumer<String> trouble) {
        Rig rig = bench.rig();
        Consumer<Board> made = guests.made(rig);
        writer.execute(() -> {
            try {
                String whole = text.get();
                BoardFile.make(file, whole);
                try {
                    made.accept(BoardFile.parse(file, whole, rig.cards()));
                } catch (BadFile e) {
                    LOG.warn("{}", e.getMessage()); // Opening it says so.
                }
                Platform.runLater(() -> {
                    desk.overlay().close();
                    open(file, () -> {
                        if (bench.board().gear().isEmpty()) {
                            bare.run();
                        }
                    });
                });
            } catch (IOException e) {
                LOG.warn("{} can't be created", file, e);
                Platform.runLater(() -> trouble.accept("Can't save the board: " + e.getMessage()));
            }
        });
    }

    /**
     * Opens another board, and does not wait for it: it is read while the deck goes on. A bad one is told of, and all stays
     * as it was.
     */
    public void open(Path file) {
        open(file, () -> {
        });
    }

    /** @param then done when it is there */
    private void open(Path file, Runnable then) {
        if (Bundle.named(file)) {
            bundles.accept(file);
            return;
        }
        whenSafe(() -> Thread.ofPlatform().daemon().name("opening").start(() -> {
            Consumer<OpenedBoard> taken = opened -> take(opened, then);
            if (Opening.large(file)) {
                FutureTask<OpenedBoard> reading = new FutureTask<>(() -> OpenedBoard.read(file));
                Platform.runLater(() -> {
                    new Opening(desk, file, reading).show(over, taken, notices::show);
                    Thread.ofPlatform().daemon().name("opening").start(reading);
                });
                return;
            }
            try {
                OpenedBoard opened = OpenedBoard.read(file);
                Platform.runLater(() -> taken.accept(opened));
            } catch (BadFile e) {
                Platform.runLater(() -> notices.show(String.valueOf(e.getMessage())));
            }
        }));
    }

    private void take(OpenedBoard opened, Runnable then) {
        whenSafe(() -> {
            guests.meet(opened.rig());
            bench.take(opened);
            asked = Optional.empty();
            tell(opened.notices());
            guests.met();
            then.run();
        });
    }

    /** Shows a notice with two answers. */
    public void ask(String what, String way, Runnable run, String other, Runnable otherwise) {
        notices.show(what, new Notices.Way("notice-way", way, run), new Notices.Way("notice-other", other, otherwise));
    }

    /** Says that what is run is not logged, and why; nothing once it is again. */
    public void log(String why) {
        notices.state(LOGGING,
                why.isEmpty() ? "" : "The log can't be written: " + why + ". Rombix keeps trying; the show goes on.");
    }

    /** Says that this computer remembers nothing, and why; nothing once it does again. */
    public void forgetful(String why) {
        notices.state(REMEMBERING, why.isEmpty()
                ? ""
                : "Settings can't be saved on this computer: " + why + ". The show goes on.");
    }

    /** Says what is to be known of a board or of this computer. */
    public void tell(List<String> what) {
        what.forEach(notices::show);
    }
}
