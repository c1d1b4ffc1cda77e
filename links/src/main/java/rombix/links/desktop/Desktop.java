package rombix.links.desktop;

import com.sun.jna.Platform;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Protocol.Reach;
import rombix.core.computer.Power;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.NoDesktop;
import rombix.links.desktop.machine.RobotMachine;
import rombix.links.desktop.machine.StandInMachine;
import rombix.links.desktop.machine.Unable;
import rombix.links.desktop.machine.XFront;
import rombix.links.desktop.machine.XMachine;
import rombix.links.desktop.machine.XServer;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/**
 * This computer: what is in front is read, and keys, pointer, windows and programs are worked. At {@code here} it is the
 * computer that Rombix runs on; at HOST:PORT the stand-in of one.
 */
public final class Desktop extends LinkType {
    /** What windows of Rombix tell the desktop of whose they are: nothing is typed or clicked there. */
    public static final String WINDOW_CLASS = XFront.OWN_CLASS;
    private static final String HERE = "here";

    public Desktop() {
        super("desktop", "desktop",
                "[a-z]+( [a-z]+| \\{[a-z-]+})?|(held|seen)/[a-z0-9{}-]+|(volume|mute|sound-volume|sound-mute)/[a-z0-9{}-]+",
                "a function or reading, such as front or keys press", 10, Reach.HERE);
    }

    @Override
    public Link open(GearReport report, Target target) {
        if (target.address().isBlank() || target.address().equals(HERE)) {
            return new DesktopLink(report, Desktop::machine, target.keyring().kept("held-keys"), target.keyring());
        }
        var at = HostPort.of(target.address());
        return new DesktopLink(report, () -> new StandInMachine(at), null, target.keyring());
    }

    /**
     * Gives the keyboard to the foremost window of another program, which stays where it is. Under X; elsewhere, and where
     * there is no such window, nothing happens. From any thread.
     */
    public static void passKeyboardOn() {
        if (Platform.isWindows() || Platform.isMac()) {
            return;
        }
        try (XServer server = new XServer()) {
            new XFront(server).passKeyboardOn();
        } catch (Unable | UnsatisfiedLinkError | NoClassDefFoundError e) {
            // There is nobody to give it to.
        }
    }

    /**
     * Whether a window of Rombix lies above all others at a point of the screens, in pixels. Yes where the system does not
     * tell. From any thread.
     */
    public static boolean seen(double x, double y) {
        if (Platform.isWindows() || Platform.isMac()) {
            return true;
        }
        try (XServer server = new XServer()) {
            XFront front = new XFront(server);
            return front.at((int) x, (int) y).filter(w -> front.ownWindow(w)).isPresent();
        } catch (Unable | UnsatisfiedLinkError | NoClassDefFoundError e) {
            return true;
        }
    }

    /** A toolkit has come that handles errors of the X server itself: no handler of ours may take the place of its own. */
    public static void toolkitHandlesErrors() {
        if (!Platform.isWindows() && !Platform.isMac()) {
            try {
                XServer.toolkit();
            } catch (NoClassDefFoundError | UnsatisfiedLinkError e) {
                // There is no X here.
            }
        }
    }

    /** That of this computer; where its desktop lets nobody work it, one that runs programs and says why. */
    private static Machine machine() {
        try {
            return Platform.isWindows() || Platform.isMac() ? new RobotMachine() : new XMachine();
        } catch (Unable | UnsatisfiedLinkError | NoClassDefFoundError e) {
            return new NoDesktop(String.valueOf(e.getMessage()));
        }
    }

    @Override
    public @Nullable Power power(String address) {
        return Doings.power(address);
    }

    @Override
    public boolean askedInFull(String address) {
        return address.matches("programs .*|files .*|keys secret|screen save");
    }

    @Override
    public String presetAddress() {
        return HERE;
    }
}
