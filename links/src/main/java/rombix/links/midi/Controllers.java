package rombix.links.midi;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Transmitter;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.touch.Touch;
import rombix.links.link.Loop;
import rombix.wire.Malformed;
import rombix.wire.midi.MidiCodec;
import rombix.wire.midi.MidiMessage;

/**
 * Controllers: MIDI ports whose messages pull triggers, and whose lamps and motors are set. Ports are looked for every
 * second, so one that is plugged in later comes, and one that is pulled out is told of. Safe to use from any thread.
 */
public final class Controllers implements AutoCloseable {
    /** Between two scans while a port that is wanted is missing, or while learning. */
    private static final long LOOK_MILLIS = 1000;
    /** Between two scans while all ports that are wanted are open. A scan asks each driver: it costs milliseconds. */
    private static final long SETTLED_MILLIS = 4000;

    private final Consumer<Touch> touched;
    private final Consumer<String> arrived;
    private final Map<String, Port> open = new ConcurrentHashMap<>();
    private final Semaphore look = new Semaphore(0);
    /** Whether messages come from each device that is here. */
    private final Map<MidiDevice.Info, Boolean> sends = new HashMap<>();
    private volatile Set<String> wanted = Set.of();
    private volatile Set<String> here = Set.of();
    private volatile boolean all;
    private boolean closed;
    private final Loop loop;

    /**
     * @param touched told of what comes in, on the driver's thread; must not block
     * @param arrived told of a port that is open now, from any thread
     */
    public Controllers(Consumer<Touch> touched, Consumer<String> arrived) {
        this.touched = touched;
        this.arrived = arrived;
        loop = Loop.start("controllers", this::lookAgain, _ -> {
            // A driver that throws has no ports just now: they are looked for again.
        });
    }

    /**
     * Uses these ports from now on.
     *
     * @param every whether all others that there are, too: for learning
     */
    public void use(Collection<String> ports, boolean every) {
        wanted = Set.copyOf(ports);
        all = every;
        look.release();
    }

    /** The ports that are open. */
    public Set<String> open() {
        return new TreeSet<>(open.keySet());
    }

    /** All input ports, as of the last scan. */
    public Set<String> connected() {
        return here;
    }

    private Set<String> look() {
        Set<String> names = new TreeSet<>();
        List<MidiDevice.Info> present = List.of(MidiSystem.getMidiDeviceInfo());
        sends.keySet().retainAll(present);
        for (MidiDevice.Info info : present) {
            if (sends(info)) {
                names.add(info.getName());
            }
        }
        return names;
    }

    /** Whether messages come from a device; asked once, as each question has all drivers count their devices. */
    private boolean sends(MidiDevice.Info info) {
        Boolean known = sends.get(info);
        if (known == null) {
            try {
                known = MidiSystem.getMidiDevice(info).getMaxTransmitters() != 0;
                sends.put(info, known);
            } catch (MidiUnavailableException | IllegalArgumentException e) {
                return false; // It went while it was looked at.
            }
        }
        return known;
    }

    /** Lights a lamp or moves a fader. Never waits: of each one only the last value does. */
    public void send(Touch.Midi message) {
        Port port = open.get(message.port());
        if (port != null) {
            port.send(message);
        }
    }

    private void lookAgain() throws InterruptedException {
        refresh();
        boolean settled = !all && open.keySet().containsAll(wanted);
        if (look.tryAcquire(settled ? SETTLED_MILLIS : LOOK_MILLIS, TimeUnit.MILLISECONDS)) {
            look.drainPermits();
        }
    }

    private synchronized void refresh() {
        if (closed) {
            return;
        }
        here = look();
        for (Port p : List.copyOf(open.values())) {
            boolean gone = !p.in.isOpen() || !here.contains(p.name);
            if (gone || !all && !wanted.contains(p.name)) {
                open.remove(p.name);
                p.close();
                touched.accept(new Touch.Gone(p.name));
            }
        }
        Set<String> missing = new TreeSet<>(all ? here : wanted);
        missing.removeAll(open.keySet());
        missing.retainAll(here);
        for (String name : missing) {
            Port port = opened(name);
            if (port != null) {
                open.put(name, port);
                arrived.accept(name);
            }
        }
    }

