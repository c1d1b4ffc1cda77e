package rombix.app.cli.open;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import rombix.app.cli.option.LaunchOptions;
import rombix.app.cli.play.Playing;
import rombix.app.show.Session;
import rombix.app.view.panels.BoothWindow;
import rombix.app.view.panels.PanelsWindow;
import rombix.core.event.Mode;
import rombix.running.log.LogStore;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Settings;
import rombix.running.owner.Trust;
import rombix.running.shell.Doorkeeper;
import rombix.standins.set.Panels;
import rombix.standins.set.StandIns;

/**
 * A board in a window. It stands apart from the command that opens it, so that the toolkit is not loaded where there is no
 * display.
 */
record OpenWindow(Session session) {
    /** Starts the toolkit. */
    static void begin() {
        Session.startToolkit(false);
    }

    /**
     * Shows it until it is closed, or for a time.
     *
     * @param trusted whether the board may go live at once
     * @param shown told of the window, on the interface's thread
     */
    static void show(Playing.Lines lines, LaunchOptions wanted, OpenedBoard read, Trust trust, boolean trusted,
            Consumer<OpenWindow> shown) throws Exception {
        Settings settings = new Settings();
        try (Session session = Session.open(read, wanted.addresses(), LogStore.beside(read.file()), _ -> {
        }, trust);
                Doorkeeper door = ShellDoor.of(lines,
                        Playing.in(session.deck(), session.pages(), () -> toFront(session)))) {
            Session.onInterface(() -> {
                session.window().bench().mode(Mode.BUILD);
                Path[] last = new Path[1];
                Runnable opened = () -> {
                    Path now = session.window().bench().file();
                    if (!now.equals(last[0])) { // Not at each edit.
                        last[0] = now;
                        if (!door.keep(now)) {
                            session.window().files().tell(List.of(ShellDoor.elsewhere(now)));
                        }
                        settings.opened(now);
                        session.window().files().forgetful(settings.trouble());
                    }
                };
                session.window().bench().watch(opened);
                opened.run();
                session.window().hint(settings);
                shown.accept(new OpenWindow(session));
                return true;
            });
            List<String> shownAt = PagesOn.begin(session.pages(), wanted.web()); // It may ask the system for its name.
            Session.onInterface(() -> {
                session.window().files().tell(shownAt);
                return true;
            });
            if (wanted.live() && trusted) {
                session.goLive();
            }
            session.await(wanted.forMillis());
        }
    }

    private static boolean toFront(Session session) {
        return Session.onInterface(() -> {
            session.window().stagework().toFront();
            return true;
        });
    }

    /** Shows the screen of the computer in the booth beside it, and panels of all stand-ins where they are wanted. */
    void beside(StandIns gear, boolean panels) {
        BoothWindow.beside(gear.booth(), session.window().scene());
        if (panels) {
            new PanelsWindow(Panels.of(gear), session.window().scene()).show();
        }
    }
}
