package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Paths;
import rombix.core.board.State;
import rombix.core.board.StepWords;
import rombix.core.board.Walk;
import rombix.core.check.Finding;
import rombix.core.twin.Twin.Readings;

/** Places of a board that one can go to: pages, buttons, steps, chains, by what stands there. */
public final class Places {
    private Places() {
    }

    /**
     * Somewhere to go.
     *
     * @param words what stands there
     * @param where on which page, or in which button's chain
     */
    public record Place(String words, String where, Runnable go) {
    }

    /** The places whose words, labels and notes have all of the typed words; pages and buttons before steps. */
    public static List<Place> find(String typed, Workbench bench, Function<String, Readings> readings, int max) {
        String[] wanted = typed.toLowerCase(Locale.ROOT).strip().split("\\s+");
        List<Place> found = new ArrayList<>();
        Board board = bench.board();
        for (Page page : board.pages()) {
            add(found, wanted, page.name(), "page", page.name(), () -> bench.showPage(page.id()));
        }
        for (Page page : board.pages()) {
            for (Button b : page.buttons()) {
                StringBuilder all = new StringBuilder(b.name());
                for (State s : b.states()) {
                    all.append(' ').append(s.name()).append(' ').append(s.face().label() == null
                            ? ""
                            : s.face()
                                    .label());
                }
                add(found, wanted, b.name(), "on " + page.name(), all.toString(), () -> bench.select(b.id()));
            }
        }
        for (Gear g : board.gear()) {
            String kind = bench.rig().twin(g.id()).map(t -> t.card().title()).orElse(g.card());
            add(found, wanted, g.name(), "gear, " + g.link().protocol().title(), g.name() + " " + kind + " " + g.link()
                    .address() + " " + g.link().protocol().title(), () -> bench.lookFor(g.id()));
        }
        board.chains().forEach(c -> add(found, wanted, c.name(), "chain", c.name(), () -> bench.selectPart(
                new Part(null, c.id()))));
        StepWords words = new StepWords(bench.rig(), readings);
        Walk.steps(board, spot -> {
            if (found.size() < max) {
                String text = words.of(spot.step());
                String note = spot.step().how().note() == null ? "" : " " + spot.step().how().note();
                add(found, wanted, text + note, spot.owner().words(), text + note, () -> go(bench, spot.owner(), spot
                        .place()));
            }
        });
        return found.subList(0, Math.min(max, found.size()));
    }

    private static void add(List<Place> to, String[] wanted, String words, String where, String all, Runnable go) {
        String text = all.toLowerCase(Locale.ROOT);
        for (String w : wanted) {
            if (!text.contains(w)) {
                return;
            }
        }
        to.add(new Place(words, where, go));
    }

    /** Goes to a chain, and to a step in it. */
    public static void go(Workbench bench, Walk.Owner owner, String place) {
        Button button = owner.button();
        if (button == null) {
            bench.selectPart(new Part(null, owner.chain()));
        } else {
            bench.select(button.id());
            if (owner.state() != null) {
                bench.selectState(button.states().indexOf(owner.state()));
            }
            bench.selectPart(new Part(owner.gesture(), null));
        }
        Paths.ofPlace(place).ifPresent(bench::selectStep);
    }

    /** Goes to what a finding is about. */
    public static void go(Workbench bench, Finding finding) {
        Walk.Spot[] spot = new Walk.Spot[1];
        Walk.steps(bench.board(), s -> {
            if (finding.pointer().startsWith(s.pointer()) && (spot[0] == null || s.pointer().length() > spot[0]
                    .pointer().length())) {
                spot[0] = s;
            }
        });
        if (spot[0] != null) {
            go(bench, spot[0].owner(), spot[0].place());
        } else if (!finding.button().isEmpty()) {
            bench.select(finding.button());
            java.util.regex.Matcher m = java.util.regex.Pattern.compile(".*/states/(\\d+).*").matcher(finding
                    .pointer());
            if (m.matches()) {
                bench.selectState(Integer.parseInt(m.group(1)));
            }
        }
    }
}