    private @Nullable Port opened(String name) {
        MidiDevice in = null;
        MidiDevice out = null;
        try {
            for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
                if (info.getName().equals(name)) {
                    MidiDevice device = MidiSystem.getMidiDevice(info);
                    in = in == null && device.getMaxTransmitters() != 0 ? device : in;
                    out = out == null && device.getMaxReceivers() != 0 ? device : out;
                }
            }
            if (in == null) {
                return null;
            }
            in.open();
            if (out != null && out != in) {
                out.open();
            }
            return new Port(name, in, out, out == null ? null : out.getReceiver());
        } catch (MidiUnavailableException | IllegalArgumentException e) {
            if (in != null) {
                in.close();
            }
            return null;
        }
    }

    /** An open port, in and out. */
    private final class Port implements Receiver {
        private final String name;
        private final MidiDevice in;
        private final @Nullable MidiDevice out;
        private final @Nullable Receiver receiver;
        private final Map<List<Object>, Touch.Midi> waiting = new LinkedHashMap<>();
        private final Semaphore any = new Semaphore(0);
        private final Loop sender;

        Port(String name, MidiDevice in, @Nullable MidiDevice out, @Nullable Receiver receiver)
                throws MidiUnavailableException {
            this.name = name;
            this.in = in;
            this.out = out;
            this.receiver = receiver;
            Transmitter from = in.getTransmitter();
            from.setReceiver(this);
            // What cannot be sent is gone: that is seen when the port is looked for.
            sender = Loop.start("controller " + name, this::sendAll, _ -> look.release());
        }

        void send(Touch.Midi m) {
            synchronized (waiting) {
                waiting.put(List.of(m.message(), m.channel(), m.number()), m);
            }
            any.release();
        }

        private void sendAll() throws InterruptedException, InvalidMidiDataException {
            any.acquire();
            any.drainPermits();
            List<Touch.Midi> lot;
            synchronized (waiting) {
                lot = new ArrayList<>(waiting.values());
                waiting.clear();
            }
            for (Touch.Midi m : lot) {
                if (receiver != null) {
                    receiver.send(MidiLink.message(coded(m)), -1);
                }
            }
        }

        private static MidiMessage coded(Touch.Midi m) {
            return switch (m.message()) {
                case NOTE -> new MidiMessage.Note(m.channel(), m.number(), m.value());
                case CONTROL -> new MidiMessage.Control(m.channel(), m.number(), m.value());
                case PROGRAM -> new MidiMessage.Program(m.channel(), m.number());
            };
        }

        /** Takes what comes in, on the driver's thread. */
        @Override
        public void send(javax.sound.midi.MidiMessage raw, long timeStamp) {
            try {
                MidiCodec.decode(raw.getMessage()).ifPresent(m -> touched.accept(switch (m) {
                    case MidiMessage.Note n -> new Touch.Midi(name, Message.NOTE, n.channel(), n.number(), n
                            .velocity());
                    case MidiMessage.Control c -> new Touch.Midi(name, Message.CONTROL, c.channel(), c.number(), c
                            .value());
                    case MidiMessage.Program p -> new Touch.Midi(name, Message.PROGRAM, p.channel(), p.program(), 127);
                }));
            } catch (Malformed e) {
                // A controller that sends nonsense presses nothing.
            }
        }

        @Override
        public void close() {
            sender.close();
            in.close();
            if (out != null) {
                out.close();
            }
        }
    }

    @Override
    public void close() {
        loop.close();
        synchronized (this) {
            closed = true;
            open.values().forEach(Port::close);
        }
    }
}
