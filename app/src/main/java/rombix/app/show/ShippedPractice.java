package rombix.app.show;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import rombix.app.view.gear.Practice;
import rombix.standins.set.StandIn;

/** The demo board and the stand-ins that ship. */
final class ShippedPractice implements Practice, AutoCloseable {
    private final Map<String, StandIn> running = new LinkedHashMap<>();

    @Override
    public String demoBoard() {
        return DemoBoard.text();
    }

    @Override
    public boolean has(String card) {
        return StandIn.CARDS.contains(card);
    }

    @Override
    public synchronized String standIn(String card) throws IOException {
        StandIn there = running.get(card);
        if (there == null) {
            there = StandIn.of(card);
            running.put(card, there);
        }
        return there.address();
    }

    @Override
    public synchronized void close() {
        running.values().forEach(StandIn::close);
        running.clear();
    }
}
