package rombix.app.cli.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import picocli.CommandLine;
import rombix.app.cli.RombixCommand;
import rombix.core.board.Board;
import rombix.core.edit.Edits;
import rombix.core.store.BoardFile;

/** Boards are handed over from a shell. */
@Execution(ExecutionMode.CONCURRENT)
class ShareCommandsTest {
    @TempDir
    private Path folder;
    private Path base;
    private final StringWriter said = new StringWriter();

    @BeforeEach
    void board() throws Exception {
        base = Files.copy(Path.of("../demo/star-night.json"), folder.resolve("base.json"));
    }

    private int run(Object... args) {
        String[] words = java.util.Arrays.stream(args).map(String::valueOf).toArray(String[]::new);
        said.getBuffer().setLength(0);
        CommandLine line = RombixCommand.line(words);
        line.setOut(new PrintWriter(said, true)).setErr(new PrintWriter(said, true));
        return line.execute(words);
    }

    private Path renamed(String file, String button, String name) throws Exception {
        Board board = Edits.button(BoardFile.read(base).board(), button, b -> b.withName(name));
        return Files.writeString(folder.resolve(file), BoardFile.format(board));
    }

    @Test
    void whatDiffersIsToldInWordsOrAsJson() throws Exception {
        assertThat(run("diff", base, base)).isZero();
        Path after = renamed("after.json", "gate", "Main gate");
        assertThat(run("diff", base, after)).isEqualTo(1);
        assertThat(said.toString().strip()).isEqualTo("Main gate: the name is “Main gate” instead of “Gate”.");
        assertThat(run("diff", "--json", base, after)).isEqualTo(1);
        assertThat(said.toString()).contains("\"button\":\"Main gate\"").doesNotContain("null");
        assertThat(run("diff", base, folder.resolve("none.json"))).isEqualTo(2);
    }

    @Test
    void mergeAnswersAsGitExpectsOfADriver() throws Exception {
        Path ours = renamed("ours.json", "gate", "Main gate");
        Path theirs = renamed("theirs.json", "tea-urn", "The urn");
        assertThat(run("merge", base, ours, theirs)).isZero();
        assertThat(BoardFile.read(ours).board().button("gate").orElseThrow().name()).isEqualTo("Main gate");
        assertThat(BoardFile.read(ours).board().button("tea-urn").orElseThrow().name()).isEqualTo("The urn");
        Path clash = renamed("clash.json", "gate", "Garden gate");
        assertThat(run("merge", base, ours, clash)).isEqualTo(1);
        assertThat(said.toString()).contains("“Main gate”: ours:", "theirs: the name is “Garden gate”");
        assertThat(BoardFile.read(ours).board().button("gate").orElseThrow().name()).isEqualTo("Main gate");
        assertThat(run("merge", base, ours, Files.writeString(folder.resolve("x.json"), "{"))).isGreaterThan(128);
    }

    @Test
    void aBoardGoesThroughABundleAndComesBack() throws Exception {
        Path bundle = folder.resolve("night.rombix");
        assertThat(run("bundle", base, folder.resolve("night.zip"))).isEqualTo(2);
        assertThat(run("bundle", base, bundle)).isZero();
        assertThat(run("unpack", bundle)).isZero();
        assertThat(said.toString()).contains("star-night.json");
        assertThat(run("unpack", bundle, folder.resolve("to"), "--match", base, "--use", "cues=")).as(said.toString())
                .isZero();
        Board back = BoardFile.read(folder.resolve("to/star-night.json")).board();
        assertThat(back.gear("studio").orElseThrow().link().address()).isEqualTo("127.0.0.1:9101");
        assertThat(back.gear("cues").orElseThrow().link().address()).isEmpty();
        assertThat(run("unpack", bundle, folder.resolve("to"))).as("it is there already").isEqualTo(2);
        assertThat(run("unpack", bundle, folder.resolve("t2"), "--match", base, "--use", "none=desk")).isEqualTo(2);
    }
}
