package rombix.app.cli.option;

import java.nio.file.Path;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What to open, and how.
 *
 * @param addresses addresses that take the place of the board's, by gear
 * @param forMillis for how long; until the window is closed where it is null
 * @param live whether the show begins at once
 * @param trusted whether all is agreed to that the board brings
 * @param allow what else it may do with this computer meanwhile
 * @param web whether its pages are shown in browsers
 */
public record LaunchOptions(Path board, Map<String, String> addresses, @Nullable Long forMillis, boolean live,
        boolean trusted, Allow allow, WebOptions web) {
}
