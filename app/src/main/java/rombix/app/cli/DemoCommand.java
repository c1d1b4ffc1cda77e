package rombix.app.cli;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
@Command(name = "demo")
final class DemoCommand implements Callable<Integer> { public Integer call() { return 0; } }
