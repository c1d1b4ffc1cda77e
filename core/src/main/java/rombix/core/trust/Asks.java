package rombix.core.trust;

import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Twin;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Power;
import rombix.core.store.Fingerprint;
import rombix.core.trust.Ask.Kind;
import rombix.core.value.ValueType;

/** What a board asks of this computer and of what can be reached from it. Pure; safe to use from any thread. */
public final class Asks {
    private final Rig rig;
    private final Board board;
    private final Map<String, Ask> found = new LinkedHashMap<>();

    private Asks(Rig rig) {
        this.rig = rig;
        this.board = rig.board();
    }

    /**
     * All that a board asks for, each once, by kind.
     *
     * @param elsewhere the ids of gear that the owner has reached at another address than the board's: leave was given
     *        with that
     */
    public static List<Ask> of(Rig rig, Collection<String> elsewhere) {
        Asks asks = new Asks(rig);
        asks.board.gear().stream().filter(g -> !elsewhere.contains(g.id())).forEach(asks::reaches);
        asks.powers(elsewhere);
        asks.hears();
        asks.board.buttons().forEach(asks::byItself);
        if (asks.board.afterCrash() == Board.AfterCrash.ALWAYS) {
            asks.add(new Ask(Kind.BY_ITSELF, "by itself after a crash", "The board",
                    "ends what was held or ran when Rombix was killed, when it is opened"));
        }
        return asks.found.values().stream().sorted(Comparator.comparing(Ask::kind)).toList();
    }

    /** The gear that a press on a button can work, by id: its own, and that of all buttons and chains that it uses. */
    public static Set<String> gear(Rig rig, Button button) {
        Set<String> all = new LinkedHashSet<>();
        for (Object used : used(rig, button)) {
            if (used instanceof Button b) {
                all.addAll(b.gear());
            } else if (used instanceof Board.NamedChain c) {
                c.chain().gear(all);
            }
        }
        return all;
    }

    /** The powers that a press on a button can want of this computer. */
    public static Set<Power> powers(Rig rig, Button button, Collection<String> elsewhere) {
        Asks asks = new Asks(rig);
        List<Object> used = used(rig, button);
        Set<Power> all = new TreeSet<>();
        Walk.steps(rig.board(), spot -> {
            Walk.Owner owner = spot.owner();
            if (used.stream()
                    .anyMatch(u -> u == owner.button() || u instanceof Board.NamedChain c && c.id().equals(owner
                            .chain()))) {
                asks.wants("", spot.step(), elsewhere).forEach(w -> all.add(w.power()));
            }
        });
        return all;
    }

    /** Whether any step types into whatever program is in front: keys, with no application named to get them. */
    public static boolean typesInFront(Rig rig) {
        Asks asks = new Asks(rig);
        boolean[] types = new boolean[1];
        Walk.steps(rig.board(), spot -> types[0] |= spot.step() instanceof GearStep.Do d && !named(d.with().get("to"))
                && asks.wants("", d, Set.of()).stream().anyMatch(w -> w.power() == Power.KEYS));
        return types[0];
    }

    private static boolean named(@Nullable Arg application) {
        return application != null && !application.shown().toString().isBlank();
    }

    private void add(Ask ask) {
        found.putIfAbsent(ask.key(), ask);
    }

    /** Whether it is this computer, and not a stand-in of one. */
    private static boolean here(Gear gear) {
        return gear.link().protocol().descriptor().reach() == Reach.HERE && !gear.link().address().contains(":");
    }

    /**
     * The powers that steps want. A program, a file, a page or a secret is asked for by itself; of the rest a power with all steps
     * that want it, so that a step that changes is asked for anew.
     */
    private void powers(Collection<String> elsewhere) {
        Map<Power, List<Wants>> wanted = new TreeMap<>();
        Walk.steps(board, spot -> {
            String owner = spot.owner().button() == null ? "chains" : spot.owner().button().name();
            for (Wants wants : wants(owner, spot.step(), elsewhere)) {
                if (wants.alone()) {
                    add(new Ask(Kind.WORKS_HERE, "power " + wants.power().id() + " " + Fingerprint.of(wants.what()),
                            owner, wants.power().words() + ": " + wants.words()));
                } else {
                    wanted.computeIfAbsent(wants.power(), _ -> new ArrayList<>()).add(wants);
                }
            }
        });
        wanted.forEach((power, all) -> {
            String key = "power " + power.id() + " " + Fingerprint.of(all.stream().map(Wants::what).toList());
            all.stream().collect(Collectors.groupingBy(Wants::owner, LinkedHashMap::new, Collectors.mapping(
                    Wants::words, Collectors.joining(", ")))).forEach((owner, words) -> found.put(key + " " + owner,
                            new Ask(Kind.WORKS_HERE, key, owner, power.words() + ": " + words)));
        });
    }

