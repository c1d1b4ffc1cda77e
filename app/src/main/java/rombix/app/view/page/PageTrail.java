package rombix.app.view.page;

import java.util.ArrayDeque;
import java.util.Deque;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The way that led to the page that is shown, and back. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
public final class PageTrail {
    private static final int LONGEST = 50;

    private final Workbench bench;
    private final Deque<String> before = new ArrayDeque<>();
    private String shown;
    private boolean going;

    public PageTrail(Workbench bench) {
        this.bench = bench;
        this.shown = bench.page().id();
        bench.watch(this::changed);
    }

    private void changed() {
        String now = bench.page().id();
        if (!now.equals(shown)) {
            if (!going) {
                before.push(shown);
                if (before.size() > LONGEST) {
                    before.removeLast();
                }
            }
            shown = now;
        }
    }

    /** The page that going back leads to; null where there is none. */
    @Nullable
    public String previous() {
        before.removeIf(p -> bench.rig().page(p).isEmpty());
        return before.peek();
    }

    /** Goes back to the page that was shown before; nowhere if there was none. */
    public void back() {
        String previous = previous();
        if (previous != null) {
            before.pop();
            going = true;
            bench.showPage(previous);
            going = false;
        }
    }

    /** Goes back from a page, if it is the one that is shown; another stays, and it is forgotten on the way. */
    void backFrom(String page) {
        if (bench.page().id().equals(page)) {
            back();
        } else {
            before.removeFirstOccurrence(page);
        }
    }
}
