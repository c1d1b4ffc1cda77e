package rombix.web;

import static rombix.web.TestDevice.soon;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.event.Mode;
import rombix.core.event.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.running.RunningDeck;
import rombix.running.log.LogStore;
import rombix.running.owner.Trust;
import rombix.standins.set.StandIns;

/** The demo board in Live, on stand-ins. */
record DemoDeck(StandIns gear, Rig rig, RunningDeck deck) implements AutoCloseable {
    /** The cables of MIDI have names, so that of two sets of stand-ins one would take the other's: one at a time. */
    static final String CABLES = "MIDI cables";

    static DemoDeck open(@Nullable LogStore log) throws Exception {
        StandIns gear = StandIns.onFreePorts();
        Rig rig = BoardFile.read(Path.of("../demo/star-night.json"));
        RunningDeck deck = new RunningDeck(new HashMap<>(gear.addresses()), log);
        deck.play(rig, Trust.all());
        deck.mode(Mode.LIVE, false);
        soon(() -> deck.feed().state().reading("desk", "muted/host") != null && deck.feed().state().status("lamps")
                .phase() == Phase.READY);
        return new DemoDeck(gear, rig, deck);
    }

    @Override
    public void close() throws IOException {
        deck.close();
        gear.close();
    }
}
