package rombix.app.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;

/** The guide says of the command line what the commands say themselves. */
class CommandsPageTest {
    @Test
    void thePageOfTheGuideIsThatOfTheCommands() throws IOException {
        assertThat(Files.readString(CommandsPage.PAGE)).as("run CommandsPage to write it anew").isEqualTo(CommandsPage
                .text());
    }
}
