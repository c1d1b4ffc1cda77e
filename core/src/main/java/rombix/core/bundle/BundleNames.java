package rombix.core.bundle;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;

/** Names of files in a bundle: only those that mean the same on every system, within one folder. */
final class BundleNames {
    private static final int LONGEST = 200;
    private static final int DEEPEST = 8;
    private static final Pattern SIGNS = Pattern.compile("[\\x00-\\x1F\\x7F<>:\"|?*\\\\]");
    private static final Pattern DEVICE = Pattern.compile("(?i)(con|prn|aux|nul|com[0-9]|lpt[0-9])(\\..*)?");
    private static final Pattern CARD = Pattern.compile("cards/[^/]+\\.json");
    private static final Pattern BOARD = Pattern.compile("[^/]+\\.json");
    private static final Set<String> AROUND = Set.of("", ".", "..");

    private BundleNames() {
    }

    /** What is wrong with a name, as a clause; null where nothing is. */
    static @Nullable String wrong(String name) {
        if (name.length() > LONGEST) {
            return "is longer than " + LONGEST + " characters";
        }
        if (name.startsWith("/") || name.matches("[A-Za-z]:.*")) {
            return "starts at the root of a disk";
        }
        if (SIGNS.matcher(name).find()) {
            return "has characters that not every system takes";
        }
        String[] parts = name.split("/", -1);
        if (parts.length > DEEPEST) {
            return "is more than " + DEEPEST + " folders deep";
        }
        for (String part : parts) {
            if (AROUND.contains(part)) {
                return "leads out of its folder";
            }
            if (part.startsWith(".") || part.endsWith(".") || part.endsWith(" ") || part.startsWith(" ")) {
                return "begins or ends with a dot or a space";
            }
            if (DEVICE.matcher(part).matches()) {
                return "is that of a device on some systems";
            }
        }
        return kind(name) ? null : "is of a kind that no bundle has";
    }

    private static boolean kind(String name) {
        return BOARD.matcher(name).matches() || CARD.matcher(name).matches() || Rig.sound(name);
    }

    /** The same for names that are one file on systems that know no capitals, or write accents in two ways. */
    static String same(String name) {
        return Normalizer.normalize(name, Normalizer.Form.NFC).toLowerCase(Locale.ROOT);
    }
}
