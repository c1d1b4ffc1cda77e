package rombix.core.card.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.value.Value;
import tools.jackson.databind.json.JsonMapper;

/** What stands on the wire for a value, and what it means when it comes back. */
class WireFormsTest {
    private static WireValue carry(String json) {
        return new JsonMapper().readValue(json.replace('\'', '"'), WireValue.class);
    }

    private static String out(String json, Value of) {
        @Nullable
        Value out = carry(json).out(_ -> of);
        return String.valueOf(out);
    }

    @ParameterizedTest
    @CsvSource({"{'bytes': 2}, 300, 012c", "{'bytes': 2; 'low-first': true}, 300, 2c01",
            "{'bytes': 2; 'as': 'signed'}, -2, fffe", "{'bytes': 4; 'as': 'float'}, 0.5, 3f000000",
            "{'bytes': 4; 'as': 'float'; 'low-first': true}, 0.5, 0000003f",
            "{'bytes': 4; 'as': 'nibbles'}, 4660, 01020304", "{'bytes': 2; 'as': '7-bit'}, 300, 022c",
            "{'bytes': 2; 'as': 'signed'; 'fraction': 8}, -1.5, fe80", "{'bytes': 1}, 200, c8",
            "{'bytes': 8}, 18446744073709549568, fffffffffffff800"})
    void numbersStandInBytesBothWays(String packed, double number, String bytes) {
        String carry = "{'of': 'n', 'packed': " + packed.replace(';', ',') + "}";
        assertThat(out(carry, Value.of(number))).isEqualTo(bytes);
        assertThat(carry(carry).in(Value.of(bytes)))
                .hasValueSatisfying(v -> assertThat(v.asNumber()).isEqualTo(number));
    }

    @Test
    void whatBytesCannotHoldBecomesTheNearest() {
        assertThat(out("{'of': 'n', 'packed': {'bytes': 1}}", Value.of(300))).isEqualTo("ff");
        assertThat(out("{'of': 'n', 'packed': {'bytes': 1, 'as': 'signed'}}", Value.of(-300))).isEqualTo("80");
        assertThat(carry("{'packed': {'bytes': 2}}").in(Value.of("7"))).isEmpty();
        assertThat(carry("{'packed': {'bytes': 2}}").in(Value.of("zz11"))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"-90, 0", "-50, 384", "0, 768", "5, 895.5", "10, 1023"})
    void aFaderLawIsGivenByPoints(double dB, double wire) {
        String law = "{'of': 'level', 'points': [[0, 768], [-90, 0], [-10, 768e-0], [10, 1023]]}".replace(
                "[-10, 768e-0], ", "[-50, 384], ");
        assertThat(carry(law).out(_ -> Value.of(dB)).asNumber()).isEqualTo(wire, within(0.01));
        assertThat(carry(law).in(Value.of(wire))).hasValueSatisfying(v -> assertThat(v.asNumber()).isEqualTo(dB, within(
                0.01)));
    }

    @Test
    void pointsThatTurnBackAreRefused() {
        assertThatThrownBy(() -> carry("{'points': [[0, 0], [1, 5], [2, 3]]}"))
                .hasMessageContaining("must rise or fall");
        assertThatThrownBy(() -> carry("{'points': [[0, 0]]}")).hasMessageContaining("two or more pairs");
    }

    @ParameterizedTest
    @CsvSource({"red, 255", "green, 128", "blue, 0", "hue, 30", "saturation, 100", "brightness, 100"})
    void aColourGoesOutInParts(String as, double part) {
        assertThat(carry("{'of': 'c', 'as': '" + as + "'}").out(_ -> Value.of("#FF8000")).asNumber()).isEqualTo(part,
                within(0.2));
    }

    @Test
    void partsMayBeScaled() {
        assertThat(out("{'of': 'c', 'as': 'red', 'from': [0, 255], 'to': [0, 1]}", Value.of("#FF8000"))).isEqualTo(
                "1");
        assertThat(carry("{'of': 'c', 'as': 'hue', 'from': [0, 360], 'to': [0, 65535]}").out(_ -> Value.of("#00FF00"))
                .asNumber()).isEqualTo(21845, within(1.0));
    }

    @ParameterizedTest
    @CsvSource({"#FF8000", "#00FF00", "#0000FF", "#FFFFFF", "#7F3010"})
    void hueSaturationAndBrightnessMakeTheColourAgain(String colour) {
        double[] parts = new double[3];
        ColourPart[] names = {ColourPart.HUE, ColourPart.SATURATION, ColourPart.BRIGHTNESS};
        for (int i = 0; i < 3; i++) {
            parts[i] = carry("{'of': 'c', 'as': '" + names[i].word() + "', 'from': [0, 360], 'to': [0, 360]}").out(
                    _ -> Value.of(colour)).asNumber();
        }
        assertThat(Mapped.colour(Map.of(names[0], parts[0], names[1], parts[1], names[2], parts[2]))).contains(Value.of(
                colour));
    }

    @Test
    void chromaticityAndMiredsAreThoseOfTheStandards() {
        assertThat(carry("{'of': 'c', 'as': 'x'}").out(_ -> Value.of("#FF0000")).asNumber()).isEqualTo(0.64, within(
                0.001));
        assertThat(carry("{'of': 'c', 'as': 'y'}").out(_ -> Value.of("#FFFFFF")).asNumber()).isEqualTo(0.329, within(
                0.001));
        assertThat(carry("{'of': 'c', 'as': 'mireds'}").out(_ -> Value.of("#FFFFFF")).asNumber()).isEqualTo(154, within(
                2.0));
        assertThat(Mapped.colour(Map.of(ColourPart.X, 0.64, ColourPart.Y, 0.33))).contains(Value.of("#FF0000"));
        String warm = Mapped.colour(Map.of(ColourPart.MIREDS, 370.0)).orElseThrow().toString();
        assertThat(warm).startsWith("#FF").matches("#FF[A-C].[3-7].");
    }

    @ParameterizedTest
    @CsvSource({"crc-16, '{\"polynomial\": \"1021\", \"start\": \"ffff\"}', 29b1",
            "crc-16, '{\"polynomial\": \"8005\", \"start\": \"ffff\", \"reflected\": true}', 4b37",
            "crc-16, '{\"polynomial\": \"8005\", \"start\": \"ffff\", \"reflected\": true, \"low-first\": true}', 374b",
            "crc-8, '{\"polynomial\": \"07\"}', f4", "crc-8, '{\"polynomial\": \"07\", \"xor\": \"55\"}', a1"})
    void crcsAreThoseOfTheCatalogues(String crc, String params, String check) {
        assertThat(out("{'compute': '" + crc + "', 'over': '313233343536373839', 'crc': " + params + "}", Value.of("")))
                .isEqualTo(check);
    }

    @ParameterizedTest
    @CsvSource({"sum, 10 20 f0, 20", "sum-7, 40 00 7f 00, 41", "xor, 01 02 04, 07"})
    void checksumsAreOfBytes(String way, String over, String check) {
        assertThat(out("{'compute': '" + way + "', 'over': '" + over + "'}", Value.of(""))).isEqualTo(check);
    }

    @Test
    void aCrcNeedsItsParameters() {
        assertThatThrownBy(() -> carry("{'compute': 'crc-16', 'over': '00'}")).hasMessageContaining("polynomial");
        assertThatThrownBy(() -> carry("{'compute': 'xor', 'over': '0g'}").out(_ -> null)).hasMessageContaining(
                "the checksum can't be computed");
    }
}
