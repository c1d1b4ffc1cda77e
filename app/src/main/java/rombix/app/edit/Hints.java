package rombix.app.edit;

import java.nio.file.Path;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Mode;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.running.owner.Settings;

/** The three hints of the first minutes: one at a time, where it is of use, and never again once it was followed. */
@OwnedBy(Owner.INTERFACE)
public final class Hints {
    /** A hint, in the order in which they come. */
    public enum Hint {
        /** Add the gear that the board is to work. */
        GEAR,
        /** Make a button, and type what it should do. */
        BUTTON,
        /** Press it. */
        PRESS;

        private String key() {
            return "hint." + name().toLowerCase(Locale.ROOT);
        }

        private boolean of(Workbench bench) {
            boolean steps = bench.board().pages().stream().flatMap(p -> p.buttons().stream()).flatMap(b -> b.states()
                    .stream()).flatMap(s -> s.on().values().stream()).anyMatch(c -> !c.isEmpty());
            return bench.mode() == Mode.BUILD && switch (this) {
                case GEAR -> bench.board().gear().isEmpty();
                case BUTTON -> !bench.board().gear().isEmpty() && !steps;
                case PRESS -> steps;
            };
        }
    }

    private final Workbench bench;
    private final Settings settings;
    private final Set<Hint> followed = EnumSet.noneOf(Hint.class);
    private @Nullable Hint due;
    private @Nullable Path of;

    /** @param settings where it is remembered which were followed */
    public Hints(Workbench bench, Settings settings) {
        this.bench = bench;
        this.settings = settings;
        for (Hint h : Hint.values()) {
            if (settings.get(h.key()).isPresent()) {
                followed.add(h);
            }
        }
    }

    /** The hint that is of use now, if any. What the last one asked for has been done where it is of use no more. */
    public Optional<Hint> now() {
        Hint before = due;
        if (before != null && bench.file().equals(of) && !before.of(bench)) {
            followed.add(before);
            settings.set(Map.of(before.key(), "followed"));
        }
        due = null;
        of = bench.file();
        for (Hint h : Hint.values()) {
            if (due == null && !followed.contains(h) && h.of(bench)) {
                due = h;
            }
        }
        return Optional.ofNullable(due);
    }
}
