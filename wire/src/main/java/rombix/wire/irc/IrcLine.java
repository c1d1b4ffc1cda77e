package rombix.wire.irc;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rombix.wire.Malformed;

/**
 * One line of IRC: who says it, the command or the number of a reply, and its parameters (RFC 2812, section 2.3).
 *
 * @param source empty where the line names none
 */
public record IrcLine(String source, String command, List<String> params) {
    /** The longest line that the standard allows, in bytes, its end included. */
    public static final int LONGEST = 512;
    private static final int MAX_PARAMS = 15;

    public IrcLine {
        params = List.copyOf(params);
    }

    public static IrcLine of(String command, String... params) {
        return new IrcLine("", command, List.of(params));
    }

    /** The parameter at a place, or empty. */
    public String param(int at) {
        return at < params.size() ? params.get(at) : "";
    }

    /** The nickname in the source. */
    public String nick() {
        int end = source.indexOf('!');
        return end < 0 ? source : source.substring(0, end);
    }

    /**
     * This line as several, each no longer than so many bytes, the last parameter taken apart between its words; none
     * where it cannot be.
     */
    public List<IrcLine> split(int longest) {
        if (size(this) <= longest) {
            return List.of(this);
        }
        if (params.size() < 2) {
            return List.of();
        }
        List<String> before = params.subList(0, params.size() - 1);
        List<IrcLine> lines = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        for (String word : params.getLast().split(" ")) {
            String more = part.isEmpty() ? word : part + " " + word;
            if (size(with(before, more)) > longest) {
                if (part.isEmpty() || size(with(before, word)) > longest) {
                    return List.of();
                }
                lines.add(with(before, part.toString()));
                part.setLength(0);
                part.append(word);
            } else {
                part.setLength(0);
                part.append(more);
            }
        }
        lines.add(with(before, part.toString()));
        return lines;
    }

    private IrcLine with(List<String> before, String last) {
        List<String> all = new ArrayList<>(before);
        all.add(last);
        return new IrcLine(source, command, all);
    }

    private static int size(IrcLine line) {
        return line.encode().getBytes(StandardCharsets.UTF_8).length;
    }

    /** The line without its end. What would end it early or begin another is taken out. */
    public String encode() {
        StringBuilder line = new StringBuilder();
        if (!source.isEmpty()) {
            line.append(':').append(plain(source)).append(' ');
        }
        line.append(plain(command));
        for (int i = 0; i < params.size(); i++) {
            String p = plain(params.get(i));
            boolean last = i == params.size() - 1;
            line.append(' ');
            if (last && (p.isEmpty() || p.startsWith(":") || p.indexOf(' ') >= 0)) {
                line.append(':').append(p);
            } else {
                line.append(last ? p : p.replace(' ', '_'));
            }
        }
        return line.toString();
    }

    private static String plain(String text) {
        return text.replaceAll("[\r\n\0]", " ");
    }

    /**
     * Reads a line without its end.
     *
     * @throws Malformed with the reason
     */
    public static IrcLine decode(String line) throws Malformed {
        String rest = line;
        if (rest.startsWith("@")) { // Tags of IRCv3: nobody here asked for them.
            rest = after(rest);
        }
        String source = "";
        if (rest.startsWith(":")) {
            int space = rest.indexOf(' ');
            source = rest.substring(1, space < 0 ? rest.length() : space);
            rest = after(rest);
        }
        rest = rest.stripLeading();
        int end = rest.indexOf(' ');
        String command = end < 0 ? rest : rest.substring(0, end);
        if (!command.matches("[A-Za-z]+|\\d{3}")) {
            throw new Malformed("a line without a command: “" + (line.length() > 40
                    ? line.substring(0, 40) + "…"
                    : line) + "”");
        }
        List<String> params = new ArrayList<>();
        rest = end < 0 ? "" : rest.substring(end + 1);
        while (!rest.isEmpty() && params.size() < MAX_PARAMS) {
            if (rest.startsWith(":") || params.size() == MAX_PARAMS - 1) {
                params.add(rest.startsWith(":") ? rest.substring(1) : rest);
                break;
            }
            int space = rest.indexOf(' ');
            if (space != 0) {
                params.add(space < 0 ? rest : rest.substring(0, space));
            }
            rest = space < 0 ? "" : rest.substring(space + 1);
        }
        return new IrcLine(source, command.toUpperCase(Locale.ROOT), params);
    }

    private static String after(String text) {
        int space = text.indexOf(' ');
        return space < 0 ? "" : text.substring(space + 1).stripLeading();
    }
}
