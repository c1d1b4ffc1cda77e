package rombix.standins.midi;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;
import javax.sound.midi.Transmitter;
import org.jspecify.annotations.Nullable;
import rombix.wire.midi.MidiStream;

/** A MIDI port, out and in, whose far end is a socket. Closes itself when the far end goes. */
final class Cable implements MidiDevice {
    private static final int PATIENCE_MILLIS = 1000;

    /** The port's description. */
    static final class Label extends MidiDevice.Info {
        Label(String name) {
            super(name, "Rombix", "A cable to a stand-in", "1");
        }
    }

    private final Info info;
    private final InetSocketAddress end;
    private final List<Out> transmitters = new CopyOnWriteArrayList<>();
    private volatile @Nullable Socket socket;

    Cable(Info info, InetSocketAddress end) {
        this.info = info;
        this.end = end;
    }

    @Override
    public Info getDeviceInfo() {
        return info;
    }

    @Override
    public synchronized void open() throws MidiUnavailableException {
        if (isOpen()) {
            return;
        }
        Socket plugged = new Socket();
        try {
            plugged.connect(end, PATIENCE_MILLIS);
            plugged.setTcpNoDelay(true);
        } catch (IOException e) {
            throw new MidiUnavailableException("nothing is plugged in at the other end");
        }
        socket = plugged;
        Thread.ofVirtual().name("cable").start(() -> read(plugged));
    }

    private void read(Socket from) {
        MidiStream stream = new MidiStream(this::deliver);
        byte[] in = new byte[256];
        try {
            for (int n = from.getInputStream().read(in); n >= 0; n = from.getInputStream().read(in)) {
                stream.feed(in, 0, n);
            }
        } catch (IOException e) {
            // Unplugged.
        }
        close();
    }

    private void deliver(byte[] bytes) {
        try {
            MidiMessage message = (bytes[0] & 0xFF) == SysexMessage.SYSTEM_EXCLUSIVE
                    ? new SysexMessage(bytes, bytes.length)
                    : new ShortMessage(bytes[0] & 0xFF, bytes.length > 1 ? bytes[1] : 0,
                            bytes.length > 2 ? bytes[2] : 0);
            for (Out out : transmitters) {
                Receiver to = out.receiver;
                if (to != null) {
                    to.send(message, -1);
                }
            }
        } catch (InvalidMidiDataException e) {
            // No such message in MIDI: nothing to deliver.
        }
    }

    @Override
    public void close() {
        Socket open = socket;
        socket = null;
        if (open != null) {
            try {
                open.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        }
    }

    @Override
    public boolean isOpen() {
        return socket != null;
    }

    @Override
    public long getMicrosecondPosition() {
        return -1;
    }

    @Override
    public int getMaxReceivers() {
        return -1;
    }

    @Override
    public int getMaxTransmitters() {
        return -1;
    }

    @Override
    public Receiver getReceiver() {
        return new In();
    }

    @Override
    public List<Receiver> getReceivers() {
        return List.of();
    }

    @Override
    public Transmitter getTransmitter() {
        Out out = new Out();
        transmitters.add(out);
        return out;
    }

    @Override
    public List<Transmitter> getTransmitters() {
        return List.copyOf(transmitters);
    }

    private final class In implements Receiver {
        @Override
        public void send(MidiMessage message, long timeStamp) {
            Socket to = socket;
            if (to == null) {
                throw new IllegalStateException("the cable is unplugged");
            }
            try {
                to.getOutputStream().write(message.getMessage(), 0, message.getLength());
            } catch (IOException e) {
                Cable.this.close();
                throw new IllegalStateException("the cable is unplugged", e);
            }
        }

        @Override
        public void close() {
            // The port stays open for others.
        }
    }

    private final class Out implements Transmitter {
        private volatile @Nullable Receiver receiver;

        @Override
        public void setReceiver(@Nullable Receiver receiver) {
            this.receiver = receiver;
        }

        @Override
        public @Nullable Receiver getReceiver() {
            return receiver;
        }

        @Override
        public void close() {
            transmitters.remove(this);
        }
    }
}
