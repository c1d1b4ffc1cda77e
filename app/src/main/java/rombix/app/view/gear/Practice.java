package rombix.app.view.gear;

import java.io.IOException;

/** What ships to practise on: the demo board, and stand-ins for gear that is not here yet. Safe to use from any thread. */
public interface Practice {
    /** The demo board's text. */
    String demoBoard();

    /** Whether there is a stand-in for gear of a card. */
    boolean has(String card);

    /**
     * Starts a stand-in for gear of a card, where none runs already; it goes with the window.
     *
     * @return where it is reached
     * @throws IOException in plain words where it cannot be started
     */
    String standIn(String card) throws IOException;

    /** Nothing to practise on. */
    Practice NONE = new Practice() {
        @Override
        public String demoBoard() {
            return "";
        }

        @Override
        public boolean has(String card) {
            return false;
        }

        @Override
        public String standIn(String card) throws IOException {
            throw new IOException("there is no stand-in for it");
        }
    };
}
