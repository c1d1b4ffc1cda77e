package rombix.standins.set;

import java.util.List;
import java.util.Map;

/** What of a stand-in can be worked by hand, how it is now, and what came to it. Safe to use from any thread. */
public interface Panel {
    /** What it is called, and what it speaks. */
    String title();

    /** Its controls, as they are now; the same ones in the same order each time. */
    List<Control> controls();

    /** Works a control by hand, as at the thing itself. @param to what it is to be, as text */
    void work(String id, String to);

    /** The last messages that came, the newest first. */
    List<String> recentMessages();

    /** Something on it. */
    sealed interface Control {
        String id();

        String label();
    }

    /** Something that is so or not, with the words for both. */
    record Switch(String id, String label, boolean on, String yes, String no) implements Control {
    }

    /** Something between two ends. */
    record Level(String id, String label, double now, double min, double max, String unit) implements Control {
    }

    /** One of several. @param all their names by their ids, in order */
    record Choice(String id, String label, String now, Map<String, String> all) implements Control {
    }

    /** Something that is pressed. */
    record Press(String id, String label) implements Control {
    }

    /** Something that is typed. */
    record Said(String id, String label) implements Control {
    }

    /** Something that is only seen. @param colour as {@code #RRGGBB}; empty where it has none */
    record Seen(String id, String label, String now, String colour) implements Control {
    }
}
