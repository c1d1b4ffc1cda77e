package rombix.core.engine;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card.Command;
import rombix.core.card.Twin;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;

/** Turns a button's chains into what the conductor runs. */
final class Compiler {
    private final Rig rig;

    Compiler(Rig rig) {
        this.rig = rig;
    }

    /** The chains of a button, by state and gesture. */
    List<Map<Gesture, Op.Seq>> chains(Button button) {
        List<Map<Gesture, Op.Seq>> all = new ArrayList<>();
        for (State s : button.states()) {
            Map<Gesture, Op.Seq> byGesture = new EnumMap<>(Gesture.class);
            s.on().forEach((g, c) -> byGesture.put(g, seq(c, g.name().toLowerCase(java.util.Locale.ROOT))));
            all.add(byGesture);
        }
        return all;
    }

    private Op.Seq seq(Chain chain, String place) {
        List<Op> ops = new ArrayList<>(chain.steps().size());
        long expected = 0;
        for (int i = 0; i < chain.steps().size(); i++) {
            String here = place + "/" + i;
            switch (chain.steps().get(i)) {
                case Step.Do d -> {
                    Twin twin = rig.twin(d.gear()).orElse(null);
                    Command command = twin == null ? null : twin.card().command(d.command()).orElse(null);
                    if (twin != null && command != null) {
                        ops.add(new Op.Do(here, twin, command, d.with()));
                    }
                }
                case Step.Wait w -> {
                    ops.add(new Op.Wait(here, w.ms() * 1_000_000));
                    expected += w.ms() * 1_000_000;
                }
                case Step.Together t -> {
                    Op.Seq[] chains = new Op.Seq[t.chains().size()];
                    long longest = 0;
                    for (int c = 0; c < chains.length; c++) {
                        chains[c] = seq(t.chains().get(c), here + "/" + c);
                        longest = Math.max(longest, chains[c].expectedNanos());
                    }
                    ops.add(new Op.Together(here, chains));
                    expected += longest;
                }
            }
        }
        return new Op.Seq(ops.toArray(Op[]::new), expected);
    }
}
