package rombix.app.view.common;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import rombix.running.face.IconFont;

/** The icons that ship, searched by plain words. */
public final class Icons {
    private static final List<String> USUAL = List.of("mdi2v-video-outline", "mdi2m-microphone", "mdi2m-microphone-off",
            "mdi2m-music", "mdi2v-volume-high", "mdi2l-lightbulb-outline", "mdi2s-spotlight-beam",
            "mdi2p-palette-outline",
            "mdi2d-door-open", "mdi2l-lock-outline", "mdi2p-power", "mdi2t-timer-outline", "mdi2t-telescope",
            "mdi2w-weather-night", "mdi2c-cloud-outline", "mdi2c-camera-outline", "mdi2m-monitor",
            "mdi2m-message-outline",
            "mdi2b-bell-outline", "mdi2p-play", "mdi2p-pause", "mdi2s-stop", "mdi2s-skip-next",
            "mdi2r-record-circle-outline",
            "mdi2h-home-outline", "mdi2k-kettle-outline", "mdi2m-map-outline", "mdi2s-star-outline", "mdi2h-hand-wave",
            "mdi2a-account-voice");

    private Icons() {
    }

    /** Read once they are asked for. */
    private static final class All {
        private static final List<String> NAMES = all();

        private static List<String> all() {
            List<String> literals = new ArrayList<>();
            for (char letter = 'A'; letter <= 'Z'; letter++) {
                literals.addAll(IconFont.ofLetter(letter).keySet());
            }
            return Collections.unmodifiableList(literals);
        }
    }

    /** Whether there is an icon of this name; looks at those alone that begin with its letter. */
    public static boolean known(String literal) {
        return IconFont.find(literal).isPresent();
    }

    /** The names of all. */
    public static List<String> names() {
        return All.NAMES;
    }

    /** The icons whose names have all of the words, shortest names first; some usual ones where there are no words. */
    public static List<String> find(String words, int max) {
        if (words.isBlank()) {
            return USUAL.subList(0, Math.min(max, USUAL.size()));
        }
        String[] wanted = words.toLowerCase(Locale.ROOT).strip().split("\\s+");
        return All.NAMES.stream().filter(literal -> {
            String name = words(literal);
            for (String w : wanted) {
                if (!name.contains(w)) {
                    return false;
                }
            }
            return true;
        }).sorted(java.util.Comparator.comparingInt(String::length)).limit(max).toList();
    }

    /** An icon's name in words. */
    public static String words(String literal) {
        return literal.replaceFirst("^mdi2[a-z]-", "").replace('-', ' ');
    }
}
