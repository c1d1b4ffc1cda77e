package rombix.app.view.window;

import java.util.List;
import java.util.function.Supplier;
import rombix.app.view.common.KeyNames;

/** Something that can be done; {@code keys} are written as {@link KeyNames#name} writes them, the first one is shown. */
record Command(Supplier<String> words, List<String> keys, Where where, Runnable run) {
    /** Where a command can be given. */
    enum Where {
        /** In every mode. */
        ALWAYS,
        /** In Live and in Rehearse. */
        LIVE,
        /** In Build, wherever the hand is; while it types only with Ctrl, Alt or a function key. */
        BUILD,
        /** In Build, on the page. */
        PAGE,
        /** In Build, in the score or its list. */
        STEPS
    }

    /** The key that is shown; empty where there is none. */
    String key() {
        return keys.isEmpty() ? "" : KeyNames.shown(keys.getFirst());
    }
}
