package rombix.running.owner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Rig;
import rombix.core.edit.GearEdits;
import rombix.core.store.BoardFile;
import rombix.core.trust.Ask;

/** What this computer keeps of its owner's leave and secrets. */
class TrustTest {
    @TempDir
    Path folder;
    private Rig rig;

    @BeforeEach
    void read() throws Exception {
        rig = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    @Test
    void whatWasAgreedToIsNotAskedForAgainAndALaterChangeAsksForWhatIsNewOnly() {
        Path file = folder.resolve("trusted");
        assertThat(Trust.in(file).missing(rig)).isNotEmpty();
        assertThat(Trust.in(file).knows(rig)).isFalse();
        Trust.in(file).agree(rig);
        assertThat(Trust.in(file).missing(rig)).isEmpty();
        Rig changed = rig.with(GearEdits.change(rig.board(), "house", g -> g.withLink(g.link().reached(g.link()
                .protocol(), "203.0.113.9:1883"))));
        assertThat(Trust.in(file).missing(changed)).extracting(Ask::name).containsExactly("House");
        assertThat(Trust.in(file).knows(changed)).isTrue();
    }

    @Test
    void twoAtOnceTakeNothingFromEachOther() {
        Path file = folder.resolve("trusted");
        Trust one = Trust.in(file);
        Trust other = Trust.in(file);
        one.agree(one.missing(rig).subList(0, 2));
        other.agree(other.missing(rig).subList(0, 2));
        assertThat(Trust.in(file).missing(rig)).hasSize(rigAsks() - 4);
    }

    private int rigAsks() {
        return Trust.in(folder.resolve("nothing")).missing(rig).size();
    }

    @Test
    @DisabledOnOs(OS.WINDOWS)
    void nobodyElseMayReadWhatIsKept() throws Exception {
        Path file = folder.resolve("secrets");
        new Secrets(file).set("house", "kettle drums");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file))).isEqualTo("rw-------");
        Path trusted = folder.resolve("trusted");
        Trust.in(trusted).agree(rig);
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(trusted))).isEqualTo("rw-------");
    }

    @Test
    void aSecretIsSetReplacedAndForgotten() throws Exception {
        Path file = folder.resolve("secrets");
        Secrets secrets = new Secrets(file);
        secrets.set("house", "one");
        secrets.set("chat", "other");
        secrets.set("house", "two = three");
        assertThat(new Secrets(file).get("house")).contains("two = three");
        assertThat(secrets.names()).containsExactly("chat", "house");
        secrets.forget("house");
        assertThat(new Secrets(file).has("house")).isFalse();
        assertThat(new Secrets(file).has("chat")).isTrue();
    }

    @Test
    void aSecretThatCannotBeOneIsRefusedWithoutBeingSaid() {
        assertThatThrownBy(() -> new Secrets(folder.resolve("s")).set("house", "two\nlines"))
                .isInstanceOf(IllegalArgumentException.class).hasMessageNotContaining("two");
    }
}
