package rombix.wire.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.wire.Malformed;
import rombix.wire.midi.MidiMessage.Control;
import rombix.wire.midi.MidiMessage.Note;
import rombix.wire.midi.MidiMessage.Program;

class MidiCodecTest {

    private static byte[] hex(String text) {
        return HexFormat.of().parseHex(text);
    }

    @Test
    void messagesHaveTheBytesOfTheStandard() throws Malformed {
        assertThat(MidiCodec.encode(new Note(1, 60, 100))).isEqualTo(hex("903c64"));
        assertThat(MidiCodec.encode(new Control(16, 7, 127))).isEqualTo(hex("bf077f"));
        assertThat(MidiCodec.encode(new Program(3, 5))).isEqualTo(hex("c205"));
        assertThat(MidiCodec.decode(hex("803c40"))).contains(new Note(1, 60, 0));
        assertThat(MidiCodec.decode(hex("e00040"))).isEmpty();
        assertThat(MidiCodec.decode(hex("f8"))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"'', an empty", "90, cut short", "903c, cut short", "3c64, without its status", "9080ff, over 127"})
    void malformedBytesGiveAReason(String hex, String reason) {
        assertThatThrownBy(() -> MidiCodec.decode(hex(hex))).isInstanceOf(Malformed.class)
                .hasMessageContaining(reason);
    }

    @Property
    void controlsSurviveARoundTrip(@ForAll @IntRange(min = 1, max = 16) int channel,
            @ForAll @IntRange(max = 127) int number, @ForAll @IntRange(max = 127) int value) throws Malformed {
        Control c = new Control(channel, number, value);
        assertThat(MidiCodec.decode(MidiCodec.encode(c))).contains(c);
    }

    @Property(tries = 3000)
    void hostileBytesNeverEscape(@ForAll byte[] bytes) {
        try {
            MidiCodec.decode(bytes);
        } catch (Malformed e) {
            assertThat(e.getMessage()).isNotBlank();
        }
        List<byte[]> whole = new ArrayList<>();
        new MidiStream(whole::add).feed(bytes, 0, bytes.length);
        assertThat(whole).allSatisfy(MidiCodec::decode);
    }

    @Test
    void aStreamIsCutWithRunningStatusAndRealTimeBytesBetween() {
        List<String> whole = new ArrayList<>();
        MidiStream stream = new MidiStream(b -> whole.add(HexFormat.of().formatHex(b)));
        byte[] in = hex("05" + "b01464" + "1565" + "b0f816f817" + "f0010203f7" + "c205" + "b014");
        stream.feed(in, 0, in.length);
        assertThat(whole).containsExactly("b01464", "b01565", "f8", "f8", "b01617", "f0010203f7", "c205");
        assertThat(stream.stray()).isEqualTo(1);
    }

    @Test
    void valuesBeyondTheStandardAreRefused() {
        assertThatThrownBy(() -> new Control(0, 1, 1)).hasMessageContaining("channels 1 to 16");
        assertThatThrownBy(() -> new Note(1, 128, 1)).hasMessageContaining("0 to 127");
    }
}
