package rombix.links.desktop;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import rombix.core.value.Value;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Machine.Window;
import rombix.links.desktop.machine.PlayingApplication;
import rombix.links.desktop.machine.Unable;

/** The programs that play sound, each with its volume; {@value #FRONT} is the one whose window is in front. */
final class Programs {
    static final String FRONT = "front";

    private Programs() {
    }

    /** The id of the program that is meant. */
    static String meant(Machine machine, String id) throws Unable {
        if (!id.equals(FRONT)) {
            return id;
        }
        Window window = machine.front().orElseThrow(() -> new Unable("there is no window in front"));
        return inFront(machine.sounding(), window).map(PlayingApplication::id).orElseThrow(() -> new Unable("“" + window
                .application() + "” is in front, but isn't playing sound"));
    }

    private static Optional<PlayingApplication> inFront(List<PlayingApplication> all, Window window) {
        return all.stream().filter(s -> s.id().equals(PlayingApplication.id(window.application()))).findFirst()
                .or(() -> all
                        .stream().filter(s -> s.of(window.application())).findFirst());
    }

    /** The list of them, as ids and names in turn. */
    static List<Value> list(List<PlayingApplication> all) {
        List<Value> pairs = new ArrayList<>(List.of(Value.of(FRONT), Value.of("the program in front")));
        all.forEach(s -> pairs.addAll(List.of(Value.of(s.id()), Value.of(s.name()))));
        return pairs;
    }

    /** Tells how loud each is, and the one in front. */
    static void tell(List<PlayingApplication> all, Optional<Window> front, BiConsumer<String, String> to) {
        all.forEach(s -> tell(s.id(), s, to));
        front.flatMap(w -> inFront(all, w)).ifPresent(s -> tell(FRONT, s, to));
    }

    private static void tell(String id, PlayingApplication now, BiConsumer<String, String> to) {
        to.accept("sound-volume/" + id, String.valueOf(now.percent()));
        to.accept("sound-mute/" + id, String.valueOf(now.mute()));
    }
}
