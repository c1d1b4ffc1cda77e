package rombix.core.diff;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeSet;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.store.BoardTree;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What is otherwise in one chain than in another, in words. */
final class StepChanges {
    /** What a step is called whose time alone has changed. */
    private static final Map<String, String> NOUNS = Map.of("wait", "the wait", "fade", "the fade", "for-a-while",
            "the part for a while");
    private static final List<String> TIMES = List.of("ms");

    private final StepWords was;
    private final StepWords is;

    StepChanges(Rig before, Rig after) {
        was = new StepWords(before, _ -> Twin.Readings.NONE);
        is = new StepWords(after, _ -> Twin.Readings.NONE);
    }

    List<String> of(Chain before, Chain after) {
        List<String> all = new ArrayList<>(of(before.steps(), after.steps()));
        all.addAll(of(before.always(), after.always()).stream().map(w -> "at its end, always, " + w).toList());
        if (before.putBack() != after.putBack()) {
            all.add(after.putBack() ? "it is put back if stopped" : "it is no longer put back if stopped");
        }
        if (all.isEmpty() && !before.equals(after)) {
            all.add("the chain has changed");
        }
        return all;
    }

    private List<String> of(List<Step> before, List<Step> after) {
        List<Aligned.Pair<Step>> pairs = Aligned.of(before, after, StepChanges::alike);
        List<String> all = new ArrayList<>();
        for (Aligned.Pair<Step> p : pairs) {
            Step b = p.before();
            Step a = p.after();
            if (b == null) {
                Step added = Objects.requireNonNull(a);
                boolean moved = pairs.stream().anyMatch(o -> o.after() == null && added.equals(o.before()));
                all.add(quoted(is.of(added)) + (moved ? " is elsewhere in the chain" : " is new"));
            } else if (a == null) {
                if (pairs.stream().noneMatch(o -> o.before() == null && b.equals(o.after()))) {
                    all.add(quoted(was.of(b)) + " is gone");
                }
            } else if (!a.equals(b)) {
                changed(b, a, all);
            }
        }
        return all;
    }

    /** Whether one step is the other, changed: it works the same thing. */
    private static boolean alike(Step before, Step after) {
        return before.getClass() == after.getClass() && (!(before instanceof GearStep b) || b.gear().equals(
                ((GearStep) after).gear()) && b.command().equals(((GearStep) after).command()));
    }

    private void changed(Step before, Step after, List<String> all) {
        ObjectNode b = (ObjectNode) BoardTree.of(before.withInner(empty(before)));
        ObjectNode a = (ObjectNode) BoardTree.of(after.withInner(empty(after)));
        TreeSet<String> differ = new TreeSet<>();
        b.propertyNames().forEach(n -> {
            if (!b.get(n).equals(a.get(n))) {
                differ.add(n);
            }
        });
        a.propertyNames().forEach(n -> {
            if (!a.get(n).equals(b.get(n))) {
                differ.add(n);
            }
        });
        String noun = NOUNS.get(a.path("step").asString(""));
        if (differ.size() == 1 && noun != null && TIMES.contains(differ.first())) {
            all.add("%s takes %s instead of %s".formatted(noun, span(a.get(differ.first())), span(b.get(differ
                    .first()))));
        } else if (!was.of(before).equals(is.of(after))) {
            all.add("%s instead of %s".formatted(quoted(is.of(after)), quoted(was.of(before))));
        } else if (!differ.isEmpty()) {
            all.add(quoted(is.of(after)) + " " + options(before, after, differ));
        }
        if (before.inner().size() != after.inner().size()) {
            all.add("%s has %d chains instead of %d".formatted(quoted(is.of(after)), after.inner().size(), before
                    .inner().size()));
        }
        for (int i = 0; i < Math.min(before.inner().size(), after.inner().size()); i++) {
            if (!before.inner().get(i).equals(after.inner().get(i))) {
                of(before.inner().get(i), after.inner().get(i)).forEach(all::add);
            }
        }
    }

    private static String options(Step before, Step after, TreeSet<String> differ) {
        if (before.how().off() != after.how().off()) {
            return after.how().off() ? "is switched off" : "is switched on again";
        }
        if (!Objects.equals(before.how().note(), after.how().note())) {
            return after.how().note() == null
                    ? "no longer has a note"
                    : "has the note " + quoted(String.valueOf(after.how().note()));
        }
        return "is otherwise in " + String.join(", ", differ);
    }

    private static List<Chain> empty(Step step) {
        return step.inner().stream().map(_ -> Chain.EMPTY).toList();
    }

    private static String span(JsonNode millis) {
        return millis == null ? "no time" : Figures.span(millis.asLong(0));
    }

    private static String quoted(String words) {
        return "“" + words + "”";
    }
}
