package rombix.app.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.GearAccess;
import rombix.app.show.Pictures;
import rombix.app.show.Session;
import rombix.app.view.common.Theme;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.find.Nearest;
import rombix.core.store.BoardFile;
import rombix.standins.set.StandIns;

/** Makes a picture of the window, for a manual or a check. */
@Command(name = "picture", mixinStandardHelpOptions = true, description = {
        "Saves a PNG of the real window, with stand-ins running; needs no screen.",
        "Views: live, build, and the panels that open over it: face, search, step, rules, list and so on."})
final class PictureCommand implements Callable<Integer> {
    /** A port of this machine at which nothing listens. */
    private static final String NOWHERE = "127.0.0.1:9";

    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "VIEW", description = "The view; an unknown name lists them all.")
    private String view = "";

    @Parameters(index = "2", paramLabel = "OUT.png", description = "The PNG file to write.")
    private Path out = Path.of("");

    @Option(names = "--page", paramLabel = "P", description = "The page's id.")
    private @Nullable String page;

    @Option(names = "--button", paramLabel = "B", description = "Id of the button to select.")
    private @Nullable String button;

    @Option(names = "--press", paramLabel = "B", description = "Buttons to press first, in this order.")
    private List<String> press = List.of();

    @Option(names = "--off", paramLabel = "GEAR", description = "Ids of gear to switch off.")
    private List<String> off = List.of();

    @Option(names = "--theme", defaultValue = "night", description = "night (default) or day.")
    private Theme theme = Theme.NIGHT;

    @Option(names = "--size", defaultValue = "1280x800", paramLabel = "WxH", description = "The window's size in pixels.")
    private String size = "";

    @Option(names = "--type", paramLabel = "WORDS", description = "Text to type into the search.")
    private String type = "mute ho";

    @Override
    public Integer call() throws Exception {
        if (!Pictures.VIEWS.contains(view)) {
            throw new BadCall("no view “%s”; there are %s".formatted(view, String.join(", ", Pictures.VIEWS)));
        }
        Rig rig = BoardFile.read(board);
        if (page != null && rig.page(page).isEmpty()) {
            throw new BadCall("%s: no page “%s”; %s".formatted(board, page, Nearest.words(page, rig.board().pages()
                    .stream().map(Page::id).toList())));
        }
        for (String b : button == null
                ? press
                : Stream.concat(press.stream(), Stream.of(button)).toList()) {
            GearAccess.button(rig, board, b);
        }
        Matcher m = Pattern.compile("(\\d{3,4})x(\\d{3,4})").matcher(size);
        if (!m.matches()) {
            throw new BadCall("--size takes a width and a height such as 1280x800, not " + size);
        }
        int width = Integer.parseInt(m.group(1));
        int height = Integer.parseInt(m.group(2));
        if (Math.max(width, height) > Pictures.MAX_SIDE) {
            throw new BadCall("--size goes up to %1$dx%1$d, not %2$s".formatted(Pictures.MAX_SIDE, size));
        }
        Path folder = out.toAbsolutePath().getParent();
        if (folder == null || !Files.isDirectory(folder) || !Files.isWritable(folder) || Files.isDirectory(out)) {
            throw new BadCall(out + " can't be written: " + (Files.isDirectory(out)
                    ? "it is a folder"
                    : "there is no folder " + folder + " that is writable"));
        }
        Session.startToolkit(true);
        Path own = Files.createTempDirectory("rombix-picture");
        System.setProperty("rombix.settings", own.resolve("settings.properties").toString()); // Not what this user keeps.
        Path log = own.resolve("log");
        try (StandIns gear = StandIns.onFreePorts();
                Session session = Session.open(board, addresses(gear), log, null)) {
            if (view.equals("found")) {
                gear.announce();
            }
            new Pictures(session, rig, gear)
                    .take(new Pictures.Wanted(view, page, button, press, type, theme, width, height), out);
        }
        System.out.println(out);
        return 0;
    }

    private Map<String, String> addresses(StandIns gear) {
        Map<String, String> addresses = new HashMap<>(gear.addresses());
        off.forEach(g -> addresses.put(g, NOWHERE));
        return addresses;
    }
}
