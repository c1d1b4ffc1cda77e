package rombix.links.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.computer.Place;
import rombix.core.event.Event;
import rombix.core.event.Status.Phase;
import rombix.core.sight.Pixels;
import rombix.core.sight.Sights;
import rombix.core.store.CardLibrary;
import rombix.core.trust.Grants;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.desktop.machine.PngPixels;
import rombix.links.link.GearReport;
import rombix.links.link.Keyring;
import rombix.links.link.Link;
import rombix.links.link.Target;
import rombix.standins.booth.Booth;
import rombix.standins.booth.BoothLook;

/** A computer as gear, against the stand-in of one, and what it answers. */
@Timeout(300)
abstract class ComputerUnderTest {
    @TempDir
    Path folder;
    final Keyring keeps = new Keyring() {
        @Override
        public Optional<String> secret(String name) {
            return name.equals("stage-door") ? Optional.of("mööp 7") : Optional.empty();
        }

        @Override
        public Optional<String> firstSeen(String address) {
            return Optional.empty();
        }

        @Override
        public void seen(String address, String fingerprint) {
            // Nothing here is seen.
        }
    };
    Booth booth;
    Twin twin;
    Link link;
    final Map<Long, String> answers = new ConcurrentHashMap<>();
    final Map<String, Value> readings = new ConcurrentHashMap<>();
    final Map<String, Phase> phases = new ConcurrentHashMap<>();
    final List<Step> steps = new ArrayList<>();
    long ticket;

    @BeforeEach
    void open() throws Exception {
        booth = new Booth(0);
        Card card = CardLibrary.shipped().get("desktop");
        twin = new Twin("computer", "Booth", card, Protocol.of("desktop"), Map.of());
        link = new Desktop().open(new GearReport(twin, new MachineClock(), this::take), new Target("127.0.0.1:" + booth
                .port(), new Gear.Link(Protocol.of("desktop"), "", Map.of()), keeps, Path::of));
        soon(() -> phases.get("computer") == Phase.READY);
    }

    @AfterEach
    void close() throws Exception {
        link.close();
        booth.close();
    }

    void take(Event event) {
        switch (event) {
            case Event.OrderDone d -> answers.put(d.ticket(), d.fault() == null ? "sent" : d.fault());
            case Event.Came c -> readings.put(c.reading(), c.value());
            case Event.Linked l -> phases.put(l.gear(), l.status().phase());
            default -> {
            }
        }
    }

    static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(5)).until(so);
    }

    /** What a board is granted that has all these steps. */
    Grants granted(String command, Map<String, Value> args) {
        steps.add(new GearStep.Do("computer", command, args));
        Button button = new Button("b", "B", 0, 0, 1, 1, Button.Busy.QUEUE, List.of(State.named("s").withOn(Map.of(
                Gesture.PRESS, new Chain(steps, List.of())))), Map.of());
        Gear gear = new Gear("computer", "Booth", "desktop", new Gear.Link(Protocol.of("desktop"), "here", Map.of()),
                Map.of(), Map.of());
        return Grants.of(Rig.of(Board.empty("B").withGear(List.of(gear)).withPages(List.of(Page.empty("p", "P")
                .withButtons(List.of(button)))), CardLibrary.shipped()));
    }

    long send(String command, Map<String, Value> args) {
        long mine = ++ticket;
        Order order = twin.order(twin.card().command(command).orElseThrow(), args, r -> readings.get(r));
        link.granted(granted(command, args));
        link.send(mine, order);
        return mine;
    }

    String done(String command, Map<String, Value> args) {
        long mine = send(command, args);
        soon(() -> answers.containsKey(mine));
        return answers.get(mine);
    }

    static Map<String, Value> with(Object... pairs) {
        Map<String, Value> all = new HashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            all.put((String) pairs[i], pairs[i + 1] instanceof Number n
                    ? Value.of(n.doubleValue())
                    : pairs[i + 1] instanceof Boolean b ? Value.of(b) : Value.of((String) pairs[i + 1]));
        }
        return all;
    }

    @Nullable
    Value now(String reading) {
        return readings.get(reading);
    }

    /** Has the booth's button for the next slide be looked for. */
    static String next(String how) {
        return "picture pnext in " + how;
    }

    Pixels screen() {
        return new Pixels(BoothLook.WIDTH, BoothLook.HEIGHT, booth.picture());
    }

    void sights(String... watched) throws Exception {
        Path file = folder.resolve("next.png");
        PngPixels.write(screen().part(180, 400, 30, 24), file.toString());
        Sights sights = new Sights(Map.of("pnext", Base64.getEncoder().encodeToString(Files.readAllBytes(file))),
                Map.of(
                        "pnext", Place.OnPicture.of("pnext")),
                Map.of("pnext", "Next"), Set.of(watched));
        link.sights(() -> sights);
    }
}
