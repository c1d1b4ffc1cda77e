package rombix.core.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.check.Finding.Kind;
import rombix.core.computer.Place;
import rombix.core.computer.Power;
import rombix.core.find.Nearest;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Checks what steps send: values that the card doesn't accept, and triggers that fire each other. */
final class OutgoingChecks {
    private final Rig rig;
    private final CheckContext context;
    private final List<Finding> findings = new ArrayList<>();
    /** The readings, {@code gear:reading}, that each button's steps set. */
    private final Map<String, Set<String>> sets = new HashMap<>();

    private OutgoingChecks(Rig rig, CheckContext context) {
        this.rig = rig;
        this.context = context;
    }

    static List<Finding> of(Rig rig, CheckContext context) {
        OutgoingChecks sent = new OutgoingChecks(rig, context);
        Walk.steps(rig.board(), sent::step);
        Walk.steps(rig.board(), sent::arguments);
        sent.rounds();
        return sent.findings;
    }

    private void step(Walk.Spot spot) {
        if (spot.step() instanceof GearStep.Do step && !step.how().off()) {
            Twin twin = rig.twins().get(step.gear());
            Command command = twin == null ? null : twin.card().command(step.command()).orElse(null);
            if (twin != null && command != null) {
                checkGlobalKeys(spot, twin, command, step);
                Map<String, Value> with = new LinkedHashMap<>();
                step.args().forEach((id, arg) -> {
                    if (arg instanceof Arg.Constant c) {
                        with.put(id, c.value());
                        command.param(id).ifPresent(p -> range(spot, p, c.value().asNumber()));
                    }
                });
                Button button = spot.owner().button();
                if (button != null) {
                    sets.computeIfAbsent(button.id(), _ -> new HashSet<>()).addAll(changes(twin, command, with));
                }
            }
        }
    }

    /** Keys that a step sends and a trigger waits for everywhere. */
    private void checkGlobalKeys(Walk.Spot spot, Twin twin, Command command, GearStep.Do step) {
        boolean keys = command.send().getOrDefault(twin.protocol(), List.of()).stream().anyMatch(p -> twin.protocol()
                .descriptor().power(p.to().toString()) == Power.KEYS);
        for (Param p : keys ? command.params() : List.<Param>of()) {
            if (p.type() == ValueType.KEYS && step.args().get(p.id()) instanceof Arg.Constant c) {
                Set<String> sent = parts(c.value().toString());
                rig.board().buttons().forEach(b -> b.triggers().forEach(t -> {
                    if (t instanceof Trigger.Key k && k.everywhere() && parts(k.key()).equals(sent)) {
                        findings.add(Finding.of(Kind.TAKEN, spot.owner(), spot.pointer(),
                                ("sends “%s”, the shortcut of “%s”. Rombix ignores keys that it sends itself, so use that button in a step instead")
                                        .formatted(c.value(), b.name())));
                    }
                }));
            }
        }
    }

    private static Set<String> parts(String chord) {
        return Arrays.stream(chord.toUpperCase(Locale.ROOT).split("\\+")).map(String::strip).collect(Collectors
                .toSet());
    }

    private void range(Walk.Spot spot, Param p, double value) {
        Double least = p.min();
        Double most = p.max();
        if (least != null && value < least) {
            outOfRange(spot, p, value, "at least ", least);
        } else if (most != null && value > most) {
            outOfRange(spot, p, value, "at most ", most);
        }
    }

    private void outOfRange(Walk.Spot spot, Param p, double value, String bound, double sent) {
        findings.add(Finding.of(Kind.OUT_OF_RANGE, spot.owner(), spot.pointer(),
                "“%s” is %s, but the gear accepts %s%s, which is sent instead".formatted(p.label(),
                        Figures.withUnit(value,
                                p.unit(), p.step()),
                        bound, Figures.withUnit(sent, p.unit(), p.step()))));
    }

    private static Set<String> changes(Twin twin, Command command, Map<String, Value> with) {
        try {
            Set<String> all = new HashSet<>();
            twin.order(command, with, Twin.Readings.NONE).changes().keySet()
                    .forEach(r -> all.add(twin.gear() + ":" + r));
            return all;
        } catch (IllegalArgumentException e) {
            return Set.of(); // Computed, or not known before the gear has told its lists.
        }
    }

