package rombix.bench.measure;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import rombix.bench.Bench;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;

/** A receiver on loopback, and boards whose gear it is. */
public final class BenchGear implements AutoCloseable {
    public static final String CARD = """
            {"card": 1, "id": "bench", "title": "Bench",
             "readings": [{"id": "level/{lamp}", "type": "number", "min": 0, "max": 100}],
             "lists": {"lamp": []},
             "commands": [
               {"id": "go", "title": "Go {n}", "params": [{"id": "n", "type": "number"}],
                "send": {"osc": [{"to": "/go", "args": ["{n}"]}], "line": [{"to": "line", "args": ["GO {n}"]}],
                  "websocket": [{"to": "text", "args": ["GO {n}"]}], "http": [{"to": "PUT /go", "args": ["{n}", ""]}],
                  "artnet": [{"to": "0 1", "args": ["{n}"]}]}},
               {"id": "level", "title": "{lamp} to {level}",
                "params": [{"id": "lamp", "type": "choice"},
                           {"id": "level", "type": "number", "min": 0, "max": 100, "default": 0}],
                "send": {"dmx": [{"to": "{lamp.universe} {lamp.slot}",
                          "args": [{"of": "level", "from": [0, 100], "to": [0, 255], "as": "int"}]}]},
                "changes": [{"reading": "level/{lamp}", "to": "{level}"}]}]}
            """;

    private final DatagramChannel socket;
    private final Thread thread;
    private volatile LongConsumer received = _ -> {
    };
    private volatile boolean closed;

    /** Listens on a free port; each datagram's arrival is told on the receiver's thread. */
    public BenchGear() throws IOException {
        socket = DatagramChannel.open();
        socket.setOption(StandardSocketOptions.SO_RCVBUF, 8 << 20);
        socket.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
        thread = Thread.ofPlatform().name("receiver").daemon().start(this::receive);
    }

    private void receive() {
        ByteBuffer in = ByteBuffer.allocateDirect(2048);
        while (!closed) {
            try {
                in.clear();
                socket.receive(in);
                received.accept(System.nanoTime());
            } catch (IOException e) {
                return;
            }
        }
    }

    public void received(LongConsumer to) {
        received = to;
    }

    public String address() throws IOException {
        return "127.0.0.1:" + ((InetSocketAddress) socket.getLocalAddress()).getPort();
    }

    public InetSocketAddress socketAddress() throws IOException {
        return (InetSocketAddress) socket.getLocalAddress();
    }

    /** A board with OSC gear at some addresses and one button, {@code b}, that runs a chain. */
    public static Rig osc(List<String> addresses, Chain press) {
        List<rombix.core.board.Gear> gear = new ArrayList<>();
        for (int i = 0; i < addresses.size(); i++) {
            gear.add(new rombix.core.board.Gear("g" + i, "G" + i, "bench",
                    new rombix.core.board.Gear.Link(Protocol.of("osc"),
                            addresses.get(i), Map.of()),
                    Map.of(), Map.of()));
        }
        return rig(gear, press);
    }

    public static Rig rig(List<rombix.core.board.Gear> gear, Chain press) {
        try {
            State state = new State("s", "s", Face.PLAIN, State.STAY, null, Map.of(Gesture.PRESS, press), Map.of());
            Button button = new Button("b", "B", 0, 0, 1, 1, Button.Busy.OVERLAP, List.of(state), Map.of());
            Board board = new Board(1, "Bench", gear, List.of(new Page("p", "P", 6, 4, List.of(button), Map.of())), Map
                    .of());
            return Rig.of(board, Map.of("bench", CardLibrary.read(Path.of("bench.json"), CARD)));
        } catch (BadFile e) {
            throw new IllegalStateException(e);
        }
    }

    public static Step go(int gear, double n) {
        return new GearStep.Do("g" + gear, "go", Map.of("n", Value.of(n)));
    }

    @Override
    public void close() throws IOException {
        closed = true;
        socket.close();
        thread.interrupt();
    }
}
