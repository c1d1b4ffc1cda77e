package rombix.links.found;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import rombix.links.link.Loop;
import rombix.wire.Malformed;

/** What comes to a socket that asked who is there, until it is closed. */
final class Answers {
    private static final int LARGEST = 2048;

    private Answers() {
    }

    /** Takes one of them; what is somebody else's is passed over. */
    interface Taken {
        void take(DatagramPacket answer) throws Malformed;
    }

    static void read(String name, DatagramSocket socket, Taken taken) {
        Loop.start(name, () -> {
            DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
            try {
                socket.receive(in);
                taken.take(in);
            } catch (Malformed e) {
                // Somebody else's.
            } catch (IOException e) {
                if (socket.isClosed()) {
                    throw new InterruptedException("closed");
                }
                throw e;
            }
        }, _ -> {
        });
    }
}
