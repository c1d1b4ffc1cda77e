package rombix.core.touch;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OscPatternTest {
    @ParameterizedTest
    @CsvSource(delimiter = ' ', value = {"/doors/* /doors/open true", "/doors/* /doors/a/b false", "/?ate /gate true",
            "/{gate,door}/go /door/go true", "/{gate,door}/go /lock/go false", "/b[1-3] /b2 true", "/b[1-3] /b4 false",
            "/b[!1-3] /b4 true", "/b[!1-3] /b1 false", "/a.c /abc false", "/{gate /{gate true", "/*/go /x/go true"})
    void aPatternMeansAllAddressesThatItFits(String pattern, String address, boolean fits) {
        assertThat(new OscPattern(pattern).matches(address)).isEqualTo(fits);
    }

    @Property(tries = 2000)
    void hostilePatternsNeverEscape(@ForAll String pattern) {
        new OscPattern(pattern).matches("/doors/open");
    }
}
