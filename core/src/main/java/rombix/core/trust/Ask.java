package rombix.core.trust;

import rombix.core.value.Visible;

/**
 * Something that a board brings and that wants its owner's leave.
 *
 * @param key what it is, the same on every board that brings it: it is kept on this computer once it was agreed to
 * @param name what of the board brings it, such as a gear's name
 * @param words what it does, as a clause that follows the name
 */
public record Ask(Kind kind, String key, String name, String words) {
    public Ask {
        key = Visible.line(key); // It is kept in a file of lines.
        name = Visible.line(name);
        words = Visible.line(words);
    }

    /** What is asked for. */
    public enum Kind {
        /** To send to an address, and to listen to it. */
        REACHES("Gear it connects to"),
        /** To work this computer itself. */
        WORKS_HERE("What it does with this computer"),
        /** To be pressed by keys and controllers while another program is in front, or over a network. */
        HEARS("What it receives"),
        /** To do something without a hand. */
        BY_ITSELF("What it does automatically");

        private final String title;

        Kind(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }
}
