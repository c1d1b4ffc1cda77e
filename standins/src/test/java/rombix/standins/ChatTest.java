package rombix.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import rombix.wire.irc.IrcLine;

class ChatTest {
    private static final int ROUNDS = 2000;

    /** A mode that was set while somebody asked for the modes was told first, and the answer from before it last. */
    @Test
    void whatIsToldLastAboutAModeIsHowItIs() throws Exception {
        try (Chat chat = new Chat(0);
                Socket socket = new Socket(InetAddress.getLoopbackAddress(), chat.port());
                BufferedReader in = new BufferedReader(new InputStreamReader(socket.getInputStream(),
                        StandardCharsets.UTF_8))) {
            socket.setSoTimeout(20_000);
            socket.setTcpNoDelay(true);
            OutputStream out = socket.getOutputStream();
            say(out, "NICK deck\r\nUSER deck 0 * deck\r\n");
            String greeting = in.readLine();
            while (!greeting.contains(" 422 ")) {
                greeting = in.readLine();
            }
            for (int round = 1; round <= ROUNDS; round++) {
                say(out, "MODE " + Chat.CHANNEL + "\r\nPING " + round + "\r\n");
                boolean moderated = round % 2 == 1;
                chat.mode('m', moderated);
                assertThat(last(in, round, moderated)).as("round %d", round).isEqualTo(moderated);
            }
        }
    }

    /** How the mode is by what was told up to the answer to a ping and to the change itself. */
    private static boolean last(BufferedReader in, int round, boolean to) throws Exception {
        boolean ponged = false;
        boolean changed = false;
        boolean now = !to;
        while (!ponged || !changed) {
            IrcLine line = IrcLine.decode(in.readLine());
            switch (line.command()) {
                case "PONG" -> ponged = line.params().getLast().equals(String.valueOf(round));
                case "324" -> now = line.param(2).substring(0, line.param(2).indexOf('-')).contains("m");
                case "MODE" -> {
                    now = line.param(1).startsWith("+");
                    changed = true;
                }
                default -> throw new AssertionError("told " + line);
            }
        }
        return now;
    }

    private static void say(OutputStream out, String text) throws Exception {
        out.write(text.getBytes(StandardCharsets.UTF_8));
        out.flush();
    }
}
