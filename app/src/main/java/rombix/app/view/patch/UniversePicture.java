package rombix.app.view.patch;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.GridPane;
import rombix.app.view.common.Styles;
import rombix.core.patch.Fixture;
import rombix.core.patch.Universes;

/**
 * A universe as a picture: its 512 slots in rows, with what stands there. A fixture is told from its neighbours by its
 * letters and its tint; a clash has a cross, what is free is empty. A fixture is dragged to another slot.
 */
final class UniversePicture extends GridPane {
    private static final int COLUMNS = 32;
    private static final double CELL = 17;
    private static final double HEAD = 30;

    /** What the hand does here. */
    interface Hand {
        void chosen(int slot);

        void moved(Fixture fixture, int by);
    }

    private final Hand hand;
    private final List<Label> cells = new ArrayList<>();
    private Universes universes = new Universes(List.of(), Map.of());
    private int universe;
    private int slot = 1;
    private int grabbed;

    UniversePicture(Hand hand) {
        this.hand = hand;
        setId("universe");
        getStyleClass().add("universe");
        setFocusTraversable(true);
        setAccessibleText("Slots of the universe; arrow keys move between them");
        for (int row = 0; row * COLUMNS < Universes.SLOTS; row++) {
            Label from = Styles.label(String.valueOf(row * COLUMNS + 1), "slot-head");
            from.setMinWidth(HEAD);
            add(from, 0, row);
        }
        for (int i = 0; i < Universes.SLOTS; i++) {
            Label cell = new Label();
            cell.setMinSize(CELL, CELL);
            cell.setMaxSize(CELL, CELL);
            cell.setTextOverrun(OverrunStyle.CLIP);
            cell.setId("slot-" + (i + 1));
            int at = i + 1;
            cell.setOnMousePressed(e -> pressed(at, e));
            cell.setOnMouseReleased(this::released);
            cells.add(cell);
            add(cell, 1 + i % COLUMNS, i / COLUMNS);
        }
        setOnKeyPressed(this::key);
    }

    private void pressed(int at, MouseEvent e) {
        requestFocus();
        grabbed = at;
        choose(at);
        e.consume();
    }

    private void released(MouseEvent e) {
        if (e.isStillSincePress()) {
            return; // It was a click, whatever stands under the hand by now.
        }
        Node under = e.getPickResult().getIntersectedNode();
        while (under != null && !(under instanceof Label)) {
            under = under.getParent();
        }
        int to = under instanceof Label label ? cells.indexOf(label) + 1 : 0;
        int by = to - grabbed;
        List<Fixture> there = universes.at(universe, grabbed);
        if (to > 0 && by != 0 && !there.isEmpty() && there.getFirst().slot() + by >= 1) {
            hand.moved(there.getFirst(), by);
        }
    }

    private void choose(int at) {
        slot = Math.clamp(at, 1, Universes.SLOTS);
        hand.chosen(slot);
        show(universes, universe, slot);
    }

    private void key(KeyEvent e) {
        switch (e.getCode()) {
            case LEFT -> choose(slot - 1);
            case RIGHT -> choose(slot + 1);
            case UP -> choose(slot - COLUMNS);
            case DOWN -> choose(slot + COLUMNS);
            default -> {
                return;
            }
        }
        e.consume();
    }

    /** @param at the slot that is chosen; 0 for none */
    void show(Universes all, int number, int at) {
        universes = all;
        universe = number;
        slot = at == 0 ? slot : at;
        List<Fixture> chosen = at == 0 ? List.of() : all.at(number, at);
        List<Fixture> before = List.of();
        boolean odd = false;
        for (int i = 1; i <= Universes.SLOTS; i++) {
            List<Fixture> there = all.at(number, i);
            boolean first = !there.equals(before);
            odd = first ? !odd : odd;
            before = there;
            Label cell = cells.get(i - 1);
            String look = there.isEmpty() ? "free" : there.size() > 1 ? "clash" : odd ? "odd" : "even";
            boolean on = i == at || !there.isEmpty() && there.stream().anyMatch(chosen::contains);
            Styles.set(cell, on
                    ? new String[]{"label", "slot", look, "on"}
                    : new String[]{"label", "slot", look});
            Styles.text(cell,
                    there.size() > 1
                            ? "×"
                            : there.isEmpty() || !first
                                    ? ""
                                    : letters(i < Universes.SLOTS && all.at(number, i + 1).equals(there) ? 2 : 1,
                                            there.getFirst().name()));
        }
    }

    /** The first letters of its words, as many as there is room for. */
    private static String letters(int most, String name) {
        String[] words = name.strip().split("\\s+");
        String all = words.length == 1
                ? words[0].substring(0, Math.min(2, words[0].length()))
                : List.of(words).stream().map(w -> w.substring(0, 1)).collect(Collectors.joining());
        return all.substring(0, Math.min(most, all.length())).toUpperCase(Locale.ROOT);
    }
}
