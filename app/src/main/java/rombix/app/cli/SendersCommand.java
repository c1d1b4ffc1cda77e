package rombix.app.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.running.owner.Senders;

/** Names the computers from which OSC may pull triggers, beside this one. */
@Command(name = "senders", mixinStandardHelpOptions = true, description = {
        "Manages the computers whose OSC messages may press buttons, besides this one: list, allow ADDRESS, forget ADDRESS.",
        "Takes effect at the next start of Rombix. Exit code: 0 done, 2 usage error."})
final class SendersCommand implements Callable<Integer> {
    @Parameters(index = "0", defaultValue = "list", paramLabel = "WHAT", description = "list (default), allow or forget.")
    private String what = "";

    @Parameters(index = "1", arity = "0..1", defaultValue = "", paramLabel = "ADDRESS", description = "Numeric address, such as 192.168.1.20.")
    private String address = "";

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Senders senders = new Senders();
        if (!what.equals("list") && address.isEmpty()) {
            throw new BadCall("which computer? “rombix senders " + what + " ADDRESS”");
        }
        try {
            switch (what) {
                case "list" -> {
                    senders.all().forEach(a -> spec.commandLine().getOut().println(a.getHostAddress()));
                    if (senders.all().isEmpty()) {
                        spec.commandLine().getOut().println("Only OSC from this computer is accepted.");
                    }
                }
                case "allow" -> senders.allow(address);
                case "forget" -> {
                    if (!senders.forget(address)) {
                        throw new BadCall(address + " wasn't on the list");
                    }
                }
                default -> throw new BadCall("“" + what + "” is not one of list, allow, forget");
            }
        } catch (IllegalArgumentException e) {
            throw new BadCall(String.valueOf(e.getMessage()));
        }
        return 0;
    }
}