    /** Triggers by readings whose chains set the readings of each other, in a round. */
    private void rounds() {
        Map<String, Set<String>> fires = new LinkedHashMap<>();
        Map<String, Set<String>> awaited = new HashMap<>();
        rig.board().buttons().forEach(b -> b.triggers().forEach(t -> {
            if (t instanceof Trigger.Becomes becomes) {
                Set<String> of = awaited.computeIfAbsent(b.id(), _ -> new HashSet<>());
                Condition.readings(becomes.condition()).forEach(r -> of.add(r.name()));
            }
        }));
        awaited.keySet().forEach(from -> {
            Set<String> set = sets.getOrDefault(from, Set.of());
            awaited.forEach((to, readings) -> {
                if (!from.equals(to) && readings.stream().anyMatch(set::contains)) {
                    fires.computeIfAbsent(from, _ -> new LinkedHashSet<>()).add(to);
                }
            });
        });
        for (String from : fires.keySet()) {
            Set<String> reached = new LinkedHashSet<>();
            List<String> open = new ArrayList<>(fires.get(from));
            while (!open.isEmpty()) {
                String next = open.removeLast();
                if (reached.add(next)) {
                    open.addAll(fires.getOrDefault(next, Set.of()));
                }
            }
            if (reached.contains(from)) {
                rig.button(
                        from).ifPresent(
                                b -> findings.add(new Finding(Kind.ENDLESS_LOOP, pointer(from), "“" + b.name()
                                        + "”",
                                        "its trigger and those of "
                                                + String.join(", ", reached.stream().filter(x -> !x.equals(
                                                        from))
                                                        .map(x -> "“" + rig.button(x).map(Button::name).orElse(x) + "”")
                                                        .toList())
                                                + " trigger each other: each sets the reading that the next one waits for",
                                        from)));
            }
        }
    }

    private String pointer(String button) {
        for (int p = 0; p < rig.board().pages().size(); p++) {
            for (int b = 0; b < rig.board().pages().get(p).buttons().size(); b++) {
                if (rig.board().pages().get(p).buttons().get(b).id().equals(button)) {
                    return "/pages/%d/buttons/%d/triggers".formatted(p, b);
                }
            }
        }
        return "";
    }

    /** Pictures that places name, and choices among what the gear lists. */
    private void arguments(Walk.Spot spot) {
        if (!(spot.step() instanceof GearStep.Do d) || d.how().off()) {
            return;
        }
        Twin twin = rig.twins().get(d.gear());
        Command command = twin == null ? null : twin.card().command(d.command()).orElse(null);
        if (twin == null || command == null) {
            return;
        }
        d.args().forEach((id, arg) -> {
            Param param = command.param(id).orElse(null);
            String wrong = param == null || !(arg instanceof Arg.Constant c)
                    ? null
                    : switch (param.type()) {
                        case PLACE -> picture(c.value().toString());
                        case CHOICE -> choice(twin, param, c.value().toString());
                        default -> null;
                    };
            if (wrong != null) {
                findings.add(Finding.of(Kind.DEAD_REFERENCE, spot.owner(), spot.pointer() + "/with/" + id, wrong));
            }
        });
    }

    private @Nullable String picture(String place) {
        String seen = Place.parse(place).map(Place::seen).orElse(null);
        return seen == null || rig.board().picture(seen).isPresent()
                ? null
                : "its place uses the picture “%s”, which isn't on this board; capture it again".formatted(
                        seen);
    }

    private @Nullable String choice(Twin twin, Param param, String value) {
        List<String> ids = twin.items(param.list(), context.readings(twin.gear())).stream().map(Card.Item::id).toList();
        return twin.fixed(param.list()) || ids.isEmpty() || ids.contains(value) || value.isEmpty()
                ? null
                : "%s has no %s “%s”; %s".formatted(twin.title(), param.label(), value, Nearest.words(value, ids));
    }
}
