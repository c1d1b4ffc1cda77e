package rombix.core.engine.run;

import java.util.LinkedHashSet;
import java.util.Set;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;

/** Fades that links render, each of which tells now and then where it is. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
final class Glides {
    private static final long PROGRESS_NANOS = 250_000_000L;
    private static final int PROGRESS_MOST = 16;

    /** What moves elsewhere. */
    interface Moving {
        /** Tells where it is. */
        void progress();
    }

    private final Agenda agenda;
    private final Set<Moving> gliding = new LinkedHashSet<>();

    Glides(Agenda agenda) {
        this.agenda = agenda;
    }

    void add(Moving fade, long now) {
        if (gliding.isEmpty()) {
            agenda.at(now + PROGRESS_NANOS, this::progress);
        }
        gliding.add(fade);
    }

    /** @return whether it was on its way */
    boolean remove(Moving fade) {
        return gliding.remove(fade);
    }

    /** Tells where they are: so many at a time in turn, so that thousands cost no more than some. */
    private void progress(long due) {
        for (int i = Math.min(gliding.size(), PROGRESS_MOST); i > 0; i--) {
            Moving fade = gliding.iterator().next();
            gliding.remove(fade);
            gliding.add(fade);
            fade.progress();
        }
        if (!gliding.isEmpty()) {
            agenda.at(due + PROGRESS_NANOS, this::progress);
        }
    }
}