    /** What a step wants of this computer. @param alone whether it is asked for by itself */
    private record Wants(String owner, Power power, String words, Object what, boolean alone) {
    }

    private List<Wants> wants(String owner, Step step, Collection<String> elsewhere) {
        String id = step instanceof GearStep.Do d
                ? d.gear()
                : step instanceof GearStep.Fade f
                        ? f.gear()
                        : step instanceof GearStep.Nudge n ? n.gear() : null;
        Gear gear = id == null || elsewhere.contains(id) ? null : board.gear(id).orElse(null);
        Twin twin = gear == null || !here(gear) ? null : rig.twins().get(id);
        if (twin == null) {
            return List.of();
        }
        String name = step instanceof GearStep.Do d
                ? d.command()
                : step instanceof GearStep.Fade f
                        ? f.command()
                        : ((GearStep.Nudge) step).command();
        Card.Command command = twin.card().command(name).orElse(null);
        if (command == null) {
            return List.of();
        }
        Map<Power, Boolean> powers = new TreeMap<>(); // With whether it is asked for in full, as the message says.
        for (Packet packet : command.send().getOrDefault(twin.protocol(), List.of())) {
            String to = packet.to().toString();
            Power power = twin.protocol().descriptor().power(to);
            if (power != null) {
                powers.merge(power, twin.protocol().descriptor().askedInFull(to), Boolean::logicalOr);
            }
        }
        if (step instanceof GearStep.Do d && command.params().stream().anyMatch(p -> p.type() == ValueType.PLACE
                && looks(d.with().get(p.id())))) {
            powers.putIfAbsent(Power.SCREEN, false);
        }
        Object what = step instanceof GearStep.Do d ? List.of(d.command(), new TreeMap<>(d.with())) : step;
        List<Wants> all = new ArrayList<>();
        powers.forEach((power, inFull) -> all.add(new Wants(owner, power, !inFull
                ? new StepWords(rig, _ -> _ -> null).of(step)
                : power == Power.KEYS ? "the secret “" + whole(twin, step) + "”" : whole(twin, step), what, inFull)));
        return all;
    }

    /** Whether a place is where a picture is found, or may be. */
    private static boolean looks(@Nullable Arg place) {
        return place instanceof Arg.Computed || place != null && place.shown().toString().startsWith("picture ");
    }

    /** What is run or opened, in full: its name alone would not say which it is. */
    private static String whole(Twin twin, Step step) {
        return step instanceof GearStep.Do d
                ? twin.card().command(d.command()).map(c -> c.params().stream().filter(p -> p.type() == ValueType.PATH
                        || p.type() == ValueType.TEXT || p.type() == ValueType.SECRET)
                        .map(p -> d.with().containsKey(p.id())
                                ? d.with().get(p.id()).shown().toString()
                                : "")
                        .filter(v -> !v.isBlank()).collect(Collectors.joining(" "))).orElse(d.command())
                : step.toString();
    }

    private void reaches(Gear gear) {
        Gear.Link link = gear.link();
        String over = link.protocol().title();
        if (here(gear)) {
            String card = Fingerprint.of(rig.cards().get(gear.card()) == null
                    ? gear.card()
                    : rig.cards().get(gear
                            .card()));
            add(new Ask(Kind.WORKS_HERE, "here " + link.protocol().id() + " " + card, gear.name(),
                    works(gear.id()) ? "works it, and watches what is in front" : "watches what is in front"));
            return;
        }
        if (link.address().isBlank()) {
            return;
        }
        StringBuilder key = new StringBuilder("reaches ").append(link.protocol().id()).append(' ').append(link.address()
                .toLowerCase(Locale.ROOT));
        StringBuilder words = new StringBuilder(link.protocol().descriptor().reach() == Reach.PORT
                ? "at the " + link.protocol().descriptor().portWord() + " “" + link.address() + "”, over " + over
                : "at " + link.address().replaceAll(".*@", "…@") + ", over " + over);
        if (link.tls() != null) {
            key.append(" tls ").append(link.tls().trust().name().toLowerCase(Locale.ROOT));
            if (link.tls().certificate() != null) {
                key.append(' ').append(Fingerprint.of(link.tls().certificate().getBytes(StandardCharsets.UTF_8)));
            }
            words.append(" with TLS");
        }
        if (link.secret() != null) {
            key.append(" secret ").append(link.secret());
            words.append("; it is told the secret “").append(link.secret()).append("”");
        }
        add(new Ask(Kind.REACHES, key.toString(), gear.name(), words.toString()));
    }

