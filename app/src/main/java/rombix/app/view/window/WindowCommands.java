package rombix.app.view.window;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.StepEdits;
import rombix.app.view.card.CardSheet;
import rombix.app.view.common.Desk;
import rombix.app.view.gear.GearSheet;
import rombix.app.view.live.LiveStrips;
import rombix.app.view.page.PageTrail;
import rombix.app.view.page.PageView;
import rombix.app.view.page.PagesPopover;
import rombix.app.view.rack.RackView;
import rombix.app.view.score.ScoreView;
import rombix.app.view.share.BundleSaving;
import rombix.app.view.share.PaperSheet;
import rombix.app.view.share.PartClipboard;
import rombix.app.view.sheet.DevicesView;
import rombix.app.view.sheet.LogView;
import rombix.app.view.sheet.TrafficView;
import rombix.app.view.sheet.TriggersView;
import rombix.app.view.window.Command.Where;
import rombix.core.board.Page;
import rombix.core.event.Mode;

/** Everything that the window can do, with its key: the one place that says so, for the keyboard and for the list alike. */
final class WindowCommands {
    /** What of the window the commands work. */
    record Parts(Stagework stage, Modes modes, BoardFiles files, Masthead masthead, RackView rack, PageView page,
            ScoreView score, LiveStrips strips, PageTrail trail, LogView log, TrafficView traffic,
            TriggersView triggers, GearSheet gear, CardSheet card,
            Overview overview, EditOnAir onAir, PartClipboard clipboard, Node middle) {
    }

    private final Desk desk;
    private final Commands commands;
    private final Parts window;

    private WindowCommands(Desk desk, Commands commands, Parts window) {
        this.desk = desk;
        this.commands = commands;
        this.window = window;
    }

    /** Puts all that the window can do into the table. */
    static void fill(Commands commands, Desk desk, Parts window, StepEdits steps, ButtonEdits buttons) {
        WindowCommands all = new WindowCommands(desk, commands, window);
        all.always();
        all.board();
        all.buttons(buttons);
        all.chain();
        ScoreCommands.steps(commands, window.score(), steps, () -> window.clipboard().pasteSteps(window.middle(),
                steps::paste));
    }

    /** Puts in what shows pages in browsers, where a deck runs that can. */
    static void browsers(Commands commands, DevicesView devices, Node middle) {
        commands.add(new Command(() -> "Pages in a browser…", List.of("Alt+W"), Where.ALWAYS, () -> devices.open(
                middle)));
    }

    /** Puts in what hands the board over. */
    static void share(Commands commands, BundleSaving bundle, PaperSheet paper, Node middle) {
        commands.add(new Command(() -> "Print or save as PDF…", List.of("Alt+Shift+P"), Where.BUILD, () -> paper.open(
                middle)));
        commands.add(new Command(() -> "Save as bundle…", List.of("Alt+Shift+S"), Where.BUILD, () -> bundle.open(
                middle)));
    }

    private void add(Where where, String words, Runnable run, String... keys) {
        commands.add(new Command(() -> words, List.of(keys), where, run));
    }

    private void always() {
        add(Where.ALWAYS, "Build: edit the board", () -> window.modes().mode(Mode.BUILD), "F5");
        add(Where.ALWAYS, "Rehearse: press on twins", () -> window.modes().mode(Mode.REHEARSE), "F7");
        add(Where.ALWAYS, "Live: press for real", () -> window.modes().mode(Mode.LIVE), "F6");
        add(Where.ALWAYS, "All commands and keys", () -> window.overview().commands(window.middle()), "F1", "Ctrl+K");
        add(Where.ALWAYS, "This page in a small window, always on top", window.stage()::smallWindow, "Ctrl+P");
        commands.add(new Command(() -> window.stage().keyboard().yields()
                ? "Take the keyboard when this window is clicked"
                : "Leave the keyboard to the program in front when this window is clicked", List.of("Ctrl+Shift+P"),
                Where.ALWAYS, window.stage().keyboard()::toggle));
        add(Where.ALWAYS, "Toggle full screen", window.stage()::fullScreen, "F11");
        add(Where.ALWAYS, "Next page", () -> page(1), "Ctrl+Page Down");
        add(Where.ALWAYS, "Previous page", () -> page(-1), "Ctrl+Page Up");
        for (int i = 0; i < PagesPopover.KEYED; i++) {
            int at = i;
            commands.add(new Command(() -> numbered(at).map(p -> "Page “" + p.name() + "”").orElse(""), List.of("Alt+"
                    + (i + 1)), Where.ALWAYS, () -> numbered(at).ifPresent(p -> desk.bench().showPage(p.id()))));
        }
        add(Where.LIVE, "Edit a button on air", window.onAir()::begin, "Ctrl+E");
        add(Where.LIVE, "Run the start chains of the board", window.modes()::startAnew, "Shift+F6");
        add(Where.LIVE, "Dismiss the fault in the message line", window.strips()::putAway, "Alt+M");
        add(Where.LIVE, "Back to the previous page", window.trail()::back, "Alt+Left");
        add(Where.ALWAYS, "As-run log", () -> window.log().open(window.middle()), "Ctrl+L");
        add(Where.ALWAYS, "Traffic: packets sent and received",
                () -> window.traffic().open(window.middle(),
                        null),
                "Ctrl+Shift+T");
        add(Where.ALWAYS, "Triggers: keys, controllers, OSC, clocks and readings",
                () -> window.triggers().open(window.middle()),
                "Ctrl+T");
        add(Where.ALWAYS, "Stop all chains", () -> desk.port().stopAll(), "Ctrl+Period");
    }

