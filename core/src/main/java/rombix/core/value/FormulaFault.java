package rombix.core.value;

/** A formula that cannot be read or computed: where in its text, and why in plain words. */
public final class FormulaFault extends Exception {
    private static final long serialVersionUID = 1L;
    private final int position;

    /** @param position counted from 1; 0 where it is the whole */
    public FormulaFault(int position, String message) {
        super(message);
        this.position = position;
    }

    public int position() {
        return position;
    }
}
