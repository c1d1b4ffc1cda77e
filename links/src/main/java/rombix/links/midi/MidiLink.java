package rombix.links.midi;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;
import javax.sound.midi.Transmitter;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.event.Trouble;
import rombix.core.thread.Bounded;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Reconnector;
import rombix.links.link.Refused;
import rombix.wire.Malformed;
import rombix.wire.midi.MidiCodec;
import rombix.wire.midi.MidiEar;
import rombix.wire.midi.MidiMessage;
import rombix.wire.midi.MidiWords;

/**
 * MIDI through the platform's ports, found by name, out and in. The port is tried until it is there,
 * and watched while it is. Orders wait for the link's own thread, since a driver may block.
 */
final class MidiLink implements Link {
    private static final long WATCH_MILLIS = 500;
    private static final int MOST_WAITING = 1000;
    private static final long LOOK_NANOS = TimeUnit.SECONDS.toNanos(4);

    private record Sending(long ticket, Order order, long atNanos) {
    }

    private record Ports(MidiDevice out, Receiver receiver, @Nullable MidiDevice in,
            @Nullable Transmitter from) implements AutoCloseable {
        boolean isOpen() {
            return out.isOpen() && (in == null || in.isOpen());
        }

        boolean isThere() {
            return List.of(MidiSystem.getMidiDeviceInfo()).contains(out.getDeviceInfo());
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
    private final GearPlaces places;
    private final Bounded<Sending> queue = new Bounded<>(MOST_WAITING, Bounded.Full.REFUSE);
    private final Reconnector<Ports> connected;
    private final Ticking ticking;

    MidiLink(GearReport report, String port, GearPlaces places) {
        this.report = report;
        this.places = places;
        this.port = port;
        this.ticking = new Ticking(report);
        connected = new Reconnector<>(report, "midi", new Reconnector.Way<>() {
            @Override
            public Ports connect() throws IOException {
                refuse("isn't available");
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
            long looked = System.nanoTime();
            while (ports.isOpen()) {
                if (System.nanoTime() - looked > LOOK_NANOS) {
                    looked = System.nanoTime();
                    if (!ports.isThere()) {
                        break; // Unplugged, which not every driver says.
                    }
                }
                Sending next = queue.poll(WATCH_MILLIS, TimeUnit.MILLISECONDS);
                if (next != null) {
                    send(ports, next);
                }
            }
        } catch (IllegalStateException e) {
            // The port was closed under us; it is looked for again.
        } finally {
            ticking.stop();
        }
        throw new Refused(Cause.PORT_GONE, port);
    }

    private void greet(Ports ports) {
        try {
            for (Order.Outgoing packet : report.twin().greeting()) {
                put(ports, places.made(packet));
                report.recordOutgoing("greeting", packet);
            }
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException | InvalidMidiDataException e) {
            report.ignored("its greeting isn't MIDI: " + Trouble.words(e));
        }
    }

    private void send(Ports ports, Sending sending) {
        if (report.stale(sending.ticket(), sending.atNanos())) {
            return;
        }
        try {
            for (Order.Outgoing packet : places.made(sending.order())) {
                put(ports, packet);
            }
            report.sent(sending.ticket());
        } catch (IllegalStateException e) {
            report.failed(sending.ticket(), "the port “" + port + "” is gone");
        } catch (IOException e) {
            report.failed(sending.ticket(), String.valueOf(e.getMessage()));
        } catch (IllegalArgumentException | IndexOutOfBoundsException | InvalidMidiDataException e) {
            report.failed(sending.ticket(), "not a MIDI message: " + Trouble.words(e));
        } catch (RuntimeException | Error e) {
            report.broke(sending.ticket(), e);
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
            int outs = 0;
            int ins = 0;
            for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
                if (port.equals(info.getName()) || port.matches(Pattern.quote(info.getName()) + " \\(\\d+\\)")) {
                    MidiDevice device = MidiSystem.getMidiDevice(info);
                    if (device.getMaxReceivers() != 0 && PortNames.numbered(info.getName(), ++outs).equals(port)) {
                        out = device;
                    }
                    if (device.getMaxTransmitters() != 0 && PortNames.numbered(info.getName(), ++ins).equals(port)) {
                        in = device;
                    }
                }
            }
            if (out == null) {
                List<String> there = Arrays.stream(MidiSystem.getMidiDeviceInfo()).map(MidiDevice.Info::getName)
                        .distinct().toList();
                throw new Refused(Cause.NO_MIDI_PORT, port, there.isEmpty()
                        ? "are none now"
                        : "are " + String.join(", ", there));
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
            throw new Refused(e, Cause.PORT_TAKEN, port, String.valueOf(e.getMessage()));
        }
    }

    /** Takes what comes in, on the driver's thread. */
    private final class Incoming implements Receiver {
        private final MidiEar ear = new MidiEar((address, args) -> report.landed(address, args.stream().map(
                MidiLink::value).toList()));

        @Override
        public void send(javax.sound.midi.MidiMessage raw, long timeStamp) {
            try {
                ear.take(raw.getMessage(), System.nanoTime());
            } catch (Malformed e) {
                report.ignored(String.valueOf(e.getMessage()));
            }
        }

        @Override
        public void close() {
            // Nothing is held.
        }
    }

    private static Value value(String text) {
        return text.matches("-?\\d+(\\.\\d+)?") ? Value.of(Double.parseDouble(text)) : Value.of(text);
    }

    private void put(Ports ports, Order.Outgoing packet) throws InvalidMidiDataException {
        if (packet.address().equals("clock")) {
            ticking.beats(packet.args().isEmpty() ? 0 : packet.args().getFirst().asNumber(), ports.receiver());
            return;
        }
        for (byte[] bytes : MidiWords.bytes(packet.address(), packet.args().stream().map(Value::toString).toList())) {
            ports.receiver().send(message(bytes), -1);
        }
    }

    private static javax.sound.midi.MidiMessage message(byte[] bytes) throws InvalidMidiDataException {
        return (bytes[0] & 0xFF) == SysexMessage.SYSTEM_EXCLUSIVE
                ? new SysexMessage(bytes, bytes.length)
                : new ShortMessage(bytes[0] & 0xFF, bytes.length > 1 ? bytes[1] : 0, bytes.length > 2 ? bytes[2] : 0);
    }

    /** A message in the platform's own form. */
    static ShortMessage message(MidiMessage m) throws InvalidMidiDataException {
        byte[] bytes = MidiCodec.encode(m);
        return new ShortMessage(bytes[0] & 0xFF, bytes[1], bytes.length > 2 ? bytes[2] : 0);
    }

    @Override
    public void send(long ticket, Order order) {
        if (!queue.offer(new Sending(ticket, order, System.nanoTime()))) {
            report.failed(ticket, "has too many commands waiting");
        }
        if (connected.closed()) {
            refuse("was closed");
        }
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public void close() {
        connected.close();
        ticking.close();
        refuse("was closed");
    }
}
