package rombix.app.show;

import static org.assertj.core.api.Assertions.assertThat;

import com.fazecast.jSerialComm.SerialPort;
import com.sun.jna.Native;
import java.io.IOException;
import java.lang.ProcessBuilder.Redirect;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.lwjgl.sdl.SDLInit;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Trust;
import rombix.running.shell.NativeParts;
import rombix.standins.set.StandIns;

/** No other user of this computer can write what the demo runs. */
@EnabledOnOs(OS.LINUX)
@Timeout(300)
@Execution(ExecutionMode.CONCURRENT)
class MappedPartsTest {
    @TempDir
    Path folder;

    /** The whole demo, with everything that brings a native part: serial ports, gamepads, the log, windows, JNA. */
    public static final class Demo {
        private Demo() {
        }

        public static void main(String[] args) throws Exception {
            NativeParts.prepare();
            SerialPort.getCommPorts();
            SDLInit.SDL_Init(SDLInit.SDL_INIT_GAMEPAD);
            System.out.println("pointers of " + Native.POINTER_SIZE);
            Session.startToolkit(true);
            Path file = Files.copy(Path.of("../demo/star-night.json"), Path.of(args[0]).resolveSibling("board.json"));
            try (StandIns gear = StandIns.onFreePorts()) {
                Map<String, String> addresses = new HashMap<>(gear.addresses());
                addresses.put(TriggerInputs.OSC, "0");
                try (Session session = Session.open(OpenedBoard.read(file), addresses, LogStore.beside(file), _ -> {
                }, Trust.all())) {
                    session.await(2000L);
                }
            }
            Set<String> mapped = new TreeSet<>();
            try (var lines = Files.lines(Path.of("/proc/self/maps"))) {
                lines.filter(l -> l.contains("x") && l.indexOf('/') > 0).forEach(l -> mapped.add(l.substring(l.indexOf(
                        '/'))));
            }
            Files.write(Path.of(args[0]), mapped);
            System.exit(0);
        }
    }

    @Test
    void whatADemoHasMappedCanBeWrittenByNobodyElse() throws Exception {
        Path list = folder.resolve("mapped");
        Path settings = folder.resolve("home/settings.properties");
        ProcessBuilder builder = new ProcessBuilder(ProcessHandle.current().info().command().orElse("java"), "-Xss16m",
                "--enable-native-access=ALL-UNNAMED", "--sun-misc-unsafe-memory-access=allow",
                "-Dglass.platform=Headless",
                "-Dprism.order=sw", "-Djava.awt.headless=true", "-Drombix.settings=" + settings,
                "-Duser.home=" + folder, "-cp",
                System.getProperty("java.class.path"), Demo.class.getName(), list.toString());
        builder.environment().put("XDG_RUNTIME_DIR", folder.toString());
        Path out = folder.resolve("out");
        Process demo = builder.redirectErrorStream(true).redirectOutput(Redirect.to(out.toFile())).start();
        try {
            assertThat(demo.waitFor(240, TimeUnit.SECONDS)).as(Files.readString(out)).isTrue();
        } finally {
            demo.destroyForcibly();
        }
        assertThat(demo.exitValue()).as(Files.readString(out)).isZero();
        List<String> mapped = Files.readAllLines(list);
        assertThat(mapped).anyMatch(m -> m.contains("jSerialComm")).anyMatch(m -> m.contains("SDL")).anyMatch(m -> m
                .contains("sqlite")).anyMatch(m -> m.contains("jna")).anyMatch(m -> m.contains("prism_sw"));
        assertThat(mapped.stream().filter(this::byOthers).toList()).as("writable by other users").isEmpty();
        assertThat(settings.resolveSibling("native")).isEmptyDirectory();
    }

    /** Whether anybody but this user and the system could put something else there; the folder of this test is its home. */
    private boolean byOthers(String mapped) {
        Path at = Path.of(mapped.replace(" (deleted)", ""));
        try {
            for (Path p = at; p != null && !p.equals(folder); p = p.getParent()) {
                if (Files.exists(p, LinkOption.NOFOLLOW_LINKS)) {
                    Set<PosixFilePermission> may = Files.getPosixFilePermissions(p);
                    String owner = Files.getOwner(p).getName();
                    if (may.contains(PosixFilePermission.OTHERS_WRITE) || !owner.equals("root") && !owner.equals(System
                            .getProperty("user.name"))) {
                        return true;
                    }
                }
            }
            return false;
        } catch (IOException e) {
            return true;
        }
    }
}
