package rombix.core.engine;

import org.jspecify.annotations.Nullable;
import rombix.core.chain.Gesture;

/**
 * A chain that runs. Owned by the conductor's thread. It is a tree of frames: each frame runs one compiled chain and
 * tells its parent when it has ended, with the moment at which it was due to end, so that lateness never adds up.
 */
final class Run {
    final long id;
    final Deck deck;
    final @Nullable ButtonPlay button;
    final Gesture gesture;
    final Frame root;
    boolean over;
    int faults;

    Run(long id, Deck deck, @Nullable ButtonPlay button, Gesture gesture, Op.Seq chain) {
        this.id = id;
        this.deck = deck;
        this.button = button;
        this.gesture = gesture;
        this.root = new Frame(this, null, chain);
    }

    void stop() {
        if (!over) {
            root.stop();
        }
    }

    /** One chain on its way through its steps. */
    static final class Frame implements Agenda.Task {
        private final Run run;
        private final @Nullable Frame parent;
        private final Op.Seq chain;
        private int index;
        private boolean going;
        private boolean goOn;
        private boolean stopped;
        private long dueNanos;
        private Agenda.@Nullable Entry timer;
        private Frame @Nullable [] children;
        private int childrenLeft;

        Frame(Run run, @Nullable Frame parent, Op.Seq chain) {
            this.run = run;
            this.parent = parent;
            this.chain = chain;
        }

        /** Goes on from a due time. Steps that end at once are looped over, not recursed into. */
        void go(long due) {
            dueNanos = due;
            goOn = true;
            if (going) {
                return;
            }
            going = true;
            while (goOn && !stopped && index < chain.ops().length) {
                goOn = false;
                start(chain.ops()[index++]);
            }
            going = false;
            if (goOn && !stopped) {
                ended();
            }
        }

        private void start(Op op) {
            switch (op) {
                case Op.Do d -> {
                    run.deck.perform(run, d, dueNanos);
                    goOn = true;
                }
                case Op.Wait w -> timer = run.deck.agenda.at(dueNanos + w.nanos(), this);
                case Op.Together t -> together(t);
            }
        }

        private void together(Op.Together t) {
            Frame[] started = new Frame[t.chains().length];
            for (int i = 0; i < started.length; i++) {
                started[i] = new Frame(run, this, t.chains()[i]);
            }
            children = started;
            childrenLeft = started.length;
            long due = dueNanos;
            if (started.length == 0) {
                goOn = true;
            }
            for (Frame child : started) {
                if (!stopped) {
                    child.go(due);
                }
            }
        }

        private void childEnded(long due) {
            if (due - dueNanos > 0) {
                dueNanos = due;
            }
            if (--childrenLeft == 0) {
                children = null;
                go(dueNanos);
            }
        }

        private void ended() {
            stopped = true;
            if (parent != null) {
                parent.childEnded(dueNanos);
            } else {
                run.over = true;
                run.deck.runEnded(run, dueNanos, run.faults > 0 ? Happening.End.FAILED : Happening.End.DONE);
            }
        }

        @Override
        public void due(long due) {
            timer = null;
            go(due);
        }

        void stop() {
            stopped = true;
            if (timer != null) {
                timer.cancel();
            }
            if (children != null) {
                for (Frame child : children) {
                    child.stop();
                }
            }
            if (parent == null && !run.over) {
                run.over = true;
                run.deck.runEnded(run, dueNanos, Happening.End.STOPPED);
            }
        }
    }
}
