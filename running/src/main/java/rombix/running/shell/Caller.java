package rombix.running.shell;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.channels.Channels;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;

/**
 * Hands a command to the Rombix that has its board open; a program of its own, too, for those who wait for it. It needs
 * nothing but this package, the core and the JDK: what it loads is most of what a press from a shell costs.
 */
public final class Caller {
    /** The exit code that says: nobody has the board open, the command itself is to do it. */
    private static final int NOT_OPEN = 113;

    private static final Set<String> COMMANDS = Set.of("press", "release", "turn", "status", "read", "set", "stop",
            "show",
            "traffic",
            "why", "check", "devices");

    /** Has a command go on until somebody ends it, or nobody reads on. */
    public static final String FOLLOW = "--follow";

    /** Commands that ask the running deck with --live alone. */
    private static final Set<String> LIVE = Set.of("forecast", "opposite");

    private Caller() {
    }

    /** The whole command line; ends with the exit code of the command, or with {@value #NOT_OPEN}. */
    public static void main(String[] args) {
        TerminalText.guard();
        System.exit(call(args, System.out, System.err).orElse(NOT_OPEN));
    }

    /**
     * Has a command carried out where its board is open.
     *
     * @param args the whole command line
     * @return the exit code; empty where nobody has the board open, or the command is not one for that
     */
    public static OptionalInt call(String[] args, PrintStream out, PrintStream err) {
        if (args.length < 2 || !COMMANDS.contains(args[0]) && !(LIVE.contains(args[0]) && List.of(args).contains(
                "--live"))) {
            return OptionalInt.empty();
        }
        for (String arg : args) {
            if (arg.equals("--stand-ins") || arg.startsWith("--at")) {
                return OptionalInt.empty(); // It brings its own gear.
            }
        }
        for (int i = 1; i < args.length; i++) {
            try {
                Path board = Path.of(args[i]);
                if (Files.isRegularFile(board)) {
                    Path real = CommandSocket.real(board);
                    Path door = CommandSocket.of(real);
                    return Files.exists(door) && CommandSocket.ownedByCaller()
                            ? call(door, real, args, out, err)
                            : OptionalInt.empty();
                }
            } catch (InvalidPathException | IOException e) {
                // It is no board; if none is, the command itself says so.
            }
        }
        return OptionalInt.empty();
    }

    private static OptionalInt call(Path door, Path board, String[] args, PrintStream out, PrintStream err)
            throws IOException {
        try (SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX)) {
            try {
                channel.connect(UnixDomainSocketAddress.of(door));
            } catch (IOException e) {
                return OptionalInt.empty(); // Left behind by one that is gone.
            }
            DataOutputStream to = new DataOutputStream(Channels.newOutputStream(channel));
            java.io.ByteArrayOutputStream whole = new java.io.ByteArrayOutputStream();
            DataOutputStream said = new DataOutputStream(whole);
            said.writeByte(CommandSocket.VERSION);
            said.writeUTF(board.toString());
            said.writeShort(args.length);
            for (String arg : args) {
                said.writeUTF(arg);
            }
            whole.writeTo(to);
            to.flush();
            DataInputStream from = new DataInputStream(Channels.newInputStream(channel));
            while (true) {
                byte what = from.readByte();
                switch (what) {
                    case CommandSocket.OUT, CommandSocket.ERR -> {
                        byte[] text = new byte[from.readInt()];
                        from.readFully(text);
                        PrintStream stream = what == CommandSocket.OUT ? out : err;
                        stream.print(new String(text, StandardCharsets.UTF_8));
                        if (stream.checkError() && List.of(args).contains(FOLLOW)) {
                            return OptionalInt.of(0); // Nobody reads on, as in `… --follow | head`.
                        }
                    }
                    case CommandSocket.CODE -> {
                        return OptionalInt.of(from.readInt());
                    }
                    default -> {
                        return OptionalInt.empty();
                    }
                }
            }
        } catch (java.io.EOFException e) {
            err.println("Rombix was closed before the command finished.");
            return OptionalInt.of(1);
        }
    }
}
