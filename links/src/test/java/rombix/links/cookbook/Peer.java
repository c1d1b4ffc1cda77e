package rombix.links.cookbook;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** Gear over a stream: it takes what a conversation of its kind is made of, and says its answers in one of several ways. */
final class Peer implements AutoCloseable {
    /** How what it says stands in the stream. */
    enum Saying {
        WHOLE, SPLIT, GLUED
    }

    /** What it knows of one who has connected. Called on one thread. */
    interface Talk {
        /** What it says to begin with. */
        default List<byte[]> hello() {
            return List.of();
        }

        /** Reads one message; null at the end. */
        byte[] read(InputStream in) throws IOException;

        /** What it answers. */
        List<byte[]> answers(byte[] message);
    }

    /** Makes what it knows of one who connects. */
    interface Guest {
        Talk of();
    }

    private final ServerSocket server;
    private final Guest guest;
    private final Saying saying;
    private final List<Socket> there = new CopyOnWriteArrayList<>();

    Peer(Saying saying, Guest guest) throws IOException {
        this.saying = saying;
        this.guest = guest;
        server = new ServerSocket(0, 9, InetAddress.getLoopbackAddress());
        Thread.startVirtualThread(() -> {
            while (!server.isClosed()) {
                try {
                    Socket s = server.accept();
                    there.add(s);
                    Thread.startVirtualThread(() -> serve(s));
                } catch (IOException e) {
                    // Closed.
                }
            }
        });
    }

    String address() {
        return "127.0.0.1:" + server.getLocalPort();
    }

    private void serve(Socket s) {
        Talk talk = guest.of();
        try (s) {
            s.setTcpNoDelay(true);
            say(s.getOutputStream(), talk.hello());
            for (byte[] m = talk.read(s.getInputStream()); m != null; m = talk.read(s.getInputStream())) {
                say(s.getOutputStream(), talk.answers(m));
            }
        } catch (IOException e) {
            // It has hung up.
        }
    }

    private void say(OutputStream out, List<byte[]> all) throws IOException {
        java.io.ByteArrayOutputStream glued = new java.io.ByteArrayOutputStream();
        for (byte[] one : all) {
            switch (saying) {
                case WHOLE -> out.write(one);
                case SPLIT -> {
                    for (byte b : one) {
                        out.write(b);
                        out.flush();
                    }
                }
                case GLUED -> glued.writeBytes(one);
            }
        }
        out.write(glued.toByteArray());
        out.flush();
    }

    /** Says something that nobody asked for, to all who are there. */
    void tell(byte[]... all) throws IOException {
        for (Socket s : there) {
            if (!s.isClosed()) {
                say(s.getOutputStream(), List.of(all));
            }
        }
    }

    /** Restarts: all who are there have to come again. */
    void hangUp() throws IOException {
        for (Socket s : there) {
            s.close();
        }
        there.clear();
    }

    /** Reads until one of some bytes has come. */
    static byte[] until(InputStream in, int end) throws IOException {
        java.io.ByteArrayOutputStream all = new java.io.ByteArrayOutputStream();
        for (int b = in.read(); b >= 0; b = in.read()) {
            all.write(b);
            if (b == end) {
                return all.toByteArray();
            }
        }
        return null;
    }

    @Override
    public void close() throws IOException {
        server.close();
        hangUp();
    }
}
