package rombix.running.face;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.kordamp.ikonli.Ikon;

/** The icons that ship, found by their names without a toolkit. Thread-safe. */
public final class IconFont {
    /** Where the font with all of them is. */
    public static final String FILE = "/META-INF/resources/materialdesign2/7.4.47/fonts/materialdesignicons-webfont.ttf";
    private static final String PACK = "org.kordamp.ikonli.materialdesign2.MaterialDesign";
    private static final Map<Character, Map<String, Ikon>> BY_LETTER = new ConcurrentHashMap<>();

    private IconFont() {
    }

    /** An icon by its literal, such as {@code mdi2p-play}; looks at those alone that begin with its letter. */
    public static Optional<Ikon> find(String literal) {
        return literal.matches("mdi2[a-z]-.+")
                ? Optional.ofNullable(ofLetter(Character.toUpperCase(literal.charAt(4))).get(literal))
                : Optional.empty();
    }

    /** The icons whose names begin with a letter, by their literals, in the order of the font. */
    public static Map<String, Ikon> ofLetter(char letter) {
        return Objects.requireNonNull(BY_LETTER.computeIfAbsent(letter, IconFont::read));
    }

    private static Map<String, Ikon> read(char letter) {
        try {
            Map<String, Ikon> all = new LinkedHashMap<>();
            for (Object icon : Class.forName(PACK + letter).getEnumConstants()) {
                all.put(((Ikon) icon).getDescription(), (Ikon) icon);
            }
            return Collections.unmodifiableMap(all);
        } catch (ClassNotFoundException e) {
            return Map.of(); // There is no icon whose name begins so.
        }
    }
}
