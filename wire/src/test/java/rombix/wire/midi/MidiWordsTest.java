package rombix.wire.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.wire.Malformed;

/** Byte streams of the standards, and what they are called in words, both ways. */
class MidiWordsTest {
    private static List<String> heard(String bytes) {
        List<String> heard = new ArrayList<>();
        MidiEar ear = new MidiEar((address, args) -> heard.add(address + (args.isEmpty()
                ? ""
                : " = " + String.join("|",
                        args))));
        MidiStream stream = new MidiStream(m -> {
            try {
                ear.take(m, 0);
            } catch (Malformed e) {
                heard.add("! " + e.getMessage());
            }
        });
        byte[] all = HexFormat.of().parseHex(bytes.replace(" ", ""));
        stream.feed(all, 0, all.length);
        return heard;
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"note 1 60;100;903c64", "control 2 7;63.6;b10740", "program 16;4;cf04",
            "bend 1;8192;e00040", "bend 3;0;e20000", "pressure 1;90;d05a", "pressure 1 60;90;a03c5a",
            "control14 1 7;8193;b00740 b02701", "rpn 1 0;256;b06500 b06400 b00602 b02600",
            "nrpn 2 300;16383;b16302 b1622c b1067f b1267f", "sysex;7e 7f 06 01;f07e7f0601f7",
            "sysex;F0 43 10 F7;f04310f7", "mmc 127 play;;f07f7f0602f7", "mmc 3 stop;;f07f030601f7",
            "msc 127 lighting go;12.5|1;f07f7f02010131322e350031f7", "msc 1 all fire;9;f07f01027f0709f7", "start;;fa",
            "continue;;fb", "stop;;fc"})
    void whatIsSaidIsWhatTheStandardWritesAndIsHeardAsSuch(String address, String args, String bytes) {
        StringBuilder sent = new StringBuilder();
        MidiWords.bytes(address, args == null ? List.of() : List.of(args.split("\\|")))
                .forEach(b -> sent.append(HexFormat
                        .of().formatHex(b)));
        assertThat(sent).hasToString(bytes.replace(" ", ""));
        assertThat(address).matches(MidiWords.form());
        assertThat(heard(bytes)).anySatisfy(h -> assertThat(h).startsWith(address));
    }

    @Test
    void cuesAreHeardWithTheirLists() {
        assertThat(heard("f07f7f02010131322e350031f7")).contains("msc 127 lighting go = 12.5|1");
        assertThat(heard("e00040 b00740 b02701")).contains("bend 1 = 8192", "control14 1 7 = 8193");
        assertThat(heard("b06302 b0622c b0067f b0267f")).contains("nrpn 1 300 = 16383");
    }

    @Test
    void aTimeIsHeardOnceItsEightPartsHaveCome() {
        assertThat(heard("f10a f111 f127 f143 f153 f161 f176")).isEmpty();
        assertThat(heard("f104 f111 f127 f131 f143 f150 f161 f176")).containsExactly("time = 01:03:23:20");
    }

    @Test
    void aTempoIsHeardOnceABeat() throws Malformed {
        List<String> heard = new ArrayList<>();
        MidiEar ear = new MidiEar((address, args) -> heard.add(address + " " + args));
        for (int i = 0; i <= 48; i++) {
            ear.take(new byte[]{(byte) 0xF8}, Math.round(i * 60e9 / 128 / 24));
        }
        assertThat(heard).containsExactly("clock [128.0]", "clock [128.0]");
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"note 0 60;1;channels count from 1", "note 1 200;1;no number from 0 to 127",
            "mmc 1 dance;;expected one of", "msc 1 all go;cue;numbers such as 12.5", "sysex;80;up to 7F",
            "sysex;xyz;isn't a sequence of hexadecimal bytes", "control14 1 40;1;no number from 0 to 31",
            "rpn 1 20000;1;from 0 to 16383",
            "dance 1;1;no such message"})
    void whatCannotBeIsToldInWords(String address, String args, String message) {
        assertThatThrownBy(() -> MidiWords.bytes(address, args == null ? List.of() : List.of(args)))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining(message);
    }

    @Property(tries = 3000)
    void hostileBytesNeverEscape(@ForAll byte[] bytes) {
        assertThat(heard(HexFormat.of().formatHex(bytes))).allSatisfy(h -> assertThat(h).isNotBlank());
    }
}
