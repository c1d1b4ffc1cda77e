package rombix.core.trust;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.board.Walk;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Undo;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.value.WireValue;
import rombix.core.chain.Arg;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Power;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Outline;
import rombix.core.twin.Twin;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/**
 * What a board has this computer do: by its steps, and by what its cards send without a step (what puts a reading back
 * or brings a level somewhere, opposites, what a card holds ready). Pure.
 */
final class ComputerUse {
    private static final Map<String, Card> SHIPPED = CardLibrary.shipped();

    private final Rig rig;
    private final Board board;
    private final List<Use> all = new ArrayList<>();
    /** Readings that a control of the board moves, or that something puts back: their gear, and where they stand. */
    private final Map<String, Set<Template>> putBack = new HashMap<>();
    private final Map<String, Set<String>> moved = new HashMap<>();

    /**
     * One use of one power.
     *
     * @param step the step that it is for; null where the card brings it along
     * @param owner what brings it: a button, the board's chains, or a gear
     * @param words what is done
     * @param inFull whether it is asked for by itself, with all that goes out
     * @param asked whether its owner is asked; else it goes with what was asked for, or with a hand at the rack
     * @param outline what goes out
     */
    record Use(@Nullable Step step, String gear, String owner, Power power, String words, boolean inFull,
            boolean asked, Outline outline) {
    }

    private ComputerUse(Rig rig) {
        this.rig = rig;
        this.board = rig.board();
    }

    /** Whether a gear is this computer, and not a stand-in of one. */
    static boolean here(Gear gear) {
        return gear.link().protocol().descriptor().reach() == Reach.HERE && !gear.link().address().contains(":");
    }

    /** Whether a card is not one that ships with Rombix: its titles may say anything. */
    static boolean foreign(@Nullable Card card) {
        return card != null && !card.equals(SHIPPED.get(card.id()));
    }

    /** All of a board. */
    static List<Use> of(Rig rig) {
        ComputerUse uses = new ComputerUse(rig);
        boolean[] putsBack = new boolean[1];
        Walk.steps(uses.board, spot -> putsBack[0] |= spot.step() instanceof Step.ForAWhile);
        uses.board.buttons().forEach(b -> {
            if (b.control() != null) {
                b.control().axes().forEach(a -> uses.moved.computeIfAbsent(a.gear(), _ -> new HashSet<>()).add(a
                        .reading()));
            }
        });
        Walk.steps(uses.board, spot -> uses.step(spot, putsBack[0]));
        uses.board.gear().forEach(uses::card);
        return uses.all;
    }

    private @Nullable Twin twin(@Nullable String gear) {
        Twin twin = gear == null ? null : rig.twins().get(gear);
        return twin != null && twin.protocol().descriptor().reach() == Reach.HERE ? twin : null;
    }

    private void step(Walk.Spot spot, boolean putsBack) {
        if (!(spot.step() instanceof GearStep step)) {
            return;
        }
        Twin twin = twin(step.gear());
        Command command = twin == null ? null : twin.card().command(step.command()).orElse(null);
        if (twin == null || command == null) {
            return;
        }
        Map<String, Optional<Value>> given = new LinkedHashMap<>();
        step.args().forEach((id, arg) -> given.put(id, arg instanceof Arg.Constant c
                ? Optional.of(c.value())
                : Optional.empty()));
        if (step instanceof GearStep.Fade f) {
            given.put(f.param(), Optional.empty());
        } else if (step instanceof GearStep.Nudge n) {
            given.put(n.param(), Optional.empty());
        }
        String owner = spot.owner().button() == null ? "chains" : spot.owner().button().name();
        String title = new StepWords(rig, _ -> _ -> null).of(step);
        add(new Sent(twin, command, given, step.args()), step, owner, title, true);
        if (putsBack) {
            command.changes().forEach(c -> putBack.computeIfAbsent(twin.gear(), _ -> new HashSet<>()).add(c
                    .reading()));
        }
        if (command.undo() != null) {
            undo(twin, command.undo(), given);
        }
    }

    /** A command with what is known of its arguments, and as its step writes them. */
    private record Sent(Twin twin, Command command, Map<String, Optional<Value>> given, Map<String, Arg> with) {
        private boolean looks() {
            return command.params().stream().anyMatch(p -> p.type() == ValueType.PLACE && ComputerUse.looks(with.get(p
                    .id())));
        }
    }

    /** Whether a place is where a picture is found, or may be. */
    private static boolean looks(@Nullable Arg place) {
        return place instanceof Arg.Computed || place != null && place.shown().toString().startsWith("picture ");
    }

