package rombix.app.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Every text that a user can meet is plain English: none has a phrase that reads like a translation. */
@Execution(ExecutionMode.CONCURRENT)
class WordsTest {
    private static List<Inventory.Text> texts = List.of();

    @BeforeAll
    static void read() throws IOException {
        texts = Inventory.of(Path.of(".."));
    }

    @Test
    void theInventoryFindsLabelsErrorsHelpAndCards() {
        assertThat(texts).hasSizeGreaterThan(3000);
        assertThat(texts).extracting(Inventory.Text::text).contains("Test connection", "no response from %1",
                "Presses a button and prints one line per step until its chain ends.", "Mute {channel}",
                "Stop {…}");
        assertThat(texts).extracting(Inventory.Text::at).anyMatch(at -> at.matches("core/.*/cards/studio.json:title"));
    }

    @ParameterizedTest
    @CsvSource({"\\bin vain\\b, failed", "\\b(any|no) more\\b(?! (than|readings|pages)), no longer",
            "\\bas usual\\b, default",
            "\\bwhoever\\b, anyone who", "\\bvouch, sign", "\\bof one's own\\b, custom", "\\bbad call\\b, usage error",
            "\\bcannot\\b, can't", "\\bstands? for nothing\\b, undefined", "\\bbecomes? of\\b, result",
            "\\blets? (us|one) in\\b, login", "\\bis meant\\b, choose",
            "\\bnot to be (seen|had|found)\\b, not available",
            "\\b(is|are) (being )?told\\b, reports", "(?<![Tt]here )\\bis no (?!longer)\\p{L}+, isn’t a",
            "messages a second, messages/s",
            "\\bon the wire\\b, raw data",
            "\\bsays? by itself\\b, discovered", "\\banew\\b, again", "\\bso it is\\b, because",
            "\\bFound here\\b, Discovered"})
    void noTextHasAPhraseThatNobodyWouldSay(String phrase, String instead) {
        Pattern pattern = Pattern.compile(phrase);
        assertThat(texts).filteredOn(t -> pattern.matcher(t.text()).find()).as("write: " + instead).isEmpty();
    }
}
