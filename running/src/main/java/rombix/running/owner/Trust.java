package rombix.running.owner;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Rig;
import rombix.core.trust.Ask;
import rombix.core.trust.Asks;

/**
 * What the owner of this computer has agreed to, apart from all boards and by what it is: a board that asks for no more
 * than that is trusted, wherever it comes from; one that asks for more is a guest. Safe to use from any thread.
 */
public final class Trust {
    private static final Logger LOG = LoggerFactory.getLogger(Trust.class);

    private final @Nullable OwnersFile file;
    private final Set<String> elsewhere;
    private final Set<String> agreed = new HashSet<>();
    private @Nullable Rig last;
    private List<Ask> asked = List.of();

    private Trust(@Nullable OwnersFile file, Set<String> elsewhere) {
        this.file = file;
        this.elsewhere = elsewhere;
    }

    /**
     * That of this user.
     *
     * @param elsewhere the ids of gear that is reached at other addresses than a board's, as its owner has said
     */
    public static Trust of(Set<String> elsewhere) {
        return new Trust(OwnersFile.beside("trusted"), Set.copyOf(elsewhere));
    }

    /** That which a file holds. */
    public static Trust in(Path file) {
        return new Trust(new OwnersFile(file), Set.of());
    }

    /** Agrees to everything: for boards that are nobody else's. */
    public static Trust all() {
        return new Trust(null, Set.of());
    }

    /** What a board asks for that was not agreed to; nothing where it is trusted. */
    public synchronized List<Ask> missing(Rig rig) {
        OwnersFile from = file;
        if (from == null) {
            return List.of();
        }
        read(from);
        return asks(rig).stream().filter(a -> !agreed.contains(a.key())).toList();
    }

    /** Whether something that a board asks for was agreed to. */
    public synchronized boolean knows(Rig rig) {
        if (file != null) {
            read(file);
        }
        return asks(rig).stream().anyMatch(a -> agreed.contains(a.key()));
    }

    /** Looked for once a board: a window asks for the same that was asked for while it was made. */
    private List<Ask> asks(Rig rig) {
        if (rig != last) {
            asked = Asks.of(rig, elsewhere);
            last = rig;
        }
        return asked;
    }

    private void read(OwnersFile from) {
        try {
            agreed.addAll(from.lines()); // Another Rombix may have agreed to more.
        } catch (IOException e) {
            LOG.warn("{} can't be read: {}", from.path(), e.getMessage());
        }
    }

    /** Agrees to something from now on. What cannot be kept holds until Rombix is closed. */
    public synchronized void agree(Collection<Ask> asks) {
        List<String> fresh = asks.stream().map(Ask::key).filter(agreed::add).toList();
        if (file == null || fresh.isEmpty()) {
            return;
        }
        try {
            file.add(fresh);
        } catch (IOException e) {
            LOG.warn("{} can't be written: {}", file.path(), e.getMessage());
        }
    }

    /** Agrees to something until Rombix is closed. */
    public synchronized void agreeForNow(Collection<Ask> asks) {
        asks.forEach(a -> agreed.add(a.key()));
    }

    /** Agrees to all that a board asks for: what its owner has made, or looked at. */
    public void agree(Rig rig) {
        agree(missing(rig));
    }
}
