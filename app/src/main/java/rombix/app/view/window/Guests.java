package rombix.app.view.window;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import rombix.app.view.common.Desk;
import rombix.app.view.sheet.GuestPopover;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.trust.Ask;
import rombix.running.Player;
import rombix.running.owner.Trust;

/**
 * Whether the board in the window may do what it asks for. One that asks for more than its owner has agreed to is a
 * guest: it is looked at on twins, and reaches, hears and begins nothing.
 */
@OwnedBy(Owner.INTERFACE)
public final class Guests {
    private static final String MATTER = "guest";

    private final Desk desk;
    private final Player player;
    private final Trust trust;
    private final Notices notices;
    private final Node over;
    private final GuestPopover popover;
    /** What was not agreed to when the board was opened; nothing where it is trusted. */
    private List<Ask> missing = List.of();
    private Runnable begins = () -> {
    };
    private boolean known;

    Guests(Desk desk, Player player, Trust trust, Notices notices, Node over) {
        this.desk = desk;
        this.player = player;
        this.trust = trust;
        this.notices = notices;
        this.over = over;
        this.popover = new GuestPopover(desk);
    }

    /** A board is about to be played. */
    void meet(Rig rig) {
        missing = trust.missing(rig);
        known = trust.knows(rig);
        player.guest(guest());
    }

    /** A board is there: a guest is shown with what it brings; any other begins. */
    public void met() {
        if (guest()) {
            ask();
        } else {
            begin();
        }
    }

    /** What else is done as a board that is trusted begins. */
    void whenTrusted(Runnable what) {
        begins = what;
    }

    private void begin() {
        notices.state(MATTER, "");
        player.opened();
        begins.run();
    }

    /** Whether the board is one. */
    public boolean guest() {
        return !missing.isEmpty();
    }

    /** Shows what it brings, with the ways to go on. */
    void ask() {
        popover.show(over, desk.bench().board(), missing, known, this::trusted, this::trustedNow, this::tell);
    }

    private void tell() {
        if (guest()) {
            notices.state(MATTER, "“%s” is a guest: it isn't connected to its gear and does nothing by itself. %s"
                    .formatted(desk.bench().board().name(), "Rehearse runs it on twins."),
                    new Notices.Way("guest-more",
                            "Review…", this::ask),
                    new Notices.Way("guest-yes", "Trust this board",
                            this::trusted));
        }
    }

    private void trusted() {
        trust.agree(missing);
        trustedNow();
    }

    private void trustedNow() {
        trust.agreeForNow(missing);
        missing = List.of();
        player.guest(false);
        player.load(desk.bench().rig());
        begin();
    }

    /** What its owner makes of a board that is trusted is trusted, too. On any thread. */
    Consumer<Board> made(Rig rig) {
        boolean owners = !guest();
        return board -> {
            if (owners) {
                trust.agree(rig.with(board));
            }
        };
    }

    /** Goes on with a board that an edit would bring from elsewhere once what is new of it is agreed to. */
    void before(Board brought, Runnable then) {
        List<Ask> fresh = guest() ? List.of() : trust.missing(desk.bench().rig().with(brought));
        if (fresh.isEmpty()) {
            then.run();
            return;
        }
        popover.show(over, brought, fresh, true, () -> {
            trust.agree(fresh);
            then.run();
        }, () -> {
            trust.agreeForNow(fresh);
            then.run();
        }, () -> {
        });
    }
}
