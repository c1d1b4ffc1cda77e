package rombix.wire.dmx;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteBuffer;
import java.util.UUID;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.wire.Malformed;

class SacnPacketTest {
    private static final UUID SOURCE = UUID.fromString("00112233-4455-6677-8899-aabbccddeeff");

    private static SacnPacket packet(int slots) {
        byte[] levels = new byte[slots];
        for (int i = 0; i < slots; i++) {
            levels[i] = (byte) (i * 7);
        }
        return new SacnPacket(SOURCE, "Rombix", 100, 200, false, 0x1234, levels);
    }

    /** Offsets and values of ANSI E1.31-2018, table 4-1, for a full universe: 638 bytes. */
    @ParameterizedTest
    @CsvSource({"0, 00", "1, 10", "4, 41", "15, 00", "16, 72", "17, 6e", "21, 04", "22, 00", "37, ff", "38, 72",
            "39, 58", "43, 02", "44, 52", "107, 00", "108, 64", "111, c8", "112, 00", "113, 12", "114, 34", "115, 72",
            "116, 0b", "117, 02", "118, a1", "121, 00", "122, 01", "123, 02", "124, 01", "125, 00", "126, 00",
            "127, 07"})
    void theBytesStandWhereTheStandardPutsThem(int offset, String hex) {
        byte[] bytes = packet(512).encode();
        assertThat(bytes).hasSize(638);
        assertThat("%02x".formatted(bytes[offset])).isEqualTo(hex);
    }

    @Property(tries = 100)
    void packetsSurviveARoundTrip(@ForAll @IntRange(max = 512) int slots) throws Malformed {
        SacnPacket back = SacnPacket.decode(ByteBuffer.wrap(packet(slots).encode()));
        assertThat(back).usingRecursiveComparison().isEqualTo(packet(slots));
    }

    @Property(tries = 2000)
    void hostileBytesNeverEscape(@ForAll @IntRange(max = 637) int at, @ForAll byte value,
            @ForAll @IntRange(max = 638) int length) {
        byte[] bytes = java.util.Arrays.copyOf(packet(512).encode(), length);
        if (at < length) {
            bytes[at] = value;
        }
        try {
            SacnPacket.decode(ByteBuffer.wrap(bytes));
        } catch (Malformed e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }

    @Test
    void aPacketThatClaimsMoreThanItHoldsIsRefused() {
        byte[] bytes = java.util.Arrays.copyOf(packet(512).encode(), 300);
        assertThatThrownBy(() -> SacnPacket.decode(ByteBuffer.wrap(bytes))).isInstanceOf(Malformed.class)
                .hasMessageContaining("claims 512 slots");
    }

    @Test
    void universesAndSlotsBeyondTheStandardAreRefused() {
        assertThatThrownBy(() -> new SacnPacket(SOURCE, "x", 100, 0, false, 0, new byte[1]))
                .hasMessageContaining("1 to 63999");
        assertThatThrownBy(() -> new SacnPacket(SOURCE, "x", 100, 0, false, 1, new byte[513]))
                .hasMessageContaining("512");
    }
}
