package rombix.running.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.File;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.value.Visible;

@Timeout(300)
class ShellTest {
    @TempDir
    Path folder;
    private Path board;
    private final BlockingQueue<String> asked = new ArrayBlockingQueue<>(100);
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    @BeforeEach
    void board() throws Exception {
        board = Files.writeString(folder.resolve("a board with a rather long name, spaces and ümlauts.json"), "{}");
    }

    private Doorkeeper keeper() {
        return new Doorkeeper((args, to, wrong) -> {
            asked.add(String.join(" ", args));
            to.println("done “" + args[2] + "”");
            to.flush();
            wrong.println("but");
            wrong.flush();
            return 7;
        });
    }

    private OptionalInt call(String... args) {
        return Caller.call(args, new PrintStream(out, true, StandardCharsets.UTF_8), new PrintStream(err, true,
                StandardCharsets.UTF_8));
    }

    @Test
    void aCommandIsCarriedOutWhereItsBoardIsOpen() throws Exception {
        try (Doorkeeper keeper = keeper()) {
            keeper.keep(board);
            Path otherWay = folder.resolve("x").resolve("..").resolve(board.getFileName());
            Files.createDirectory(folder.resolve("x"));
            assertThat(call("press", otherWay.toString(), "gate")).hasValue(7);
            assertThat(asked.take()).isEqualTo("press " + otherWay + " gate");
            assertThat(out.toString(StandardCharsets.UTF_8)).isEqualToIgnoringNewLines("done “gate”");
            assertThat(err.toString(StandardCharsets.UTF_8)).isEqualToIgnoringNewLines("but");
        }
    }

    /** {@code traffic --follow | head -1} went on for ever. */
    @Test
    void whoeverFollowsEndsWhenNobodyReadsOn() throws Exception {
        BlockingQueue<String> ended = new ArrayBlockingQueue<>(1);
        try (Doorkeeper keeper = new Doorkeeper((_, to, _) -> {
            try {
                while (true) {
                    to.println("one more");
                    to.flush();
                    Thread.sleep(1);
                }
            } catch (InterruptedException e) {
                ended.add("interrupted");
                return 0;
            }
        })) {
            keeper.keep(board);
            PrintStream closed = new PrintStream(out);
            closed.close();
            assertThat(Caller.call(new String[]{"traffic", board.toString(), "--follow"}, closed, closed)).hasValue(0);
            assertThat(ended.take()).isEqualTo("interrupted");
        }
    }

    @Test
    void nobodyAnswersForABoardThatIsNotOpenOrForOtherCommands() throws Exception {
        Path other = Files.writeString(folder.resolve("other.json"), "{}");
        assertThat(call("press", board.toString(), "gate")).isEmpty();
        try (Doorkeeper keeper = keeper()) {
            keeper.keep(board);
            assertThat(call("press", other.toString(), "gate")).isEmpty();
            assertThat(call("cards", board.toString(), "gate")).isEmpty();
            assertThat(call("press", board.toString(), "gate", "--stand-ins")).isEmpty();
            assertThat(call("press", board.toString(), "gate", "--at", "studio=127.0.0.1:1")).isEmpty();
            keeper.keep(other);
            assertThat(call("press", board.toString(), "gate")).as("it was left for another").isEmpty();
            assertThat(call("press", other.toString(), "gate")).hasValue(7);
        }
        assertThat(call("press", other.toString(), "gate")).as("it was closed").isEmpty();
    }

    /** What a shell starts has no library on its class path: the caller needs none. */
    @Test
    void aProgramOfItsOwnAsksOrSaysThatNobodyHasTheBoardOpen() throws Exception {
        Path plain = Files.writeString(folder.resolve("plain.json"), "{}");
        assertThat(called(plain)).isEqualTo(113);
        try (Doorkeeper keeper = keeper()) {
            keeper.keep(plain);
            assertThat(called(plain)).isEqualTo(7);
            assertThat(asked.take()).isEqualTo("press " + plain + " gate");
        }
        assertThat(folder.resolve("said.txt")).content().isEqualToIgnoringNewLines("done “gate”but");
    }

    private int called(Path plain) throws Exception {
        List<String> parts = new ArrayList<>();
        for (Class<?> of : List.of(Caller.class, Visible.class)) {
            parts.add(Path.of(of.getProtectionDomain().getCodeSource().getLocation().toURI()).toString());
        }
        Process caller = new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(), "-XX:+UseSerialGC",
                "-Dstdout.encoding=UTF-8", "-cp", String.join(File.pathSeparator, parts), Caller.class.getName(),
                "press", plain.toString(), "gate").redirectErrorStream(true)
                .redirectOutput(folder.resolve("said.txt").toFile()).start();
        try {
            assertThat(caller.waitFor(60, TimeUnit.SECONDS)).isTrue();
            return caller.exitValue();
        } finally {
            caller.destroyForcibly();
        }
    }

    /** Two that were started with other folders for their sockets both had the board open, and neither knew. */
    @Test
    void aBoardIsOpenInOneRombixOnlyWhereverTheSocketsAre() throws Exception {
        Path real = CommandSocket.real(board);
        try (Doorkeeper keeper = keeper()) {
            try (BoardLock other = Objects.requireNonNull(BoardLock.of(real))) {
                assertThat(keeper.keep(board)).isFalse();
                assertThat(other).isNotNull();
            }
            assertThat(keeper.keep(board)).isTrue();
            assertThatThrownBy(() -> BoardLock.of(real)).isInstanceOf(BoardLock.Taken.class);
        }
        assertThat(folder.resolve("." + board.getFileName() + ".lock")).doesNotExist();
    }

    @Test
    void aSocketLeftBehindByOneThatDiedIsTakenOver() throws Exception {
        CommandSocket.makeFolder();
        Path left = CommandSocket.of(CommandSocket.real(board));
        Files.writeString(left, "");
        assertThat(call("press", board.toString(), "gate")).isEmpty();
        try (Doorkeeper keeper = keeper()) {
            keeper.keep(board);
            assertThat(call("press", board.toString(), "gate")).hasValue(7);
        }
        assertThat(left).doesNotExist();
    }

    @Test
    void theFirstThatOpensABoardKeepsTheDoor() {
        try (Doorkeeper first = keeper(); Doorkeeper second = new Doorkeeper((_, _, _) -> 8)) {
            first.keep(board);
            second.keep(board);
            assertThat(call("press", board.toString(), "gate")).hasValue(7);
        }
    }
}
