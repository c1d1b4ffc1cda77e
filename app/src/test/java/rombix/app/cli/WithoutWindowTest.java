package rombix.app.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import rombix.standins.set.StandIns;

/** Commands in a process of their own, where there is no display: none of them needs the interface's toolkit. */
@EnabledOnOs(OS.LINUX)
@Timeout(300)
class WithoutWindowTest {
    @TempDir
    Path folder;

    /** A command line in a fresh JVM that writes down which classes it loads. */
    private Process rombix(String name, String... args) throws IOException {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElseThrow(),
                "--enable-native-access=ALL-UNNAMED", "-Xlog:class+load:file=" + folder.resolve(name + ".classes"),
                "-Drombix.settings=" + folder.resolve("home/settings.properties"), "-Duser.home=" + folder, "-cp",
                System.getProperty("java.class.path"), "rombix.app.Main"));
        command.addAll(List.of(args));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(new File(folder
                .toFile(), name + ".txt"));
        builder.environment().keySet().removeAll(List.of("DISPLAY", "WAYLAND_DISPLAY"));
        builder.environment().put("XDG_RUNTIME_DIR", folder.toString());
        return builder.start();
    }

    private String said(String name) throws IOException {
        return Files.readString(folder.resolve(name + ".txt"));
    }

    private int run(String name, String... args) throws Exception {
        Process process = rombix(name, args);
        try {
            assertThat(process.waitFor(120, TimeUnit.SECONDS)).as(name + " ends").isTrue();
            return process.exitValue();
        } finally {
            process.destroyForcibly().waitFor();
        }
    }

    private void loadedNoToolkit(String name) throws IOException {
        try (Stream<String> classes = Files.lines(folder.resolve(name + ".classes"))) {
            List<String> all = classes.toList();
            assertThat(all).hasSizeGreaterThan(500);
            assertThat(all.stream().filter(c -> c.contains("javafx"))).isEmpty();
        }
    }

    @Test
    void aPressInAFreshProcessLoadsNothingOfTheToolkit() throws Exception {
        Path board = Files.copy(Path.of("../demo/star-night.json"), folder.resolve("b.json"));
        assertThat(run("press", "press", board.toString(), "gate", "--stand-ins")).as(said("press")).isZero();
        assertThat(said("press")).contains("Unlock Gate");
        loadedNoToolkit("press");
    }

    @Test
    void aBoardIsOpenedWithoutADisplayAndWorkedFromAShell() throws Exception {
        Path board = Files.copy(Path.of("../demo/star-night.json"), folder.resolve("b.json"));
        try (StandIns gear = StandIns.onFreePorts()) {
            String text = Files.readString(board);
            Files.writeString(board, text.replaceFirst("(\"id\": \"house\"[^{]*\\{[^}]*\"address\": \")[^\"]*", "$1"
                    + gear.addresses().get("house")));
            Process open = rombix("open", "open", "--live", "--trust", board.toString());
            try {
                await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(100)).until(() -> run("status",
                        "status", board.toString()) != 2 && said("status").contains(", Live,") && said("status")
                                .matches("(?s).*House +ready.*"));
                assertThat(said("open")).contains("There is no display, so Rombix runs without a window");
                assertThat(run("press", "press", board.toString(), "gate")).as(said("press")).isZero();
                await().atMost(Duration.ofSeconds(60)).until(() -> gear.house().state("house/lock/gate").orElse("")
                        .equals("UNLOCKED"));
                assertThat(run("show", "show", board.toString())).isZero();
                assertThat(said("show")).contains("without a window");
                open.destroy();
                assertThat(open.waitFor(60, TimeUnit.SECONDS)).as("it ends on SIGTERM").isTrue();
                loadedNoToolkit("open");
            } finally {
                open.destroyForcibly().waitFor();
            }
        }
    }
}
