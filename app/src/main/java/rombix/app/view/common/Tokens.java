package rombix.app.view.common;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The token sheet: the one place for colours, type sizes and spaces. The toolkit looks up colours by name by itself;
 * sizes are put into the style sheet here.
 */
public final class Tokens {
    private static final Pattern SIZE = Pattern.compile("(-(?:type|space)-[a-z0-9]+):\\s*(\\d+)px;");
    private static final Pattern NAME = Pattern.compile("-(?:type|space)-[a-z0-9]+");
    private static final String SHEET = text("tokens.css");
    private static final Map<String, Integer> SIZES = sizes();
    private static final List<String> SHEETS = List.of(address(SHEET), address(NAME.matcher(text("rombix.css"))
            .replaceAll(m -> size(m.group()) + "px")));

    private Tokens() {
    }

    private static Map<String, Integer> sizes() {
        Map<String, Integer> all = new LinkedHashMap<>();
        Matcher m = SIZE.matcher(SHEET);
        while (m.find()) {
            all.put(m.group(1), Integer.valueOf(m.group(2)));
        }
        return all;
    }

    private static String text(String name) {
        try (InputStream in = Tokens.class.getResourceAsStream("/rombix/app/" + name)) {
            return new String(Objects.requireNonNull(in, name).readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A size in pixels by its name; throws where the sheet has no such name. */
    public static int size(String name) {
        return Objects.requireNonNull(SIZES.get(name), () -> "no token " + name);
    }

    /**
     * The style sheets of a scene, as addresses: always the same texts, as the toolkit looks them up for every node, and
     * compares two that are equal letter by letter.
     */
    public static List<String> sheets() {
        return SHEETS;
    }

    private static String address(String css) {
        return "data:text/css;charset=UTF-8;base64," + Base64.getEncoder().encodeToString(css.getBytes(
                StandardCharsets.UTF_8));
    }
}
