package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import javafx.scene.input.KeyCode;
import jdk.jfr.consumer.RecordedEvent;
import jdk.jfr.consumer.RecordingStream;
import org.junit.jupiter.api.Test;

/** The interface's thread neither read nor wrote fast enough: boards were read on it, and saving waited for the disk. */
class FileTrafficTest extends AtTheWindow {
    private static final List<String> KINDS = List.of("jdk.FileRead", "jdk.FileWrite", "jdk.FileForce");

    private boolean ofBoard(RecordedEvent event) {
        String path = event.getString("path");
        return path != null && path.startsWith(folder.toString()) && path.contains(".json");
    }

    @Test
    void boardsAreReadAndWrittenOffTheInterfacesThread() throws Exception {
        Path other = folder.resolve("other.json");
        Files.copy(file, other);
        Queue<String> threads = new ConcurrentLinkedQueue<>();
        try (RecordingStream recording = new RecordingStream()) {
            KINDS.forEach(kind -> {
                recording.enable(kind).withThreshold(Duration.ZERO);
                recording.onEvent(kind, e -> {
                    if (ofBoard(e)) {
                        threads.add(kind + " on " + e.getThread().getJavaName());
                    }
                });
            });
            recording.startAsync();
            robot.interact(() -> bench().edit("rename", b -> b.withName("Another night")));
            key(KeyCode.S, KeyCode.CONTROL);
            soon(() -> !bench().unsaved());
            key(KeyCode.N, KeyCode.CONTROL);
            click(find("#board-versions"));
            soon(() -> find("#version-0") != null);
            robot.type(KeyCode.ESCAPE);
            robot.interact(() -> session.window().files().open(other));
            soon(() -> bench().file().equals(other));
            recording.stop();
        }
        assertThat(threads).as("it was recorded").anyMatch(t -> t.startsWith("jdk.FileRead")).anyMatch(t -> t
                .startsWith("jdk.FileForce"));
        assertThat(threads).noneMatch(t -> t.endsWith("JavaFX Application Thread"));
    }
}
