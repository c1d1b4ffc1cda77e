package rombix.core.touch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Examples are those of the MQTT standard, 4.7.1. */
class TopicFilterTest {
    @ParameterizedTest
    @CsvSource({"sport/tennis/player1/#, sport/tennis/player1, true",
            "sport/tennis/player1/#, sport/tennis/player1/ranking, true",
            "sport/#, sport, true", "sport/tennis/+, sport/tennis/player1, true",
            "sport/tennis/+, sport/tennis/player1/ranking, false", "sport/+, sport, false", "sport/+, sport/, true",
            "+/+, /finance, true", "/+, /finance, true", "+, /finance, false", "#, $SYS/broker, false",
            "+/broker, $SYS/broker, false", "$SYS/#, $SYS/broker, true", "a/b, a/b, true", "a/b, a/B, false"})
    void filtersTakeWhatTheStandardSays(String filter, String topic, boolean taken) {
        assertThat(TopicFilter.covers(filter, topic)).isEqualTo(taken);
    }

    @Provide
    Arbitrary<String> filters() {
        return Arbitraries.of("a", "b", "+", "").list().ofMinSize(1).ofMaxSize(3).flatMap(levels -> Arbitraries.of(true,
                false).map(open -> String.join("/", levels) + (open ? "/#" : "")));
    }

    @Provide
    Arbitrary<String> topics() {
        return Arbitraries.of("a", "b", "").list().ofMinSize(1).ofMaxSize(4).map(l -> String.join("/", l));
    }

    @Property
    void theWidestTakeAllThatTheOthersDidAndNoneIsTooMany(@ForAll("filters") String a, @ForAll("filters") String b,
            @ForAll("filters") String c, @ForAll("topics") String topic) {
        Set<String> all = new HashSet<>(List.of(a, b, c));
        Set<String> left = TopicFilter.widest(all);
        assertThat(left.stream().anyMatch(f -> TopicFilter.covers(f, topic))).isEqualTo(all.stream().anyMatch(
                f -> TopicFilter.covers(f, topic)));
        for (String one : left) {
            assertThat(left.stream().filter(o -> !o.equals(one)).noneMatch(o -> TopicFilter.covers(o, one))).isTrue();
        }
    }
}
