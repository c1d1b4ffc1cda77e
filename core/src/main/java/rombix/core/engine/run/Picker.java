package rombix.core.engine.run;

import java.util.Collections;
import java.util.Random;
import java.util.random.RandomGenerator;
import rombix.core.engine.op.Op;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/** Picks one of several by the laws of its way. What was picked before is remembered by the step itself. */
@OwnedBy(Owner.CONDUCTOR)
final class Picker {
    private final RandomGenerator chance;
    private final RunContext context;

    Picker(RandomGenerator chance, RunContext context) {
        this.chance = chance;
        this.context = context;
    }

    int pick(Op.Pick pick, Run run, String place) {
        int n = pick.chains.length;
        int chosen = switch (pick.way) {
            case IN_TURN -> (pick.last + 1) % n;
            case RANDOM -> weighted(pick.weights, -1);
            case NO_REPEAT -> n == 1 ? 0 : weighted(pick.weights, pick.last);
            case SHUFFLED -> shuffled(pick, n);
        };
        pick.last = chosen;
        context.telling.tell(new Happening.Picked(run.id, place, chosen, pick.names[chosen]));
        return chosen;
    }

    private int weighted(double[] weights, int not) {
        double sum = 0;
        for (int i = 0; i < weights.length; i++) {
            sum += i == not ? 0 : weights[i];
        }
        double at = chance.nextDouble() * sum;
        int last = not == 0 ? 1 : 0;
        for (int i = 0; i < weights.length; i++) {
            if (i != not) {
                last = i;
                at -= weights[i];
                if (at < 0) {
                    return i;
                }
            }
        }
        return last;
    }

    /** All before any comes again; the first of a new round is never the last of the one before. */
    private int shuffled(Op.Pick pick, int n) {
        if (pick.bag.isEmpty()) {
            for (int i = 0; i < n; i++) {
                pick.bag.add(i);
            }
            Collections.shuffle(pick.bag, Random.from(chance));
            if (n > 1 && pick.bag.getLast() == pick.last) {
                Collections.swap(pick.bag, n - 1, (int) chance.nextLong(n - 1));
            }
        }
        return pick.bag.removeLast();
    }
}
