package rombix.links.desktop.machine;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A program that plays sound.
 *
 * @param id its name in small letters, with lines in place of what is no letter and no digit
 * @param percent how loud it is
 * @param streams what the system's sound server calls what it plays; empty where that doesn't matter
 */
public record PlayingApplication(String id, String name, int percent, boolean mute, List<String> streams) {
    private static final JsonMapper JSON = new JsonMapper();

    public PlayingApplication(String name, int percent, boolean mute) {
        this(id(name), name, percent, mute, List.of());
    }

    /** The id of a program by its name. */
    public static String id(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
    }

    /** Whether a window's application is this program, as far as their names tell. */
    public boolean of(String application) {
        String other = id(application);
        return !other.isEmpty() && (other.equals(id) || other.contains(id) || id.contains(other));
    }

    /**
     * Those that a sound server lists, as {@code pactl --format=json list sink-inputs} writes them; a program that plays
     * several things is one.
     */
    static List<PlayingApplication> listed(String json) {
        Map<String, PlayingApplication> all = new LinkedHashMap<>();
        try {
            for (JsonNode stream : JSON.readTree(json)) {
                JsonNode about = stream.path("properties");
                String name = about.path("application.name").asString(about.path("application.process.binary").asString(
                        ""));
                int percent = 0;
                for (JsonNode channel : stream.path("volume")) {
                    percent = Math.max(percent, percent(channel.path("value_percent").asString("0")));
                }
                List<String> streams = new ArrayList<>(List.of(stream.path("index").asString("")));
                PlayingApplication one = new PlayingApplication(id(name), name, percent,
                        stream.path("mute").asBoolean(false), streams);
                PlayingApplication before = one.id.isEmpty() ? null : all.putIfAbsent(one.id, one);
                if (before != null) {
                    before.streams.add(streams.getFirst());
                }
            }
        } catch (JacksonException e) {
            return List.of(); // It is no list: the server says why elsewhere.
        }
        return List.copyOf(all.values());
    }

    private static int percent(String text) {
        String digits = text.replaceAll("\\D", "");
        return digits.isEmpty() || digits.length() > 4 ? 0 : Math.min(100, Integer.parseInt(digits));
    }
}
