package rombix.app.cli;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
@Command(name = "picture")
final class PictureCommand implements Callable<Integer> { public Integer call() { return 0; } }
