package rombix.core.diff;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;

/** Two lists laid side by side, so that as much as possible stands beside its like. */
final class Aligned {
    /** What stands beside what; one of them is null where there is nothing beside it. */
    record Pair<T>(@Nullable T before, @Nullable T after) {
    }

    private Aligned() {
    }

    /** @param alike whether two that are not equal are the same thing, changed */
    static <T> List<Pair<T>> of(List<T> before, List<T> after, BiPredicate<T, T> alike) {
        int[][] common = new int[before.size() + 1][after.size() + 1];
        for (int i = before.size() - 1; i >= 0; i--) {
            for (int j = after.size() - 1; j >= 0; j--) {
                common[i][j] = before.get(i).equals(after.get(j))
                        ? common[i + 1][j + 1] + 1
                        : Math.max(common[i + 1][j], common[i][j + 1]);
            }
        }
        List<Pair<T>> pairs = new ArrayList<>();
        int i = 0;
        int j = 0;
        while (i < before.size() || j < after.size()) {
            int fromI = i;
            int fromJ = j;
            while (i < before.size() && (j == after.size() || !before.get(i).equals(after.get(j))
                    && common[i + 1][j] >= common[i][j + 1])
                    || j < after.size() && (i == before.size() || !before.get(i).equals(after.get(j)))) {
                if (j == after.size() || i < before.size() && common[i + 1][j] >= common[i][j + 1]) {
                    i++;
                } else {
                    j++;
                }
            }
            gap(before.subList(fromI, i), after.subList(fromJ, j), alike, pairs);
            if (i < before.size() && j < after.size()) {
                pairs.add(new Pair<>(before.get(i++), after.get(j++)));
            }
        }
        return pairs;
    }

    /** Between two that are the same: each beside the first after it that is alike. */
    private static <T> void gap(List<T> before, List<T> after, BiPredicate<T, T> alike, List<Pair<T>> pairs) {
        int next = 0;
        for (T b : before) {
            int found = -1;
            for (int j = next; j < after.size() && found < 0; j++) {
                found = alike.test(b, after.get(j)) ? j : -1;
            }
            if (found < 0) {
                pairs.add(new Pair<>(b, null));
                continue;
            }
            after.subList(next, found).forEach(a -> pairs.add(new Pair<>(null, a)));
            pairs.add(new Pair<>(b, after.get(found)));
            next = found + 1;
        }
        after.subList(next, after.size()).forEach(a -> pairs.add(new Pair<>(null, a)));
    }
}
