package rombix.app.edit;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card.Item;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.edit.Proposals;
import rombix.core.event.Known;
import rombix.core.forecast.Snapshot;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Pages to start from, made from whatever gear a board has: by what its cards say, not by what it is called. */
public enum Starters {
    /** A button for each scene, playlist and other choice. */
    CHOICES("Scenes and choices"),
    /** A button with two states for each mute, lock and switch. */
    SWITCHES("Mutes and switches"),
    /** Hold to have it the other way: to talk, to mute. */
    HOLDS("Hold to talk, hold to mute"),
    /** Louder and softer, brighter and darker; held, it goes on. */
    LEVELS("Levels up and down"),
    /** Stop all, and for each gear a way back to how it is now. */
    SAFETY("Safety: stop all, restore this moment");

    private static final int COLUMNS = 6;
    private static final int STEPS_OF_A_RANGE = 20;

    private final String title;

    Starters(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }

    /** The board with this page behind the others; as it was where its gear gives nothing for it. */
    public Board added(Rig rig, Known known) {
        List<Button> buttons = buttons(rig, known);
        if (buttons.isEmpty()) {
            return rig.board();
        }
        Board with = Edits.addPage(rig.board(), title.replaceFirst(":.*", ""));
        Page page = with.pages().getLast();
        int max = COLUMNS * Page.MAX_ROWS;
        int columns = buttons.size() > max ? Page.MAX_COLUMNS : COLUMNS;
        int rows = Math.clamp((buttons.size() + columns - 1) / columns, 4, Page.MAX_ROWS);
        with = Edits.resizePage(with, page.id(), columns, rows);
        for (int i = 0; i < Math.min(buttons.size(), columns * rows); i++) {
            Button b = buttons.get(i).withColumn(i % columns).withRow(i / columns);
            with = Edits.addButton(with, page.id(), b.withId(Edits.freshId(with, b.name())));
        }
        return with;
    }

    /** The board with those pages in place of its empty first one; as it was where its gear gives nothing for any. */
    public static Board pages(Rig rig, Known known, List<Starters> wanted) {
        Board board = rig.board();
        for (Starters s : wanted) {
            board = s.added(Rig.of(board, rig.cards()), known);
        }
        return board != rig.board() && board.pages().getFirst().buttons().isEmpty()
                ? Edits.removePage(board, board.pages().getFirst().id())
                : board;
    }

    /** The buttons that it would make, without places yet. */
    List<Button> buttons(Rig rig, Known known) {
        List<Button> all = new ArrayList<>();
        for (Twin twin : rig.twins().values()) {
            Readings now = id -> known.readings().getOrDefault(twin.gear(), Map.of()).get(id);
            switch (this) {
                case CHOICES -> each(twin, now, ValueType.CHOICE, (k, _) -> choices(twin, k, now, all));
                case SWITCHES -> each(twin, now, ValueType.FLAG, (k, v) -> Grab.of(twin, k, v).ifPresent(g -> all.add(g
                        .button("new", g.name(now), 0, 0))));
                case HOLDS -> each(twin, now, ValueType.FLAG, (k, v) -> hold(twin, k, v, now).ifPresent(all::add));
                case LEVELS -> each(twin, now, ValueType.NUMBER, (k, _) -> levels(twin, k, all));
                case SAFETY -> {
                    List<Step> steps = Snapshot.ofGear(rig, known, List.of(twin.gear())).steps();
                    if (!steps.isEmpty()) {
                        all.add(plain(twin.title() + ", as it is now", twin, new Chain(steps)));
                    }
                }
            }
        }
        if (this == SAFETY) {
            Face face = Face.PLAIN.withIcon("mdi2s-stop").withFill(Face.Fill.WINE);
            all.addFirst(
                    button("Stop all", face, Map.of(Gesture.PRESS, Chain.of(new DeckStep.Stop(DeckStep.Stop.What.ALL,
                            null, null, StepOptions.PLAIN, Map.of())))));
        }
        return all;
    }

    private static void each(Twin twin, Readings now, ValueType kind, BiConsumer<Twin.Reading, Value> to) {
        for (Twin.Reading known : twin.readings(now)) {
            if (known.spec().type() == kind) {
                Value value = now.apply(known.id());
                to.accept(known, value == null ? Value.of(false) : value);
            }
        }
    }

    private static void choices(Twin twin, Twin.Reading known, Readings now, List<Button> to) {
        String list = known.spec().choices() == null ? known.id() : known.spec().choices();
        for (Item item : twin.items(list, now)) {
            Grab.of(twin, known, Value.of(item.id())).ifPresent(g -> to.add(g.button("new", g.name(now), 0, 0)));
        }
    }

    private static Optional<Button> hold(Twin twin, Twin.Reading known, Value value, Readings now) {
        Optional<Step> press = Grab.of(twin, known, value).flatMap(Grab::step);
        Optional<Step> release = Grab.of(twin, known, Value.of(!value.asFlag())).flatMap(Grab::step);
        if (press.isEmpty() || release.isEmpty()) {
            return Optional.empty();
        }
        Face face = Grab.of(twin, known, value).orElseThrow().button("new", "", 0, 0).states().getFirst().face();
        String to = twin.spoken(known, Value.of(!value.asFlag()), now).toLowerCase(java.util.Locale.ROOT);
        return Optional.of(button(known.title() + ": hold for " + to, face, Map.of(Gesture.PRESS, Chain.of(press
                .get()), Gesture.RELEASE, Chain.of(release.get()))));
    }

    private static void levels(Twin twin, Twin.Reading known, List<Button> to) {
        Double min = known.spec().min();
        Double max = known.spec().max();
        Twin.Call call = twin.toReach(known.id(), Value.of(0)).orElse(null);
        String param = call == null
                ? null
                : call.command().params().stream().filter(p -> p.type() == ValueType.NUMBER)
                        .findFirst().map(p -> p.id()).orElse(null);
        if (call == null || param == null || min == null || max == null) {
            return;
        }
        Map<String, Arg> with = new java.util.LinkedHashMap<>();
        call.args().forEach((id, v) -> {
            if (!id.equals(param)) {
                with.put(id, Arg.of(v));
            }
        });
        for (int sign : new int[]{1, -1}) {
            double by = sign * (max - min) / STEPS_OF_A_RANGE;
            Chain nudge = Chain.of(new GearStep.Nudge(twin.gear(), call.command().id(), with, param,
                    Arg.of(Math.abs(by) >= 1 ? Math.rint(by) : by), false, StepOptions.PLAIN, Map.of()));
            Face face = Face.PLAIN.withIcon(sign > 0 ? "mdi2c-chevron-up" : "mdi2c-chevron-down").withFill(Proposals
                    .fill(twin.card())).withSecond("{" + twin.gear() + ":" + known.id() + "}");
            to.add(button(known.title() + (sign > 0 ? " up" : " down"), face, Map.of(Gesture.PRESS, nudge,
                    Gesture.HELD, nudge)));
        }
    }

    private static Button plain(String name, Twin twin, Chain press) {
        return button(name, Face.PLAIN.withIcon(twin.card().icon()).withFill(Proposals.fill(twin.card())), Map.of(
                Gesture.PRESS, press));
    }

    private static Button button(String name, Face face, Map<Gesture, Chain> on) {
        State state = new State("on", "on", face, State.STAY, null, new EnumMap<>(on), Map.of());
        return new Button("b", name, 0, 0, 1, 1, Button.Busy.RESTART, List.of(state), Map.of());
    }
}