    private void add(Sent sent, @Nullable Step step, String owner, String title, boolean asked) {
        Twin twin = sent.twin();
        for (Outline outline : Outline.of(twin, sent.command(), sent.given())) {
            String to = outline.to().toString();
            Power power = twin.protocol().descriptor().power(to);
            if (power == null) {
                continue;
            }
            boolean inFull = twin.protocol().descriptor().askedInFull(to);
            String carried = outline.words(unknown(sent));
            String words = inFull
                    ? power == Power.KEYS ? "the secret “" + carried + "”" : carried
                    : foreign(rig.cards().get(gearCard(twin)))
                            ? title + " (" + (to + " " + carried).strip() + ")"
                            : title;
            all.add(new Use(step, twin.gear(), owner, power, words, inFull, asked, outline));
            if (sent.looks() && power != Power.SCREEN) {
                all.add(new Use(step, twin.gear(), owner, Power.SCREEN, title, false, asked, outline));
            }
        }
    }

    private String gearCard(Twin twin) {
        return board.gear(twin.gear()).map(Gear::card).orElse("");
    }

    private static String unknown(Sent sent) {
        List<String> formulas = sent.with().values().stream().filter(a -> a instanceof Arg.Computed).map(a -> a.shown()
                .toString()).toList();
        return formulas.size() == 1 ? formulas.getFirst() : "…";
    }

    /** What a card sends though no step says so. */
    private void card(Gear gear) {
        Twin twin = twin(gear.id());
        if (twin == null) {
            return;
        }
        boolean foreign = foreign(rig.cards().get(gear.card()));
        for (Command command : twin.card().commands()) {
            String title = twin.spokenTitle(command, Map.of(), Twin.Readings.NONE);
            for (var change : command.changes()) {
                String moving = change.to() instanceof WireValue.Filled f
                        ? f.template().solePlace().orElse(null)
                        : null;
                Map<String, Optional<Value>> given = new LinkedHashMap<>();
                change.reading().places().forEach(p -> given.put(p, Optional.empty()));
                if (moving != null) {
                    given.put(moving, Optional.empty());
                }
                if (command.params().stream().allMatch(p -> p.preset() != null || given.containsKey(p.id()))) {
                    add(new Sent(twin, command, given, Map.of()), null, gear.name(), title, foreign || moves(gear,
                            change.reading()));
                }
            }
            if (foreign) {
                if (command.undo() != null) {
                    Map<String, Optional<Value>> open = new TreeMap<>();
                    command.params().forEach(p -> open.put(p.id(), Optional.empty()));
                    undo(twin, command.undo(), open);
                }
                constants(twin, command, gear.name(), title);
            }
        }
    }

    private boolean moves(Gear gear, Template reading) {
        return putBack.getOrDefault(gear.id(), Set.of()).contains(reading) || moved.getOrDefault(gear.id(), Set.of())
                .stream().anyMatch(r -> reading.match(r).isPresent());
    }

    /** The constants that a command sends: the owner who makes a step of it later doesn't see them there. */
    private void constants(Twin twin, Command command, String owner, String title) {
        Map<String, Optional<Value>> open = new TreeMap<>();
        command.params().forEach(p -> open.put(p.id(), Optional.empty()));
        if (Outline.of(twin, command, open).stream().anyMatch(Outline::says)) {
            add(new Sent(twin, command, open, Map.of()), null, owner, title, true);
        }
    }

    private void undo(Twin twin, Undo undo, Map<String, Optional<Value>> of) {
        Command back = twin.card().command(undo.command()).orElse(null);
        if (back == null) {
            return;
        }
        Map<String, Optional<Value>> given = new LinkedHashMap<>();
        undo.with().forEach((id, carry) -> given.put(id, switch (carry) {
            case WireValue.Fixed f when !f.value().toString().equals("before") -> Optional.of(f.value());
            case WireValue.Filled f -> f.template().solePlace().map(p -> of.getOrDefault(p, Optional.empty())).orElse(
                    Optional.empty());
            default -> Optional.empty();
        }));
        add(new Sent(twin, back, given, Map.of()), null, twin.title(), twin.spokenTitle(back, Map.of(),
                Twin.Readings.NONE), foreign(rig.cards().get(gearCard(twin))));
    }

    /** Those of some uses that have to do with what the owner reaches at this computer, not elsewhere. */
    static List<Use> here(Rig rig, Collection<String> elsewhere) {
        return of(rig).stream().filter(u -> !elsewhere.contains(u.gear()) && rig.board().gear(u.gear()).filter(
                ComputerUse::here).isPresent()).toList();
    }
}
