package rombix.app.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/** The guide, and the help that is said at once, say of the command line what the commands say themselves. */
@Execution(ExecutionMode.CONCURRENT)
class CommandsPageTest {
    @Test
    void thePageOfTheGuideIsThatOfTheCommands() throws IOException {
        assertThat(Files.readString(CommandsPage.PAGE)).as("run CommandsPage to write it anew").isEqualTo(CommandsPage
                .text());
    }

    @Test
    void theHelpThatIsSaidAtOnceIsThatOfTheCommands() throws IOException {
        assertThat(Files.readString(CommandsPage.HELP)).as("run CommandsPage to write it anew").isEqualTo(CommandsPage
                .help());
    }
}
