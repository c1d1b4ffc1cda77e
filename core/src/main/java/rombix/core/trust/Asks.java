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
import rombix.core.board.MessageTrigger;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.card.Card;
import rombix.core.card.Protocol.Reach;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Power;
import rombix.core.store.Fingerprint;
import rombix.core.trust.Ask.Kind;

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
                    "after a crash, ends at the next opening what was held or running"));
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

    /** The powers that a press on a button can want of this computer, and what its cards may do along with it. */
    public static Set<Power> powers(Rig rig, Button button, Collection<String> elsewhere) {
        List<Object> used = used(rig, button);
        Set<Step> steps = Collections.newSetFromMap(new IdentityHashMap<>());
        Walk.steps(rig.board(), spot -> {
            Walk.Owner owner = spot.owner();
            if (used.stream()
                    .anyMatch(u -> u == owner.button() || u instanceof Board.NamedChain c && c.id().equals(owner
                            .chain()))) {
                steps.add(spot.step());
            }
        });
        Set<Power> all = new TreeSet<>();
        ComputerUse.here(rig, elsewhere).stream()
                .filter(u -> u.asked() && (u.step() == null || steps.contains(u.step())))
                .forEach(u -> all.add(u.power()));
        return all;
    }

    /** Whether any step types into whatever program is in front: keys, with no application named to get them. */
    public static boolean typesInFront(Rig rig) {
        return ComputerUse.here(rig, Set.of()).stream().anyMatch(u -> u.power() == Power.KEYS && u
                .step() instanceof GearStep.Do d && !named(d.args().get("to")));
    }

    private static boolean named(@Nullable Arg application) {
        return application != null && !application.shown().toString().isBlank();
    }

    private void add(Ask ask) {
        found.putIfAbsent(ask.key(), ask);
    }

    /**
     * The powers that the board uses. A program, a file, a page or a secret is asked for by itself; of the rest a power
     * with all that uses it, so that what changes is asked for anew. The keys cover what goes out.
     */
    private void powers(Collection<String> elsewhere) {
        Map<Power, List<ComputerUse.Use>> wanted = new TreeMap<>();
        for (ComputerUse.Use use : ComputerUse.here(rig, elsewhere)) {
            if (use.asked() && use.inFull()) {
                add(new Ask(Kind.WORKS_HERE, "power " + use.power().id() + " " + Fingerprint.of(use.outline()), use
                        .owner(), use.power().words() + ": " + use.words()));
            } else if (use.asked()) {
                List<ComputerUse.Use> same = wanted.computeIfAbsent(use.power(), _ -> new ArrayList<>());
                if (use.step() != null || same.stream().noneMatch(u -> u.outline().equals(use.outline()))) {
                    same.add(use); // What a step says already isn't said of its card again.
                }
            }
        }
        wanted.forEach((power, all) -> {
            String key = "power " + power.id() + " "
                    + Fingerprint.of(all.stream().map(ComputerUse.Use::outline).toList());
            all.stream().collect(Collectors.groupingBy(ComputerUse.Use::owner, LinkedHashMap::new, Collectors.mapping(
                    ComputerUse.Use::words, Collectors.joining(", "))))
                    .forEach((owner, words) -> found.put(key + " " + owner,
                            new Ask(Kind.WORKS_HERE, key, owner, power.words() + ": " + words)));
        });
    }

    private void reaches(Gear gear) {
        Gear.Link link = gear.link();
        String over = link.protocol().title();
        String card = card(gear);
        if (ComputerUse.here(gear)) {
            add(new Ask(Kind.WORKS_HERE, "here " + link.protocol().id() + " " + card, gear.name(),
                    works(gear.id())
                            ? "controls this computer and sees which window is in front"
                            : "sees which window is in front"));
            return;
        }
        if (link.address().isBlank()) {
            return;
        }
        StringBuilder key = new StringBuilder("reaches ").append(link.protocol().id()).append(' ').append(link.address()
                .toLowerCase(Locale.ROOT)).append(" as ").append(link.user() == null ? "" : link.user()).append(
                        " card ")
                .append(card);
        StringBuilder words = new StringBuilder(link.protocol().descriptor().reach() == Reach.PORT
                ? "at the " + link.protocol().descriptor().portWord() + " “" + link.address() + "”, over " + over
                : "at " + withoutUser(link.address()) + ", over " + over);
        if (link.tls() != null) {
            key.append(" tls ").append(link.tls().trust().name().toLowerCase(Locale.ROOT));
            if (link.tls().certificate() != null) {
                key.append(' ').append(Fingerprint.of(link.tls().certificate().getBytes(StandardCharsets.UTF_8)));
            }
            words.append(" with TLS");
            if (link.tls().client() != null) {
                key.append(" client ").append(link.tls().client());
                words.append(" and the client certificate “").append(link.tls().client()).append("”");
            }
        }
        if (link.user() != null) {
            words.append(", as “").append(link.user()).append("”");
        }
        if (link.secret() != null) {
            key.append(" secret ").append(link.secret());
            words.append("; receives the secret “").append(link.secret()).append("”");
        }
        add(new Ask(Kind.REACHES, key.toString(), gear.name(), words.toString()));
    }

    /**
     * What a gear's card can send: the id of one that ships, else all that it says. A card is data of the board, so what
     * it sends is as much the board's as its steps are.
     */
    private String card(Gear gear) {
        Card card = rig.cards().get(gear.card());
        Object says = card == null || !ComputerUse.foreign(card)
                ? gear.card()
                : List.of(card.greeting(), card.polls(), card.commands().stream().map(Card.Command::send).toList(),
                        card.settings());
        return says instanceof String id && gear.link().settings().isEmpty()
                ? id
                : Fingerprint.of(List.of(says, new TreeMap<>(gear.link().settings())));
    }

    private static String withoutUser(String address) {
        int at = address.lastIndexOf('@');
        return at < 0 ? address : "…" + address.substring(at);
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
                        "presses buttons, and shows them with its LEDs"));
                case Trigger.Gamepad g -> add(new Ask(Kind.HEARS, "hears gamepad " + g.device(), g.device(),
                        "presses buttons, also while another program is in front"));
                case Trigger.Osc _ -> add(new Ask(Kind.HEARS, "hears osc " + board.listensAt(), "OSC messages",
                        "from programs on this computer, at port " + board.listensAt()));
                case Trigger.Key k when k.everywhere() -> add(new Ask(Kind.HEARS, "hears key " + k.normal().key(), k
                        .key(), "presses “" + b.name() + "”, also while another program is in front"));
                case MessageTrigger.Mqtt m ->
                    add(new Ask(Kind.HEARS, "hears topic " + m.gear() + " " + m.topic(), m.topic(),
                            "presses “%s” when a message comes by “%s”".formatted(b.name(), board.gear(m.gear()).map(
                                    Gear::name).orElse(m.gear()))));
                case Trigger.Key _,MessageTrigger.Http _,Trigger.Clock _,Trigger.Becomes _,Trigger.When _ -> {
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
                + (works.isEmpty() ? "" : ": controls " + String.join(", ", works))));
    }

    private String when(Trigger trigger) {
        return switch (trigger) {
            case Trigger.Becomes b when Condition.readings(b.condition()).isEmpty() -> "when a condition is true";
            case Trigger.Becomes b -> "when " + Condition.readings(b.condition()).stream().map(r -> "%s says so (%s)"
                    .formatted(board.gear(r.gear()).map(Gear::name).orElse(r.gear()), r.reading())).collect(Collectors
                            .joining(", "));
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
