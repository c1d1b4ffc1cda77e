package rombix.app.edit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Paths;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The selection on a board: a page, buttons of it, a state, a chain, steps, and where the next one goes. */
@OwnedBy(Owner.INTERFACE)
final class Selection {
    private final Supplier<Rig> rig;
    private String page;
    private @Nullable String button;
    private final Set<String> besides = new LinkedHashSet<>();
    private int state;
    private Part part = Part.of(Gesture.PRESS);
    final Set<List<Integer>> steps = new LinkedHashSet<>();
    @Nullable
    List<Integer> cursor;

    Selection(Supplier<Rig> rig) {
        this.rig = rig;
        this.page = rig.get().board().pages().getFirst().id();
    }

    /** Another board was opened: selects its first page. */
    void reset() {
        page = rig.get().board().pages().getFirst().id();
        button = null;
        besides.clear();
        part = Part.of(Gesture.PRESS);
        dropSteps();
    }

    /** The board was edited: what is gone is no longer selected. */
    void keep(Chain chain) {
        if (button != null && rig.get().button(button).isEmpty()) {
            button = null;
        }
        besides.removeIf(b -> rig.get().button(b).isEmpty());
        steps.removeIf(path -> Paths.step(chain, path).isEmpty());
        if (cursor != null && !Paths.fits(chain, cursor)) {
            cursor = null;
        }
    }

    Page page() {
        return rig.get().page(page).orElse(rig.get().board().pages().getFirst());
    }

    void page(String id) {
        page = id;
        button(null);
    }

    Optional<Button> button() {
        return button == null ? Optional.empty() : rig.get().button(button);
    }

    List<Button> buttons() {
        List<Button> all = new ArrayList<>(button().stream().toList());
        besides.stream().filter(b -> !b.equals(button)).flatMap(b -> rig.get().button(b).stream()).forEach(all::add);
        return all;
    }

    /** Adds a button to the selection, or removes it. */
    void toggle(String id) {
        if (button == null) {
            button(id);
        } else if (!id.equals(button)) {
            if (!besides.remove(id)) {
                besides.add(id);
            }
        } else if (buttons().size() > 1) {
            String next = buttons().get(1).id();
            Set<String> left = new LinkedHashSet<>(besides);
            left.remove(next);
            left.remove(id);
            button(next);
            besides.addAll(left);
        }
    }

    void button(@Nullable String id) {
        besides.clear();
        if (!Objects.equals(id, button)) {
            state = 0;
        }
        if (!Objects.equals(id, button) || part.chain() != null) {
            part = Part.of(Gesture.PRESS);
        }
        button = id;
        dropSteps();
        if (id != null) {
            rig.get().pageOf(id).ifPresent(p -> page = p.id());
        }
    }

    int state() {
        return button().map(b -> Math.min(state, b.states().size() - 1)).orElse(0);
    }

    void state(int index) {
        state = index;
        dropSteps();
    }

    Part part() {
        return part;
    }

    void part(Part next) {
        part = next;
        dropSteps();
    }

    void steps(Collection<List<Integer>> paths) {
        dropSteps();
        steps.addAll(paths);
        cursor = steps.isEmpty() ? null : Paths.next(List.copyOf(steps).getLast());
    }

    void dropSteps() {
        steps.clear();
        cursor = null;
    }
}
