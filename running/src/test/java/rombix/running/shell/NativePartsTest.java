package rombix.running.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import rombix.running.shell.NativeParts;

/** Another user of this computer could have code of theirs run as this one, by a file in the folder for temporary ones. */
@EnabledOnOs(OS.LINUX)
class NativePartsTest {
    @TempDir
    Path folder;

    @Test
    void theFolderIsThisProcessesAloneAndLeftoversGo() throws IOException {
        Path within = folder.resolve("deep/native");
        Files.createDirectories(within.getParent());
        Path first = NativeParts.folder(within);
        Files.createFile(Files.createDirectory(within.resolve("999999999-1")).resolve("old.so"));
        Path second = NativeParts.folder(within);
        assertThat(first).isDirectory().isNotEqualTo(second);
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(second))).isEqualTo("rwx------");
        assertThat(within.resolve("999999999-1")).doesNotExist();
    }

    @Test
    void aFolderThatOthersCanWriteIsNotUsed() throws IOException {
        Path open = Files.createDirectory(folder.resolve("open"));
        Files.setPosixFilePermissions(open, PosixFilePermissions.fromString("rwxrwxrwx"));
        assertThatThrownBy(() -> NativeParts.folder(open)).isInstanceOf(IOException.class).hasMessageContaining(
                "is writable by other users");
        Path elsewhere = Files.createSymbolicLink(folder.resolve("link"), open);
        assertThatThrownBy(() -> NativeParts.folder(elsewhere)).isInstanceOf(IOException.class);
    }
}
