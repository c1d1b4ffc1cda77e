package rombix.app.edit;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Texts by their names in an {@link OwnersFile}, each in a line. Safe to use from any thread. */
final class NamedLines {
    private static final Logger LOG = LoggerFactory.getLogger(NamedLines.class);

    private final OwnersFile file;

    NamedLines(OwnersFile file) {
        this.file = file;
    }

    /** As the file is now: another Rombix may have written it. What cannot be read counts as not there. */
    synchronized Map<String, String> all() {
        Map<String, String> all = new TreeMap<>();
        try {
            for (String line : file.lines()) {
                int space = line.indexOf(' ');
                if (space > 0) {
                    all.put(line.substring(0, space), new String(Base64.getDecoder().decode(line.substring(space + 1)),
                            StandardCharsets.UTF_8));
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            LOG.warn("{} cannot be read", file.path()); // Not more: what stands there is nobody else's.
        }
        return all;
    }

    Optional<String> get(String name) {
        return Optional.ofNullable(all().get(name));
    }

    /** @param text null takes it away */
    synchronized void set(String name, @Nullable String text) throws IOException {
        Map<String, String> all = all();
        if (text == null) {
            all.remove(name);
        } else {
            all.put(name, text);
        }
        List<String> lines = new ArrayList<>();
        all.forEach((n, t) -> lines.add(n + " " + Base64.getEncoder().encodeToString(t.getBytes(
                StandardCharsets.UTF_8))));
        file.replace(lines);
    }
}
