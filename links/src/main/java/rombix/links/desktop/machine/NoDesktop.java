package rombix.links.desktop.machine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import rombix.core.sight.Pixels;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/** A computer without a desktop that could be worked: it runs programs, and says of the rest why not. One thread's. */
@OwnedBy(Owner.LINK)
public final class NoDesktop extends RealMachine {
    private final String why;

    public NoDesktop(String why) {
        this.why = why;
    }

    @Override
    public Map<String, String> unable() {
        Map<String, String> all = super.unable();
        List.of("keys", "pointer", "windows", "clipboard", "screen").forEach(group -> all.put(group, why));
        return all;
    }

    private Unable unavailable() {
        return new Unable(why);
    }

    @Override
    public void key(String key, boolean down) throws Unable {
        throw unavailable();
    }

    @Override
    public void type(int codePoint) throws Unable {
        throw unavailable();
    }

    @Override
    public Pixels picture(Box part) throws Unable {
        throw unavailable();
    }

    @Override
    public Set<String> down() {
        return Set.of();
    }

    @Override
    public boolean touched() {
        return false;
    }

    @Override
    public Point pointer() throws Unable {
        throw unavailable();
    }

    @Override
    public void move(Point to) throws Unable {
        throw unavailable();
    }

    @Override
    public void button(String button, boolean down) throws Unable {
        throw unavailable();
    }

    @Override
    public void wheel(String way) throws Unable {
        throw unavailable();
    }

    @Override
    public List<Box> screens() throws Unable {
        throw unavailable();
    }

    @Override
    public List<Window> windows() {
        return List.of();
    }

    @Override
    public Optional<Window> front() {
        return Optional.empty();
    }

    @Override
    public void bring(Window window) throws Unable {
        throw unavailable();
    }

    @Override
    public void close(Window window) throws Unable {
        throw unavailable();
    }

    @Override
    public void minimise(Window window) throws Unable {
        throw unavailable();
    }

    @Override
    public void place(Window window, Box box) throws Unable {
        throw unavailable();
    }
}
