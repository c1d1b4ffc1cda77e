package rombix.app.cli;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
@Command(name = "open")
final class OpenCommand implements Callable<Integer> { public Integer call() { return 0; } }
