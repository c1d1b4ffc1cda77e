package rombix.app.edit;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Channel;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.patch.Fixture;
import rombix.core.patch.Fixtures;
import rombix.core.patch.PatchCsv;
import rombix.core.patch.Universes;
import rombix.core.store.CardLibrary;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.twin.Twin;

/** Edits of a gear's patch, each an edit of the board; a personality that is made here is kept as a card beside it. */
@OwnedBy(Owner.INTERFACE)
public final class PatchEdits {
    private final Workbench bench;

    public PatchEdits(Workbench bench) {
        this.bench = bench;
    }

    /** Whether a gear's fixtures can be patched. */
    public static boolean patched(Card card) {
        return !card.patch().isEmpty();
    }

    public List<Fixture> fixtures(String gear) {
        return bench.board().gear(gear).map(Gear::patch).orElse(List.of());
    }

    public Universes universes(String gear) {
        return new Universes(fixtures(gear), bench.rig().cards());
    }

    /** The cards that say what a fixture's channels mean. */
    public List<Card> personalities() {
        return bench.rig().cards().values().stream().filter(c -> !c.channels().isEmpty()).toList();
    }

    private void edit(String name, String gear, UnaryOperator<List<Fixture>> change) {
        bench.edit(name, b -> GearEdits.change(b, gear, g -> g.withPatch(change.apply(g.patch()))));
    }

    public void add(String gear, String name, String personality, int universe, int slot, int count) {
        edit("patch " + (count == 1 ? "“" + name + "”" : count + " × “" + name + "”"), gear,
                all -> Fixtures.add(all, bench
                        .rig().cards(), name, personality, universe, slot, count));
    }

    public void change(String what, String gear, String fixture, UnaryOperator<Fixture> change) {
        edit(what, gear, all -> Fixtures.change(all, fixture, change));
    }

    public void delete(String gear, Fixture fixture) {
        edit("delete “" + fixture.name() + "” from the patch", gear, all -> Fixtures.without(all, fixture.id()));
    }

    /** What names a fixture, in words. */
    public List<String> uses(String gear, Fixture fixture) {
        Twin twin = bench.rig().twin(gear).orElse(null);
        if (twin == null) {
            return List.of();
        }
        Set<String> all = new LinkedHashSet<>();
        Set<String> lists = new LinkedHashSet<>(twin.card().lists().keySet());
        twin.card().commands().forEach(c -> c.params().forEach(p -> lists.add(p.list())));
        lists.stream().filter(list -> twin.item(list, fixture.id(), Twin.Readings.NONE).isPresent()).forEach(list -> all
                .addAll(GearEdits.uses(bench.board(), gear, twin.card(), list, fixture.id())));
        return List.copyOf(all);
    }

    /** Takes the fixtures of a table in place of those there are; what could not be taken, each in words. */
    public List<String> read(String gear, String csv) {
        PatchCsv.Read read = PatchCsv.read(csv, bench.rig().cards());
        if (!read.fixtures().isEmpty()) {
            edit("read the patch from a table", gear, now -> Fixtures.replaced(now, read.fixtures()));
        }
        return read.wrong();
    }

    /** Whether a personality ships, so that it is copied rather than changed. */
    public static boolean ships(Card personality) {
        return CardLibrary.shipped().containsKey(personality.id());
    }

    /** Keeps a personality: a new one of its own where there is none of that id yet, or where that ships; its id. */
    public String keep(String id, String title, List<Channel> channels) {
        Card before = bench.rig().cards().get(id);
        boolean anew = before == null || ships(before) || before.channels().isEmpty();
        String as = anew ? Edits.freshId(title, "personality", bench.rig().cards()::containsKey) : id;
        Card card = Card.personality(as, title, channels);
        bench.editRig((anew ? "make" : "change") + " the personality “" + title + "”", rig -> rig.withCard(card));
        return as;
    }
}
