package rombix.links.midi;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Transmitter;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Order;
import rombix.core.engine.Trouble;
import rombix.core.value.Value;
import rombix.links.link.Connected;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.wire.Malformed;
import rombix.wire.midi.MidiCodec;
import rombix.wire.midi.MidiMessage;

/**
 * MIDI through the platform's ports, found by name, out and in. The port is tried until it is there,
 * and watched while it is. Orders wait for the link's own thread, since a driver may block.
 */
final class MidiLink implements Link {
    private static final long WATCH_MILLIS = 500;
    private static final int MOST_WAITING = 1000;

    private record Sending(long ticket, Order order, long atNanos) {
    }

    private record Ports(MidiDevice out, Receiver receiver, @Nullable MidiDevice in,
            @Nullable Transmitter from) implements AutoCloseable {
        boolean isOpen() {
            return out.isOpen() && (in == null || in.isOpen());
        }

        @Override
        public void close() {
            out.close();
            if (in != null) {
                in.close();
            }
        }
    }

    private final GearReport report;
    private final String port;
    private final LinkedBlockingQueue<Sending> queue = new LinkedBlockingQueue<>(MOST_WAITING);
    private final Connected<Ports> connected;

    MidiLink(GearReport report, String port) {
        this.report = report;
        this.port = port;
        connected = new Connected<>(report, "midi", new Connected.Way<>() {
            @Override
            public Ports connect() throws IOException {
                refuse("is not there");
                return open();
            }

            @Override
            public void serve(Ports ports) throws IOException, InterruptedException {
                MidiLink.this.serve(ports);
            }
        });
    }

    private void serve(Ports ports) throws IOException, InterruptedException {
        report.ready();
        try {
            greet(ports);
            while (ports.isOpen()) {
                Sending next = queue.poll(WATCH_MILLIS, TimeUnit.MILLISECONDS);
                if (next != null) {
                    send(ports, next);
                }
            }
        } catch (IllegalStateException e) {
            // The port was closed under us; it is looked for again.
        }
        throw new IOException("the port “" + port + "” is gone");
    }

    private void greet(Ports ports) {
        try {
            for (Order.Outgoing packet : report.twin().greeting()) {
                ports.receiver().send(message(packet), -1);
            }
        } catch (IllegalArgumentException | IndexOutOfBoundsException | InvalidMidiDataException e) {
            report.ignored("its greeting is no MIDI: " + Trouble.words(e));
        }
    }

    private void send(Ports ports, Sending sending) {
        if (report.stale(sending.ticket(), sending.atNanos())) {
            return;
        }
        try {
            for (Order.Outgoing packet : sending.order().packets()) {
                ports.receiver().send(message(packet), -1);
            }
            report.sent(sending.ticket());
        } catch (IllegalStateException e) {
            report.failed(sending.ticket(), "the port “" + port + "” is gone");
        } catch (IllegalArgumentException | IndexOutOfBoundsException | InvalidMidiDataException e) {
            report.failed(sending.ticket(), "no MIDI message: " + Trouble.words(e));
        }
    }

    private void refuse(String why) {
        for (Sending s = queue.poll(); s != null; s = queue.poll()) {
            report.failed(s.ticket(), "the port “" + port + "” " + why);
        }
    }

    private Ports open() throws IOException {
        List<MidiDevice> opened = new ArrayList<>();
        try {
            MidiDevice out = null;
            MidiDevice in = null;
            for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
                if (info.getName().equals(port)) {
                    MidiDevice device = MidiSystem.getMidiDevice(info);
                    if (out == null && device.getMaxReceivers() != 0) {
                        out = device;
                    }
                    if (in == null && device.getMaxTransmitters() != 0) {
                        in = device;
                    }
                }
            }
            if (out == null) {
                throw new IOException("no MIDI port “" + port + "”");
            }
            opened.add(out);
            out.open();
            Transmitter from = null;
            if (in != null) {
                opened.add(in);
                in.open();
                from = in.getTransmitter();
                from.setReceiver(new Incoming());
            }
            return new Ports(out, out.getReceiver(), in, from);
        } catch (MidiUnavailableException | IllegalArgumentException e) {
            opened.forEach(MidiDevice::close);
            throw new IOException("the MIDI port “" + port + "” cannot be opened: " + e.getMessage(), e);
        }
    }

    /** Takes what comes in, on the driver's thread. */
    private final class Incoming implements Receiver {
        @Override
        public void send(javax.sound.midi.MidiMessage raw, long timeStamp) {
            try {
                MidiCodec.decode(raw.getMessage()).ifPresent(m -> {
                    switch (m) {
                        case MidiMessage.Note n -> report.landed("note %d %d".formatted(n.channel(), n.number()),
                                List.of(Value.of(n.velocity())));
                        case MidiMessage.Control c -> report.landed(
                                "control %d %d".formatted(c.channel(), c.number()), List.of(Value.of(c.value())));
                        case MidiMessage.Program p ->
                            report.landed("program %d".formatted(p.channel()), List.of(Value.of(p.program())));
                    }
                });
            } catch (Malformed e) {
                report.ignored(String.valueOf(e.getMessage()));
            }
        }

        @Override
        public void close() {
            // Nothing is held.
        }
    }

    private static ShortMessage message(Order.Outgoing packet) throws InvalidMidiDataException {
        String[] words = packet.address().split(" ");
        List<Integer> numbers = new ArrayList<>();
        for (int i = 1; i < words.length; i++) {
            numbers.add((int) Double.parseDouble(words[i]));
        }
        int value = packet.args().isEmpty() ? 127 : (int) Math.rint(packet.args().getFirst().asNumber());
        return message(switch (words[0]) {
            case "note" -> new MidiMessage.Note(numbers.get(0), numbers.get(1), value);
            case "control" -> new MidiMessage.Control(numbers.get(0), numbers.get(1), value);
            case "program" -> new MidiMessage.Program(numbers.get(0), value);
            default -> throw new IllegalArgumentException("no such kind as " + words[0]);
        });
    }

    /** A message in the platform's own form. */
    static ShortMessage message(MidiMessage m) throws InvalidMidiDataException {
        byte[] bytes = MidiCodec.encode(m);
        return new ShortMessage(bytes[0] & 0xFF, bytes[1], bytes.length > 2 ? bytes[2] : 0);
    }

    @Override
    public void send(long ticket, Order order) {
        if (!queue.offer(new Sending(ticket, order, System.nanoTime()))) {
            report.failed(ticket, "has too many orders waiting");
        }
        if (connected.closed()) {
            refuse("was closed");
        }
    }

    @Override
    public void close() {
        connected.close();
        refuse("was closed");
    }
}
