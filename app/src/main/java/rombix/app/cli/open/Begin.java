package rombix.app.cli.open;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.stage.Stage;
import org.slf4j.LoggerFactory;
import rombix.app.cli.option.Allow;
import rombix.app.cli.option.LaunchOptions;
import rombix.app.cli.option.WebOptions;
import rombix.app.cli.play.Playing;
import rombix.app.show.DemoBoard;
import rombix.app.show.Session;
import rombix.app.view.common.Theme;
import rombix.app.view.common.WindowPlace;
import rombix.app.view.window.Welcome;
import rombix.core.board.Rig;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.running.owner.Settings;

/** Without a command: opens the last board, or the welcome window if there is none. */
public final class Begin {
    private Begin() {
    }

    public static int run(Playing.Lines lines, Settings settings) throws Exception {
        LoggerFactory.getILoggerFactory();
        List<Path> recent = settings.recentBoards();
        String trouble = "";
        if (!recent.isEmpty()) {
            try {
                return open(lines, recent.getFirst());
            } catch (BadFile e) {
                trouble = String.valueOf(e.getMessage());
            }
        }
        Optional<Welcome.Choice> choice = ask(recent, trouble);
        if (choice.isEmpty()) {
            return 0;
        }
        return switch (choice.get().what()) {
            case DEMO -> lines.of(Playing.ALONE, "demo").execute("demo");
            case BOARD -> open(lines, java.util.Objects.requireNonNull(choice.get().board()));
            case NEW -> {
                Path fresh = OpenCommand.fresh(Path.of(System.getProperty("user.home"), "Rombix"));
                OpenCommand.run(lines,
                        new LaunchOptions(fresh, Map.of(), null, false, true, new Allow(), new WebOptions()), () -> {
                        }, window -> window.session().window().beginWithGear());
                yield 0;
            }
        };
    }

    /** The demo's own copy is opened with its stand-ins. */
    private static int open(Playing.Lines lines, Path board) throws Exception {
        if (board.equals(DemoBoard.copyIn(Path.of(System.getProperty("user.home"), "Rombix")).toAbsolutePath())) {
            return lines.of(Playing.ALONE, "demo").execute("demo");
        }
        OpenCommand.run(lines, new LaunchOptions(board, Map.of(), null, false, false, new Allow(), new WebOptions()),
                () -> {
                }, _ -> {
                });
        return 0;
    }

    private static Optional<Welcome.Choice> ask(List<Path> recent, String trouble) {
        Session.startToolkit(false);
        CompletableFuture<Optional<Welcome.Choice>> chosen = new CompletableFuture<>();
        List<Welcome.Recent> boards = recent.stream().map(Begin::recent).toList();
        Session.onInterface(() -> {
            Stage stage = new Stage();
            stage.setTitle("Rombix");
            stage.setScene(new Welcome(boards, trouble, Theme.chosen(new Settings()), c -> {
                chosen.complete(Optional.of(c));
                stage.hide();
            }).scene());
            stage.getIcons().setAll(WindowPlace.icons());
            stage.setOnHidden(_ -> chosen.complete(Optional.empty()));
            stage.show();
            return true;
        });
        return chosen.join();
    }

    private static Welcome.Recent recent(Path file) {
        try {
            Rig rig = BoardFile.read(file);
            return new Welcome.Recent(file, rig.board().name(), rig.board().pages().getFirst());
        } catch (BadFile e) {
            return new Welcome.Recent(file, String.valueOf(file.getFileName()), null);
        }
    }
}
