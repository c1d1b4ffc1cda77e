package rombix.web.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Base64;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AccessListTest {
    @TempDir
    private Path folder;
    private Path file;
    private AccessList list;

    @BeforeEach
    void open() {
        file = folder.resolve("devices");
        list = new AccessList(file);
    }

    private String add(String name) throws IOException {
        return list.add(name, Access.Kind.DEVICE, Set.of("doors"), Set.of(Right.PRESS), 5);
    }

    @Test
    void whoWasLetInIsKnownAgainAfterARestart() throws IOException {
        String token = add("Door phone");
        assertThat(new AccessList(file).holder(token)).hasValueSatisfying(a -> {
            assertThat(a.name()).isEqualTo("Door phone");
            assertThat(a.sees("doors")).isTrue();
            assertThat(a.sees("trouble")).isFalse();
            assertThat(a.may(Right.PRESS)).isTrue();
            assertThat(a.may(Right.STOP_ALL)).isFalse();
            assertThat(a.sinceMillis()).isEqualTo(5);
        });
        assertThat(list.holder("another")).isEmpty();
    }

    @Test
    void theFileHasNoTokenInItAndIsItsOwnersAlone() throws IOException {
        String token = add("Tablet");
        String text = Files.readString(file);
        assertThat(text).doesNotContain(token);
        assertThat(new String(Base64.getDecoder().decode(text.strip().split(" ")[1]))).doesNotContain(token).contains(
                AccessToken.hash(token));
        assertThat(Files.getPosixFilePermissions(file)).containsOnly(PosixFilePermission.OWNER_READ,
                PosixFilePermission.OWNER_WRITE);
    }

    @Test
    void oneThatIsRemovedIsNobodyFromThenOn() throws IOException {
        String token = add("Phone");
        AtomicInteger told = new AtomicInteger();
        list.watch(told::incrementAndGet);
        list.remove(list.all().getFirst().id());
        assertThat(list.holder(token)).isEmpty();
        assertThat(new AccessList(file).all()).isEmpty();
        assertThat(told).hasValue(1);
    }

    @Test
    void itsNamePagesAndRightsCanBeChangedButNotForOneThatIsGone() throws IOException {
        String token = add("Phone");
        Access before = list.all().getFirst();
        list.change(before.with("Stage left", Set.of(), Set.of()));
        assertThat(list.holder(token)).hasValueSatisfying(a -> assertThat(a.name()).isEqualTo("Stage left"));
        list.remove(before.id());
        list.change(before);
        assertThat(list.all()).isEmpty();
    }

    @Test
    void twoHundredAreEnough() throws IOException {
        for (int i = 0; i < AccessList.MOST; i++) {
            add("device " + i);
        }
        assertThatThrownBy(() -> add("one more")).hasMessageContaining("200");
    }

    @Test
    void aDamagedLineCostsThatDeviceOnly() throws IOException {
        String token = add("Phone");
        Files.writeString(file,
                Files.readString(file) + "abc " + Base64.getEncoder().encodeToString("{\"id\":1".getBytes())
                        + "\n");
        assertThat(new AccessList(file).holder(token)).isPresent();
    }

    @Test
    void aNameIsShortAndNotEmpty() {
        assertThatThrownBy(() -> add(" ")).hasMessageContaining("1 to 40");
        assertThatThrownBy(() -> add("x".repeat(41))).hasMessageContaining("1 to 40");
    }
}
