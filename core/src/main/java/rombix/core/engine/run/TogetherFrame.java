package rombix.core.engine.run;

import rombix.core.engine.op.Op;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/** Several chains side by side. Ends once: with the last of them, or with the first, when it stops the rest. */
@OwnedBy(Owner.CONDUCTOR)
final class TogetherFrame implements Run.Parent, Run.Activity {
    private final SeqFrame frame;
    private final SeqFrame[] children;
    private final boolean endsWithFirst;
    private int left;
    private long latest;
    private boolean over;

    TogetherFrame(SeqFrame frame, Op.Together together) {
        this.frame = frame;
        this.endsWithFirst = together.endsWithFirst();
        children = new SeqFrame[together.chains().length];
        for (int i = 0; i < children.length; i++) {
            children[i] = frame.child(this, together.chains()[i], frame.scope);
        }
        left = children.length;
    }

    void start(long due) {
        latest = due;
        frame.doing(this);
        if (children.length == 0) {
            frame.done(due, null);
        }
        for (SeqFrame child : children) {
            if (!over) {
                child.start(due);
            }
        }
    }

    @Override
    public void childEnded(SeqFrame child, long due) {
        latest = due - latest > 0 ? due : latest;
        if (!over && (--left == 0 || endsWithFirst)) {
            stop();
            frame.done(endsWithFirst ? due : latest, null);
        }
    }

    @Override
    public void stop() {
        over = true;
        for (SeqFrame child : children) {
            child.stop();
        }
    }
}
