package rombix.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class NearestTest {
    private static final List<String> MANY = List.of("doors-open", "dark-sky", "gate", "gate-camera", "host-talk",
            "cough", "sting", "desk-brighter");

    @Test
    void aMisspeltNameIsAnsweredWithTheNearestNotWithAll() {
        assertThat(Nearest.words("door-open", MANY)).startsWith("the nearest are doors-open, ").doesNotContain("cough");
        assertThat(Nearest.of("gaet", MANY)).first().isEqualTo("gate");
        assertThat(Nearest.of("camera", MANY)).first().isEqualTo("gate-camera");
        assertThat(Nearest.of("COUGH", MANY)).first().isEqualTo("cough");
    }

    @Test
    void aFewNamesAreAllNamed() {
        assertThat(Nearest.words("x", List.of("a", "b"))).isEqualTo("it has a, b");
    }
}