    /** Whether any chain commands a gear. */
    private boolean works(String gear) {
        return board.buttons().anyMatch(b -> b.gear().contains(gear)) || board.chains().stream().anyMatch(c -> {
            Set<String> all = new LinkedHashSet<>();
            c.chain().gear(all);
            return all.contains(gear);
        });
    }

    private void hears() {
        board.buttons().forEach(b -> b.triggers().forEach(t -> {
            switch (t) {
                case Trigger.Midi m -> add(new Ask(Kind.HEARS, "hears midi " + m.port(), m.port(),
                        "presses buttons, and is lit by them"));
                case Trigger.Gamepad g -> add(new Ask(Kind.HEARS, "hears gamepad " + g.device(), g.device(),
                        "presses buttons, whatever program is in front"));
                case Trigger.Osc _ -> add(new Ask(Kind.HEARS, "hears osc " + board.listensAt(), "OSC messages",
                        "from programs on this computer, at port " + board.listensAt()));
                case Trigger.Key k when k.everywhere() -> add(new Ask(Kind.HEARS, "hears key " + k.normal().key(), k
                        .key(), "presses “" + b.name() + "” whatever program is in front"));
                case Trigger.Key _,Trigger.Clock _,Trigger.Becomes _,Trigger.When _ -> {
                }
            }
        }));
    }

    private void byItself(Button button) {
        List<Trigger> own = button.triggers().stream().filter(t -> t instanceof Trigger.Clock
                || t instanceof Trigger.Becomes || t instanceof Trigger.When).toList();
        if (own.isEmpty() && button.onStart().isEmpty()) {
            return;
        }
        List<String> when = new ArrayList<>(own.stream().map(this::when).toList());
        if (!button.onStart().isEmpty()) {
            when.add("when the board goes live");
        }
        List<Object> what = new ArrayList<>(own);
        what.add(button.onStart());
        for (Object used : used(rig, button)) {
            what.add(used instanceof Button b ? chains(b) : used);
        }
        Set<String> works = new TreeSet<>();
        gear(rig, button).forEach(g -> works.add(board.gear(g).map(Gear::name).orElse(g)));
        add(new Ask(Kind.BY_ITSELF, "by itself " + Fingerprint.of(what), button.name(), String.join(", ", when)
                + (works.isEmpty() ? "" : ": works " + String.join(", ", works))));
    }

    private String when(Trigger trigger) {
        return switch (trigger) {
            case Trigger.Becomes b -> "when %s says so (%s)".formatted(board.gear(b.condition().gear()).map(Gear::name)
                    .orElse(b.condition().gear()), b.condition().reading());
            case Trigger.When w when w.gear() != null -> "when " + board.gear(w.gear()).map(Gear::name).orElse(w.gear())
                    + (w.what() == Trigger.When.What.GEAR_LOST ? " is lost" : " is back");
            case Trigger.When w -> "when " + w.what().words();
            default -> trigger.words();
        };
    }

    /** The chains of a button as such: how it looks is no matter of trust. */
    private static List<Map<String, Chain>> chains(Button button) {
        return button.states().stream().map(s -> {
            Map<String, Chain> on = new TreeMap<>();
            s.on().forEach((gesture, chain) -> on.put(gesture.id(), chain));
            return Map.copyOf(on);
        }).toList();
    }

    /** A button with all buttons and named chains of the board that its chains use, each once. */
    private static List<Object> used(Rig rig, Button button) {
        List<Object> all = new ArrayList<>();
        Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>()); // Chains may be nested deeply.
        Deque<Object> left = new ArrayDeque<>(List.of(button));
        while (!left.isEmpty()) {
            Object next = left.pop();
            if (!seen.add(next)) {
                continue;
            }
            all.add(next);
            if (next instanceof Button b) {
                b.states().forEach(s -> s.on().values().forEach(c -> uses(rig, c, left)));
                uses(rig, b.onStart(), left);
            } else if (next instanceof Board.NamedChain c) {
                uses(rig, c.chain(), left);
            }
        }
        return all;
    }

    private static void uses(Rig rig, @Nullable Chain chain, Deque<Object> to) {
        Deque<Chain> left = new ArrayDeque<>();
        if (chain != null) {
            left.push(chain);
        }
        while (!left.isEmpty()) {
            Chain next = left.pop();
            for (List<Step> steps : List.of(next.steps(), next.always())) {
                for (Step step : steps) {
                    if (step instanceof DeckStep.Use use) {
                        if (use.button() != null) {
                            rig.button(use.button()).ifPresent(to::push);
                        } else if (use.chain() != null) {
                            rig.board().chain(use.chain()).ifPresent(to::push);
                        }
                    }
                    step.inner().forEach(left::push);
                    if (step.how().instead() != null) {
                        left.push(step.how().instead());
                    }
                }
            }
        }
    }
}
