package rombix.app.cli.play;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.find.Nearest;
import rombix.running.RunningDeck;
import rombix.web.BrowserPages;
import rombix.web.WebServer;
import rombix.web.access.Access;
import rombix.web.access.Invitations.Invitation;
import rombix.web.access.QrCode;
import rombix.web.access.Right;
import tools.jackson.databind.json.JsonMapper;

/** Lets devices and programs in to the pages of a running Rombix, lists them, and removes them. */
@Command(name = "devices", mixinStandardHelpOptions = true, description = {
        "Lists the devices and programs that may use the pages of the Rombix that has the board open.",
        "Options add or remove one. Pages must be on: open the board with --web, or choose Pages in a browser in the window."})
public final class DevicesCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--invite", description = "Print a code that lets one device in within two minutes.")
    private boolean invite;

    @Option(names = "--token", paramLabel = "NAME", description = "Print a token for a program with this name. It is shown only once.")
    private @Nullable String token;

    @Option(names = "--hook", paramLabel = "NAME", description = "Print a token that pulls the HTTP triggers with this name. It is shown only once.")
    private @Nullable String hook;

    @Option(names = "--remove", paramLabel = "NAME", description = "Remove the device or program with this name.")
    private @Nullable String remove;

    @Option(names = "--pages", split = ",", paramLabel = "PAGE", description = "With --invite or --token: ids of the only pages it may use, separated by commas.")
    private List<String> only = List.of();

    @Option(names = "--may", split = ",", paramLabel = "RIGHT", description = "With --invite or --token: what it may do beside watching, separated by commas: press, stop-all, log. The default is press and stop-all for a device, press for a program; none is watch.")
    private @Nullable List<String> may;

    @Option(names = "--json", description = "One JSON object.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public DevicesCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    private record Listed(String id, String name, String type, List<String> pages, List<String> rights,
            boolean connected) {
    }

    @Override
    public Integer call() throws Exception {
        RunningDeck deck = OpenDeck.of(stage, board);
        BrowserPages pages = stage.pages();
        WebServer server = pages == null ? null : pages.server().orElse(null);
        if (pages == null || server == null) {
            throw new BadCall(
                    "Pages in a browser are off. Open the board with --web, or choose Pages in a browser in the window.");
        }
        for (String page : only) {
            if (deck.rig().page(page).isEmpty()) {
                throw new BadCall("%s: no page “%s”; %s".formatted(board, page, Nearest.words(page, deck.rig().board()
                        .pages().stream().map(Page::id).toList())));
            }
        }
        if (remove != null) {
            remove(pages, remove);
        } else if (hook != null) {
            token(pages, hook(deck.rig(), hook), Access.Kind.HOOK, Set.of());
        } else if (token != null) {
            token(pages, token, Access.Kind.PROGRAM, rights(Set.of(Right.PRESS)));
        } else if (invite) {
            invite(server);
        } else {
            list(pages, server);
        }
        return 0;
    }

    private Set<Right> rights(Set<Right> usual) throws BadCall {
        if (may == null) {
            return usual;
        }
        Set<Right> rights = new LinkedHashSet<>();
        for (String word : may) {
            if (!word.equals("watch")) {
                try {
                    rights.add(Right.valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_')));
                } catch (IllegalArgumentException e) {
                    throw new BadCall("--may %s: no such right; there are watch, press, stop-all, log".formatted(word));
                }
            }
        }
        return rights;
    }

    private void invite(WebServer server) throws BadCall {
        Invitation made = server.invitations().open(Set.copyOf(only), rights(Set.of(Right.PRESS, Right.STOP_ALL)));
        String address = WebServer.withCode(server.address(), made);
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            print(Map.of("address", server.address(), "code", made.code(), "fingerprint", server.fingerprint().orElse(
                    "")));
            return;
        }
        out.print(QrCode.of(address).drawn());
        out.println(address);
        out.println("Code: " + made.code() + " (for one device, valid for 2 minutes)");
        server.fingerprint().ifPresent(f -> out.println("Certificate (SHA-256): " + f));
    }

    private String hook(Rig rig, String name) throws BadCall {
        List<String> hooks = rig.board().buttons().flatMap(b -> b.triggers().stream()).filter(
                MessageTrigger.Http.class::isInstance).map(t -> ((MessageTrigger.Http) t).name()).distinct().toList();
        if (!hooks.contains(name)) {
            throw new BadCall("%s: no HTTP trigger “%s”; %s".formatted(board, name, Nearest.words(name, hooks)));
        }
        return name;
    }

    private void token(BrowserPages pages, String name, Access.Kind kind, Set<Right> rights) throws BadCall,
            IOException {
        try {
            String made = pages.access().add(name, kind, Set.copyOf(only), rights,
                    RunningDeck.CLOCK.wall().toInstant().toEpochMilli());
            if (json) {
                print(Map.of("token", made));
            } else {
                spec.commandLine().getOut().println(made);
            }
        } catch (IllegalArgumentException e) {
            throw new BadCall("--token: " + e.getMessage());
        }
    }

    private void remove(BrowserPages pages, String name) throws BadCall, IOException {
        List<Access> named = pages.access().all().stream().filter(a -> a.name().equals(name) || a.id().equals(name))
                .toList();
        if (named.isEmpty()) {
            throw new BadCall("no device or program “%s”; %s".formatted(name, Nearest.words(name, pages.access().all()
                    .stream().map(Access::name).toList())));
        }
        for (Access a : named) {
            pages.access().remove(a.id());
        }
    }

    private void list(BrowserPages pages, WebServer server) {
        List<Listed> all = pages.access().all().stream().map(a -> new Listed(a.id(), a.name(), a.kind().name()
                .toLowerCase(Locale.ROOT), a.pages().stream().sorted().toList(),
                a.rights().stream().sorted().map(
                        Right::words).toList(),
                server.presence().of(a.id()).connections() > 0)).toList();
        if (json) {
            print(Map.of("address", server.address(), "devices", all));
            return;
        }
        PrintWriter out = spec.commandLine().getOut();
        out.println(server.address());
        all.forEach(r -> out.printf("%-8s %-24s %s%s%s%n", r.type(), r.name(), r.rights().isEmpty()
                ? "watch"
                : String.join(", ", r.rights()),
                r.pages().isEmpty()
                        ? ""
                        : ", pages " + String.join(", ", r.pages()),
                r.connected() ? ", connected" : ""));
    }

    private void print(Object value) {
        spec.commandLine().getOut().println(JsonMapper.builder().build().writeValueAsString(value));
    }
}
