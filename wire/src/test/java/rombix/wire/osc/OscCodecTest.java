package rombix.wire.osc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.wire.Malformed;
import rombix.wire.osc.OscPacket.Bundle;
import rombix.wire.osc.OscPacket.Impulse;
import rombix.wire.osc.OscPacket.Message;
import rombix.wire.osc.OscPacket.Midi;
import rombix.wire.osc.OscPacket.Nil;
import rombix.wire.osc.OscPacket.Rgba;
import rombix.wire.osc.OscPacket.Symbol;
import rombix.wire.osc.OscPacket.TimeTag;

class OscCodecTest {

    private static byte[] bytes(OscPacket packet) {
        ByteBuffer out = ByteBuffer.allocate(65_507);
        OscCodec.encode(packet, out);
        return Arrays.copyOf(out.array(), out.position());
    }

    private static OscPacket read(byte[] bytes) throws Malformed {
        return OscCodec.decode(ByteBuffer.wrap(bytes));
    }

    private static byte[] hex(String text) {
        return HexFormat.of().parseHex(text.replace(" ", ""));
    }

    /** The two examples of the OSC 1.0 specification, byte for byte. */
    @Test
    void theExamplesOfTheSpecification() throws Malformed {
        byte[] first = hex("2f6f7363 696c6c61 746f722f 342f6672 65717565 6e637900 2c660000 43dc0000");
        assertThat(bytes(new Message("/oscillator/4/frequency", 440f))).isEqualTo(first);
        assertThat(read(first)).isEqualTo(new Message("/oscillator/4/frequency", 440f));
        byte[] second = hex("2f666f6f 00000000 2c696973 66660000 000003e8 ffffffff 68656c6c 6f000000 3f9df3b6"
                + " 40b5b22d");
        assertThat(bytes(new Message("/foo", 1000, -1, "hello", 1.234f, 5.678f))).isEqualTo(second);
        assertThat(read(second)).isEqualTo(new Message("/foo", 1000, -1, "hello", 1.234f, 5.678f));
    }

    @Test
    void everyTypeSurvivesARoundTrip() throws Malformed {
        Message m = new Message("/a", List.of(1, 2L, 3f, 4d, "é", new Symbol("s"), true, false, new Nil(),
                new Impulse(), 'c', new TimeTag(0x83aa7e80_00000001L), new Rgba(0x11223344), new Midi(0x00904040),
                List.of(1, List.of("in"))));
        assertThat(read(bytes(m))).isEqualTo(m);
        Message blob = (Message) read(bytes(new Message("/b", (Object) new byte[]{1, 2, 3, 4, 5})));
        assertThat((byte[]) blob.args().getFirst()).containsExactly(1, 2, 3, 4, 5);
    }

    @Test
    void bundlesNestAndKeepTheirTime() throws Malformed {
        Bundle b = new Bundle(new TimeTag(-5), List.of(new Message("/a"), new Bundle(TimeTag.IMMEDIATELY,
                List.of(new Message("/b", "x")))));
        assertThat(read(bytes(b))).isEqualTo(b);
    }

    @Test
    void aMessageWithoutTypeTagsIsReadAsOneWithoutArguments() throws Malformed {
        assertThat(read(hex("2f610000"))).isEqualTo(new Message("/a"));
    }

    @ParameterizedTest
    @CsvSource({"'', an empty packet", "2f6100, isn't a multiple of 4", "61620000, doesn't begin with /",
            "2f616263, without its end", "2f610000 69000000, don't begin with a comma",
            "2f610000 2c690000, an int cut short", "2f610000 2c780000, that OSC doesn't have",
            "2f610000 2c000000 00000000, more than the type tags", "2f610000 2c5b6900 00000001, without its ]",
            "2f610000 2c5d0000, without its [", "2f610000 2c620000 7fffffff, a blob claims",
            "2f610000 2c620000 ffffffff, a blob claims", "2f610000 2c730000 61626364, without its end",
            "2362756e 646c6500 00000000, the bundle's time", "2362756e 64000000, where #bundle was expected",
            "2362756e 646c6500 00000000 00000001 00000000, claims 0 bytes",
            "2362756e 646c6500 00000000 00000001 00000064 2f610000, claims 100 bytes",
            "2362756e 646c6500 00000000 00000001 ffffffff, claims -1 bytes",
            "2362756e 646c6500 00000000 00000001 00000003 2f610000, isn't a multiple of 4"})
    void malformedBytesGiveAReason(String hex, String reason) {
        assertThatThrownBy(() -> read(hex(hex))).isInstanceOf(Malformed.class).hasMessageContaining(reason);
    }

    @Test
    void bundlesNestedWithoutEndAreRefused() {
        Bundle b = new Bundle(TimeTag.IMMEDIATELY, List.of());
        for (int i = 0; i < 100; i++) {
            b = new Bundle(TimeTag.IMMEDIATELY, List.of(b));
        }
        byte[] bytes = bytes(b);
        assertThatThrownBy(() -> read(bytes)).isInstanceOf(Malformed.class).hasMessageContaining("nested");
    }

    /** Whatever the bytes, the decoder gives a packet or a reason, and nothing else. */
    @Property(tries = 5000)
    void hostileBytesNeverEscape(@ForAll("hostile") byte[] bytes) {
        try {
            read(bytes);
        } catch (Malformed e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }

    @Provide
    Arbitrary<byte[]> hostile() {
        Arbitrary<byte[]> any = Arbitraries.bytes().array(byte[].class).ofMaxSize(96);
        byte[][] sound = {bytes(new Message("/a/b", 1, "two", 3f, (Object) new byte[]{1, 2, 3})),
                bytes(new Bundle(TimeTag.IMMEDIATELY, List.of(new Message("/x", List.of(1)), new Message("/y")))),
                bytes(new Message("/n", List.of(List.of(1, List.of(2)), true)))};
        Arbitrary<byte[]> bent = Arbitraries.of(sound).flatMap(b -> Arbitraries.integers().between(0, b.length - 1)
                .flatMap(at -> Arbitraries.bytes().map(v -> {
                    byte[] copy = b.clone();
                    copy[at] = v;
                    return copy;
                })));
        Arbitrary<byte[]> cut = Arbitraries.of(sound)
                .flatMap(b -> Arbitraries.integers().between(0, b.length).map(n -> Arrays.copyOf(b, n)));
        return Arbitraries.oneOf(any, bent, cut);
    }
}