    private void board() {
        add(Where.BUILD, "Find a page, a button, a step, a gear, a note", () -> window.overview().find(window.middle()),
                "Ctrl+F");
        add(Where.BUILD, "Check the board", () -> window.overview().check(window.middle()), "F8");
        commands.add(
                new Command(() -> desk.bench().undoName().map(n -> "Undo: " + n).orElse("Undo: nothing to undo"), List
                        .of("Ctrl+Z"), Where.BUILD, desk.bench()::undo));
        commands.add(
                new Command(() -> desk.bench().redoName().map(n -> "Redo: " + n).orElse("Redo: nothing to redo"), List
                        .of("Ctrl+Shift+Z", "Ctrl+Y"), Where.BUILD, desk.bench()::redo));
        add(Where.ALWAYS, "Save the board", window.files()::save, "Ctrl+S");
        add(Where.BUILD, "Save the board as…", () -> window.masthead().saveAs(), "Ctrl+Shift+S");
        add(Where.BUILD, "Open a board", window.files()::choose, "Ctrl+O");
        add(Where.BUILD, "New board, open board", () -> window.masthead().boards(), "Ctrl+N");
        add(Where.BUILD, "Values, chains and run-downs", () -> window.masthead().parts(), "Alt+V");
        add(Where.BUILD, "Manage gear", () -> window.gear().show(window.rack(), null), "Alt+R");
        add(Where.BUILD, "Discovered gear", () -> window.gear().showAdding(window.rack()), "Alt+F");
        add(Where.BUILD, "Add custom gear: make its card by listening", () -> window.card().add(window
                .middle()), "Alt+B");
        add(Where.BUILD, "Go to the rack", () -> focus("#rack"), "Ctrl+1");
        add(Where.BUILD, "Go to the page", () -> window.page().focusSelected(), "Ctrl+2");
        add(Where.BUILD, "Go to the score", () -> window.score().focusSteps(), "Ctrl+3");
        add(Where.BUILD, "Switch between night and day theme", window.stage()::otherTheme, "Alt+D");
        add(Where.BUILD, "Manage pages", () -> window.masthead().pages(),
                "Alt+P");
    }

    private void buttons(ButtonEdits buttons) {
        add(Where.BUILD, "Edit the face of the button", window.page()::editFace, "F2");
        add(Where.PAGE, "Button menu", window.page()::menuOfSelected, "Shift+F10", "Context Menu");
        add(Where.PAGE, "Copy the selected buttons", buttons::copy, "Ctrl+C");
        add(Where.PAGE, "Cut the selected buttons", () -> {
            buttons.cut();
            window.page().rebuild();
        }, "Ctrl+X");
        add(Where.PAGE, "Paste", () -> window.clipboard().paste(window.middle(), window.page()::paste), "Ctrl+V");
        add(Where.BUILD, "Copy this page for another board", window.clipboard()::copyPage, "Alt+C");
        add(Where.PAGE, "Duplicate the selected buttons", buttons::duplicate, "Ctrl+D");
        add(Where.BUILD, "Make the selected buttons match", buttons::match, "Ctrl+M");
        add(Where.PAGE, "Delete the selected buttons", window.page()::deleteSelected, "Delete", "Backspace");
        add(Where.PAGE, "Move the button to the right", () -> buttons.move(1, 0), "Alt+Right");
        add(Where.PAGE, "Move the button to the left", () -> buttons.move(-1, 0), "Alt+Left");
        add(Where.PAGE, "Move the button up", () -> buttons.move(0, -1), "Alt+Up");
        add(Where.PAGE, "Move the button down", () -> buttons.move(0, 1), "Alt+Down");
        add(Where.PAGE, "Make the button wider", () -> buttons.size(1, 0), "Alt+Shift+Right");
        add(Where.PAGE, "Make the button narrower", () -> buttons.size(-1, 0), "Alt+Shift+Left");
        add(Where.PAGE, "Make the button taller", () -> buttons.size(0, 1), "Alt+Shift+Down");
        add(Where.PAGE, "Make the button shorter", () -> buttons.size(0, -1), "Alt+Shift+Up");
        add(Where.BUILD, "Move the button to the next page", () -> buttons.moveToPage(buttons.pageBy(1).id()),
                "Ctrl+Shift+Page Down");
        add(Where.BUILD, "Move the button to the previous page", () -> buttons.moveToPage(buttons.pageBy(-1).id()),
                "Ctrl+Shift+Page Up");
    }

    private void chain() {
        ScoreCommands.chain(commands, window.score());
        add(Where.BUILD, "Try the chain on twins or gear", window.score()::tryOut, "Alt+T");
        add(Where.BUILD, "Snapshot: add the present readings as steps", window.rack()::takeSnapshot, "Alt+N");
        add(Where.BUILD, "Shadow me: record manual changes as steps", window.rack()::shadow, "Alt+S");
    }

    /** The page at a place, counted from 0; a board may have fewer. */
    private Optional<Page> numbered(int at) {
        return desk.bench().board().pages().stream().skip(at).findFirst();
    }

    private void page(int by) {
        desk.bench().showPage(desk.bench().beside(by).id());
        window.page().focusSelected();
    }

    private void focus(String id) {
        Node node = window.stage().scene().lookup(id);
        if (node != null) {
            node.lookupAll(".button").stream().filter(n -> n.isVisible() && !n.isDisabled()).findFirst().ifPresent(
                    Node::requestFocus);
        }
    }
}
