package rombix.links.link;

import java.io.IOException;

/** Why there is no connection, where it takes more than gear that is switched on and an address that is right. */
public final class Refused extends IOException {
    private static final long serialVersionUID = 1;

    private final String hint;

    /** @param hint what to try next, as a sentence */
    public Refused(String why, String hint) {
        super(why);
        this.hint = hint;
    }

    public String hint() {
        return hint;
    }
}
