package rombix.running.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Rig;
import rombix.core.event.AsRun;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.store.BoardFile;
import rombix.core.time.SimulatedClock;
import rombix.running.log.LogRow.Kind;
import rombix.running.log.LogStore.Query;

class LogTest {
    private static final long WALL = 1_764_000_000_000L;
    @TempDir
    Path folder;
    private final SimulatedClock clock = new SimulatedClock();
    private LogStore store;

    @BeforeEach
    void open() throws LogStore.Trouble {
        store = new LogStore(folder.resolve("log.db"));
    }

    @AfterEach
    void close() {
        store.close();
    }

    private static LogRow row(Kind kind, long press, String name, String words, String message) {
        return new LogRow(0, WALL + press, kind, press, name, name, "mouse", "press/0", "desk", words, 1234, message,
                false);
    }

    private static void soon(java.util.concurrent.Callable<Boolean> what) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(5)).until(what);
    }

    @Test
    void rowsAreKeptAcrossRunsNewestFirst() throws Exception {
        store.add(List.of(row(Kind.PRESS, 1, "Gate", "press", ""), row(Kind.STEP, 1, "Gate", "Unlock Gate", "")));
        store.close();
        store = new LogStore(folder.resolve("log.db"));
        List<LogRow> rows = store.find(Query.newest(10));
        assertThat(rows).extracting(LogRow::words).containsExactly("Unlock Gate", "press");
        assertThat(rows.getFirst()).usingRecursiveComparison().ignoringFields("id").isEqualTo(row(Kind.STEP, 1, "Gate",
                "Unlock Gate", ""));
        assertThat(store.lastPress()).hasValue(1);
    }

    @Test
    void rowsAreFoundByWordsKindsAndPress() throws Exception {
        store.add(List.of(row(Kind.PRESS, 1, "Gate", "press", ""), row(Kind.FAULT, 1, "Gate", "Unlock Gate",
                "no answer at 10 %"), row(Kind.STEP, 2, "Tea_urn", "Tea urn on", "")));
        assertThat(store.find(new Query("gate ANSWER", Set.of(), 0, Long.MAX_VALUE, 9))).hasSize(1);
        assertThat(store.find(new Query("", Set.of(Kind.PRESS, Kind.STEP), 0, Long.MAX_VALUE, 9))).hasSize(2);
        assertThat(store.find(new Query("", Set.of(), 1, Long.MAX_VALUE, 9))).hasSize(2);
        assertThat(store.find(new Query("10 %", Set.of(), 0, Long.MAX_VALUE, 9))).as("signs are meant").hasSize(1);
        assertThat(store.find(new Query("_", Set.of(), 0, Long.MAX_VALUE, 9))).extracting(LogRow::name).containsExactly(
                "Tea_urn");
        assertThat(store.find(new Query("'; DROP TABLE as_run", Set.of(), 0, Long.MAX_VALUE, 9))).isEmpty();
        assertThat(store.rows()).isEqualTo(3);
    }

    @Test
    void olderRowsAreReadOnFromWhereOneStopped() throws Exception {
        List<LogRow> many = new ArrayList<>();
        for (int i = 1; i <= 25; i++) {
            many.add(row(Kind.STEP, i, "b", "s" + i, ""));
        }
        store.add(many);
        List<LogRow> first = store.find(Query.newest(10));
        List<LogRow> next = store.find(new Query("", Set.of(), 0, first.getLast().id(), 10));
        assertThat(first).extracting(LogRow::words).startsWith("s25").endsWith("s16");
        assertThat(next).extracting(LogRow::words).startsWith("s15").endsWith("s6");
    }

    @Test
    void oldRowsAndTheOldestOfTooManyGo() throws Exception {
        List<LogRow> many = new ArrayList<>();
        for (int i = 1; i <= 30; i++) {
            many.add(row(Kind.STEP, i, "b", "s" + i, ""));
        }
        store.add(many);
        store.tidy(WALL + 6, 20);
        assertThat(store.find(Query.newest(99))).extracting(LogRow::words).hasSize(20).startsWith("s30")
                .endsWith("s11");
        store.tidy(WALL + 28, 20);
        assertThat(store.find(Query.newest(99))).extracting(LogRow::words).containsExactly("s30", "s29", "s28");
    }

    @Test
    void aFileThatIsNoLogIsSaidSo() throws IOException {
        Path file = Files.writeString(folder.resolve("other.db"), "this is a letter, not a database".repeat(99));
        assertThatThrownBy(() -> new LogStore(file)).isInstanceOf(LogStore.Trouble.class).hasMessageContaining(
                "other.db");
        assertThat(Files.readString(file)).startsWith("this is a letter");
    }

    @Test
    void whatHappensBecomesRowsWithWhoPressedAndWhen() throws Exception {
        Rig rig = BoardFile.read(Path.of("../demo/star-night.json"));
        clock.advance(TimeUnit.SECONDS.toNanos(100));
        long pressed = TimeUnit.SECONDS.toNanos(99);
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL)) {
            writer.accept(new Happening.Loaded(rig), false, clock);
            writer.accept(new Happening.Started(7, "gate", "press", "key G", pressed, 0), false, clock);
            writer.accept(new Happening.Ran(new AsRun(pressed, pressed + 2_500_000, 7, "gate", "press/0", "", "house",
                    "unlock", Map.of(), "Unlock Gate", AsRun.Outcome.SENT, "")), false, clock);
            writer.accept(new Happening.Ran(new AsRun(pressed, pressed, 0, "", "", "hand", "desk", "mute", Map.of(),
                    "Mute Host", AsRun.Outcome.FAULT, "no answer")), false, clock);
            writer.accept(new Happening.Came("house", "locked/gate", rombix.core.value.Value.of(true)), false, clock);
            writer.accept(new Happening.Started(7, "gate", "press", "mouse", pressed, 0), true, clock);
            writer.accept(new Happening.Ended(7, "gate", Happening.End.STOPPED, pressed + 5_000_000), true, clock);
            soon(() -> writer.kept() == 5);
            List<LogRow> rows = store.find(Query.newest(9)).reversed();
            assertThat(rows).extracting(LogRow::kind).containsExactly(Kind.PRESS, Kind.STEP, Kind.FAULT, Kind.PRESS,
                    Kind.STOP);
            assertThat(rows.get(0)).satisfies(r -> {
                assertThat(r.name()).isEqualTo("Gate");
                assertThat(r.who()).isEqualTo("key G");
                assertThat(r.atMillis()).as("a second before now").isEqualTo(WALL - 1000);
            });
            assertThat(rows.get(1).lateMicros()).isEqualTo(2500);
            assertThat(rows.get(1).press()).isEqualTo(rows.get(0).press());
            assertThat(rows.get(2).who()).isEqualTo("hand");
            assertThat(rows.get(4).rehearsed()).isTrue();
            assertThat(rows.get(4).press()).as("a run on twins is another press").isEqualTo(rows.get(3).press())
                    .isNotEqualTo(rows.get(0).press());
        }
    }

    @Test
    void answersAreRowsAndWhatComesAfterTheEndStillBelongsToItsPress() throws Exception {
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL)) {
            writer.accept(new Happening.Started(7, "gate", "press", "mouse", 0, 0), false, clock);
            writer.accept(new Happening.Ended(7, "gate", Happening.End.DONE, 0), false, clock);
            writer.accept(new Happening.Ran(new AsRun(0, 0, 7, "gate", "press/0", "", "house", "unlock", Map.of(),
                    "Unlock Gate", AsRun.Outcome.SENT, "")), false, clock);
            writer.accept(new Happening.Answered(7, "gate", "", "house", "unlocked", 0, 40_000_000), false, clock);
            writer.accept(new Happening.Answered(7, "gate", "press/1", "", "“Sure?”: Yes", 0, 0), false, clock);
            soon(() -> writer.kept() == 5);
            List<LogRow> rows = store.find(Query.newest(9)).reversed();
            assertThat(rows).extracting(LogRow::press).containsOnly(rows.getFirst().press()).doesNotContain(0L);
            assertThat(rows.get(3).kind()).isEqualTo(Kind.ANSWER);
            assertThat(rows.get(3).lateMicros()).as("how long it took").isEqualTo(40_000);
            assertThat(rows.get(4).who()).isEqualTo("person");
        }
    }

    @Test
    void aNoteStandsWithThePressThatWroteIt() throws Exception {
        try (LogWriter writer = new LogWriter(store, clock, () -> 5000)) {
            writer.accept(new Happening.Started(7, "gate", "press", "mouse", 0, 0), false, clock);
            writer.accept(new Happening.Noted(7, "gate", "press/1", "Warm room 19 °C", 0), false, clock);
            soon(() -> writer.kept() == 2);
            LogRow note = store.find(new Query("19 °c", Set.of(Kind.NOTE), 0, Long.MAX_VALUE, 9)).getFirst();
            assertThat(note.press()).isEqualTo(store.find(Query.newest(9)).getLast().press());
            assertThat(note.words()).isEqualTo("Warm room 19 °C");
            assertThat(note.place()).isEqualTo("press/1");
        }
    }

    @Test
    void aRehearsalThatGoesFasterIsKeptAtTheWallsTime() throws Exception {
        rombix.core.time.FastClock fast = new rombix.core.time.FastClock(clock);
        fast.factor(20);
        clock.advance(TimeUnit.SECONDS.toNanos(60)); // Twenty minutes on the clock of the rehearsal.
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL)) {
            writer.accept(new Happening.Started(1, "gate-camera", "press", "mouse", fast.nanos(), 0), true, fast);
            soon(() -> writer.kept() == 1);
            assertThat(store.find(Query.newest(1)).getFirst().atMillis()).isEqualTo(WALL);
        }
    }

    @Test
    void whoMovedALevelIsSaid() throws Exception {
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL)) {
            writer.accept(
                    new Happening.Ran(new AsRun(0, 0, 0, "host-level", "", "MIDI Pads, control 7", "desk", "level",
                            Map.of(), "Host to −6 dB", AsRun.Outcome.SENT, "")),
                    false, clock);
            soon(() -> writer.kept() == 1);
            assertThat(store.find(Query.newest(1)).getFirst()).satisfies(r -> {
                assertThat(r.who()).isEqualTo("MIDI Pads, control 7");
                assertThat(r.place()).isEmpty();
            });
        }
    }

    @Test
    void pressesGoOnCountingFromTheRunBefore() throws Exception {
        store.add(List.of(row(Kind.PRESS, 41, "Gate", "press", "")));
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL)) {
            writer.accept(new Happening.Started(1, "gate-camera", "press", "mouse", 0, 0), false, clock);
            soon(() -> writer.kept() == 1);
            assertThat(store.find(Query.newest(1)).getFirst().press()).isEqualTo(42);
        }
    }

    @Test
    void whatWaitsIsKeptWhenTheLogIsClosed() throws Exception {
        LogWriter writer = new LogWriter(store, clock, () -> WALL);
        for (int i = 1; i <= 5000; i++) {
            writer.accept(new Happening.Started(i, "gate", "press", "mouse", 0, 0), false, clock);
        }
        writer.close();
        store = new LogStore(folder.resolve("log.db"));
        assertThat(store.rows()).isEqualTo(5000);
    }

    private void presses(LogWriter writer, int from, int to) {
        for (int i = from; i <= to; i++) {
            writer.accept(new Happening.Started(i, "gate", "press", "mouse", 0, 0), false, clock);
        }
    }

    /** What was run while another program had locked the file was gone. */
    @Test
    void whatIsRunWhileTheLogIsLockedIsKeptWhenItIsFree() throws Exception {
        List<String> troubles = new CopyOnWriteArrayList<>();
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL);
                Connection other = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("log.db"))) {
            writer.whenTroubled(troubles::add);
            try (Statement lock = other.createStatement()) {
                lock.execute("BEGIN EXCLUSIVE");
                presses(writer, 1, 3);
                soon(() -> !troubles.isEmpty());
                assertThat(troubles.getFirst()).contains("locked");
                lock.execute("ROLLBACK");
            }
            presses(writer, 4, 4);
            soon(() -> writer.kept() == 4);
            soon(() -> troubles.getLast().isEmpty());
            assertThat(store.find(Query.newest(9))).extracting(LogRow::press).containsExactly(4L, 3L, 2L, 1L);
        }
    }

    @Test
    void howManyRowsAreLostStandsInTheLogWhenItCanBeWrittenAgain() throws Exception {
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL);
                Connection other = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("log.db"));
                Statement lock = other.createStatement()) {
            List<String> troubles = new CopyOnWriteArrayList<>();
            writer.whenTroubled(troubles::add);
            lock.execute("BEGIN EXCLUSIVE");
            presses(writer, 1, LogWriter.MAX_UNKEPT + 3);
            soon(() -> !troubles.isEmpty());
            lock.execute("ROLLBACK");
            soon(() -> writer.kept() == LogWriter.MAX_UNKEPT + 1);
            assertThat(store.find(new Query("", Set.of(Kind.FAULT), 0, Long.MAX_VALUE, 9))).singleElement().satisfies(
                    r -> assertThat(r.message()).isEqualTo("3 rows couldn't be written, and are lost"));
        }
    }

    @Test
    void whatCouldNotBeWrittenIsTriedOnceMoreWhenTheLogIsClosed() throws Exception {
        LogWriter writer = new LogWriter(store, clock, () -> WALL);
        List<String> troubles = new CopyOnWriteArrayList<>();
        writer.whenTroubled(troubles::add);
        try (Connection other = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("log.db"));
                Statement lock = other.createStatement()) {
            lock.execute("BEGIN EXCLUSIVE");
            presses(writer, 1, 2);
            soon(() -> !troubles.isEmpty());
        }
        writer.close();
        store = new LogStore(folder.resolve("log.db"));
        assertThat(store.rows()).isEqualTo(2);
    }

    /** A log that was taken away under a show stayed unwritten until the next start. */
    @Test
    void aLogThatIsTakenAwayIsBegunAnew() throws Exception {
        try (LogWriter writer = new LogWriter(store, clock, () -> WALL)) {
            presses(writer, 1, 1);
            soon(() -> writer.kept() == 1);
            Files.move(folder.resolve("log.db"), folder.resolve("taken.db"));
            presses(writer, 2, 2);
            soon(() -> writer.kept() == 2);
        }
        store = new LogStore(folder.resolve("log.db"));
        assertThat(store.find(Query.newest(9))).extracting(LogRow::press).containsExactly(2L);
    }

    @Test
    void aDamagedLogOfABoardIsKeptAsideAndANewOneBegun() throws Exception {
        Path file = Files.writeString(folder.resolve("other.db"), "this is a letter, not a database".repeat(99));
        List<String> told = new CopyOnWriteArrayList<>();
        LogStore anew = LogStore.ofBoard(file, told::add);
        try (LogWriter writer = new LogWriter(anew, clock, () -> WALL)) {
            presses(writer, 1, 1);
            soon(() -> writer.kept() == 1);
        }
        assertThat(told)
                .containsExactly("The log was damaged. It is kept as “other.db.damaged”; a new one was started.");
        assertThat(Files.readString(folder.resolve("other.db.damaged"))).startsWith("this is a letter");
    }

    @Test
    void aLogThatIsLockedAtTheStartIsWrittenLater() throws Exception {
        List<String> told = new CopyOnWriteArrayList<>();
        try (Connection other = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("new.db"));
                Statement lock = other.createStatement()) {
            lock.execute("BEGIN EXCLUSIVE");
            LogStore later = LogStore.ofBoard(folder.resolve("new.db"), told::add);
            assertThat(told).singleElement().asString().contains("can't be written yet", "keeps trying");
            try (LogWriter writer = new LogWriter(later, clock, () -> WALL)) {
                presses(writer, 1, 2);
                lock.execute("ROLLBACK");
                soon(() -> writer.kept() == 2);
            }
        }
        store.close();
        store = new LogStore(folder.resolve("new.db"));
        assertThat(store.find(Query.newest(9))).extracting(LogRow::press).containsExactly(WALL + 2, WALL + 1);
    }

    @Test
    void csvHasAHeadQuotesWhatNeedsItAndGivesSpreadsheetsNoFormula() {
        StringWriter out = new StringWriter();
        LogCsv.write(List.of(row(Kind.FAULT, 3, "Gate, \"main\"", "=SUM(A1)", "line one\nline two")), ZoneOffset.UTC,
                out);
        String[] lines = out.toString().split("\r\n");
        assertThat(lines[0]).isEqualTo("time,kind,press,button,name,who,place,gear,words,late_ms,message,rehearsed");
        assertThat(lines[1]).startsWith("2025-11-24T16:00:00.003+00:00,fault,3,\"Gate, \"\"main\"\"\"").contains(
                ",'=SUM(A1),1.234,\"line one\nline two\",false");
    }

    @Test
    void whatWasHeldOrRanWhenTheProcessWasKilledIsKnownAtTheNextStart() throws Exception {
        store.close();
        store = new LogStore(folder.resolve("new.db"), "999999999@0 ");
        LogWriter writer = new LogWriter(store, clock, () -> WALL);
        writer.accept(new Happening.Started(1, "gate-camera", "press", "mouse", 0, 0), false, clock);
        writer.accept(new Happening.Started(2, "over", "press", "mouse", 0, 0), false, clock);
        writer.accept(new Happening.Ended(2, "over", Happening.End.DONE, 0), false, clock);
        writer.accept(new Happening.Shows("host-talk", 0, -1, true), false, clock);
        writer.accept(new Happening.Shows("cough", 0, -1, true), false, clock);
        writer.accept(new Happening.Shows("cough", 0, -1, false), false, clock);
        writer.accept(new Happening.Shows("rehearsed", 0, -1, true), true, clock);
        writer.close(); // Nothing says that these have ended: the process was killed.
        store = new LogStore(folder.resolve("new.db"));
        Rig rig = BoardFile.read(Path.of("../demo/star-night.json"));
        Aftermath left = new Aftermath(store.leftOver()).of(rig);
        assertThat(left.left())
                .containsExactlyInAnyOrder(new Aftermath.Left("gate-camera", "press"), new Aftermath.Left(
                        "host-talk", "hold"))
                .isNotEmpty();
        assertThat(left.words(rig)).contains("“Host talk” was held");
        assertThat(left.ends(rig, Known.NOTHING)).isNotEmpty();
        assertThat(store.leftOver()).as("a second kill loses nothing").isNotEmpty();
        store.forget();
        assertThat(store.leftOver()).as("it was answered").isEmpty();
    }

    /** A second Rombix ended what the first one held, live. */
    @Test
    void whatAnotherRombixHoldsIsNotTakenForLeftOver() throws Exception {
        LogWriter writer = new LogWriter(store, clock, () -> WALL);
        writer.accept(new Happening.Shows("host-talk", 0, -1, true), false, clock);
        soon(() -> {
            try (LogStore second = new LogStore(folder.resolve("new.db"), "999999999@0 ")) {
                second.forget();
                return second.leftOver().isEmpty();
            }
        });
        writer.close();
    }
}
