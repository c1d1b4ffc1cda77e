package rombix.app.cli;

import java.io.BufferedReader;
import java.io.Console;
import java.io.IOException;
import java.io.InputStreamReader;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.running.owner.Secrets;

/** Keeps passwords and tokens for gear. They are never arguments: those can be seen by others. */
@Command(name = "secrets", mixinStandardHelpOptions = true, description = {
        "Manages the passwords and tokens that boards refer to: list, set NAME, forget NAME.",
        "“set” prompts for the secret or reads it from standard input: one line, or a certificate and key in PEM. Secrets are never shown.",
        "Exit code: 0 done, 2 usage error."})
final class SecretsCommand implements Callable<Integer> {
    @Parameters(index = "0", defaultValue = "list", paramLabel = "WHAT", description = "list (default), set or forget.")
    private String what = "";

    @Parameters(index = "1", arity = "0..1", defaultValue = "", paramLabel = "NAME", description = "The name that boards refer to it by.")
    private String name = "";

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Secrets secrets = new Secrets();
        if (!what.equals("list") && name.isEmpty()) {
            throw new BadCall("which secret? “rombix secrets " + what + " NAME”");
        }
        switch (what) {
            case "list" -> {
                List<String> names = secrets.names();
                names.forEach(spec.commandLine().getOut()::println);
                if (names.isEmpty()) {
                    spec.commandLine().getOut().println("No secrets are stored on this computer.");
                }
            }
            case "set" -> {
                try {
                    secrets.set(name, asked());
                } catch (IllegalArgumentException e) {
                    throw new BadCall(String.valueOf(e.getMessage()));
                }
            }
            case "forget" -> {
                if (!secrets.has(name)) {
                    throw new BadCall("there is no secret “" + name + "” on this computer");
                }
                secrets.forget(name);
            }
            default -> throw new BadCall("“" + what + "” is not one of list, set, forget");
        }
        return 0;
    }

    private String asked() throws IOException {
        Console console = System.console();
        if (console != null && console.isTerminal()) {
            char[] typed = console.readPassword("The secret “%s”: ", name);
            return typed == null ? "" : new String(typed);
        }
        BufferedReader in = new BufferedReader(
                new InputStreamReader(System.in, java.nio.charset.StandardCharsets.UTF_8));
        String line = Objects.requireNonNullElse(in.readLine(), "");
        return line.startsWith("-----BEGIN ") // A certificate with its key.
                ? line + "\n" + in.lines().collect(Collectors.joining("\n"))
                : line;
    }
}
