package rombix.app.view.button;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.TriggerEdits.Row;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.app.view.form.KeyField;
import rombix.app.view.step.ConditionField;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Schedule;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Led;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.board.Trigger.Midi.Turns;
import rombix.core.board.Trigger.When.What;
import rombix.core.touch.GamepadParts;
import rombix.core.twin.Twin;
import rombix.running.input.Touches;

/** The fields of one trigger, by its kind. */
public final class TriggerForm {
    private static final int MAX_PORT = 65_536;
    private static final int MAX_CHANNEL = 16;
    private static final int MAX_DATA = 127;

    private final Desk desk;
    private final Touches.Sources sources;
    private final Supplier<@Nullable Trigger> now;
    private final Consumer<Trigger> changed;

    /**
     * @param now the trigger as it is: one field may have changed it since another was made
     * @param changed told of it as it is to be
     */
    public TriggerForm(Desk desk, Touches.Sources sources, Supplier<@Nullable Trigger> now, Consumer<Trigger> changed) {
        this.desk = desk;
        this.sources = sources;
        this.now = now;
        this.changed = changed;
    }

    private <T extends Trigger> void change(Class<T> kind, Function<T, Trigger> how) {
        Trigger present = now.get();
        if (kind.isInstance(present)) {
            changed.accept(how.apply(kind.cast(present)));
        }
    }

    private record Named(@Nullable String id, String words) {
    }

    public List<Node> of(Row row) {
        return switch (row.trigger()) {
            case Trigger.Key k -> key(k);
            case Trigger.Midi m -> midi(m, row);
            case Trigger.Gamepad g -> gamepad(g);
            case Trigger.Osc o -> osc(o);
            case MessageTrigger.Http h -> http(h);
            case MessageTrigger.Mqtt m -> mqtt(m);
            case Trigger.Clock c -> clock(c);
            case Trigger.Becomes b -> becomes(b);
            case Trigger.When w -> when(w);
        };
    }

    private List<Node> becomes(Trigger.Becomes b) {
        return List.of(Fields.named("Press when this becomes true", new ConditionField(desk, "trigger-becomes", b
                .condition(), (String) null, t -> {
                    if (t != null) {
                        change(Trigger.Becomes.class, x -> x.withCondition(t));
                    }
                })),
                Fields.check("trigger-each", "Press on every report, even if the value is the same", b.each(),
                        on -> change(Trigger.Becomes.class, x -> x.withEach(on))),
                Fields.help(
                        "In the chain, {says} is the reported text and {part1}, {part2}… are the groups of the pattern."));
    }

    private List<Node> http(MessageTrigger.Http h) {
        return List.of(
                Fields.named("Name",
                        checked("trigger-hook", h.name(), n -> change(MessageTrigger.Http.class, x -> x.withName(n))),
                        "Programs send POST /hook/" + h.name()),
                Fields.named("Values", checked("trigger-hook-values", String.join(
                        ", ", h.values()),
                        v -> change(MessageTrigger.Http.class,
                                x -> x.withValues(Arrays.stream(v.split(",")).map(String::strip).filter(
                                        n -> !n.isEmpty()).toList()))),
                        "Names of values sent with the call, separated by commas; use them in the chain as {name}"),
                Fields
                        .help("The call needs a token for this name: choose Pages in a browser, then Add a program."));
    }

    private List<Node> mqtt(MessageTrigger.Mqtt m) {
        List<Named> gear = desk.bench().rig().twins().values().stream().filter(t -> t.protocol().descriptor().topics())
                .map(t -> new Named(t.gear(), t.title())).toList();
        return List.of(Fields.named("Broker", Fields.choice("trigger-broker", gear, gear.stream().filter(g -> m.gear()
                .equals(g.id())).findFirst().orElse(null), Named::words, g -> change(MessageTrigger.Mqtt.class,
                        x -> x.withGear(Objects.requireNonNull(g.id()))))),
                Fields.named("Topic",
                        checked("trigger-topic", m.topic(),
                                t -> change(MessageTrigger.Mqtt.class, x -> x.withTopic(t))),
                        "+ stands for one level, # for the rest"),
                Fields.named("Message", Fields.text("trigger-topic-text", Objects.requireNonNullElse(m.text(), ""),
                        t -> change(MessageTrigger.Mqtt.class, x -> x.withText(t.isEmpty() ? null : t))),
                        "Only this text presses; empty for any"),
                Fields.help("In the chain, {says} is the text of the message and {topic} its topic."));
    }

    private List<Node> osc(Trigger.Osc o) {
        return List.of(
                Fields.named("Address",
                        checked("trigger-osc", o.address(), a -> change(Trigger.Osc.class, x -> x.withAddress(a))),
                        "Above 0 presses, 0 releases; 0 to 1 moves a fader"),
                Fields.named("Port",
                        Fields.text("trigger-osc-port", String.valueOf(desk.bench().board()
                                .listensAt()), t -> {
                                    int port = (int) Fields.parsed(t, 0);
                                    if (port > 0 && port < MAX_PORT) {
                                        desk.bench().edit("change the OSC port", b -> b.withOscPort(port));
                                    }
                                }),
                        "On 127.0.0.1, for all OSC triggers of this board"));
    }

    private List<Node> gamepad(Trigger.Gamepad g) {
        List<String> devices = new ArrayList<>(sources.gamepads());
        if (!devices.contains(g.device())) {
            devices.add(g.device());
        }
        List<String> parts = new ArrayList<>(GamepadParts.BUTTONS);
        parts.addAll(List.of(GamepadParts.LEFT_STICK, GamepadParts.RIGHT_STICK, GamepadParts.LEFT_TRIGGER,
                GamepadParts.RIGHT_TRIGGER));
        if (!parts.contains(g.part())) {
            parts.add(g.part());
        }
        return List.of(Fields.named("Gamepad", Fields.choice("trigger-gamepad", devices, g.device(), d -> d,
                d -> change(Trigger.Gamepad.class, x -> x.withDevice(d)))), Fields.named("Control",
                        Fields
                                .choice("trigger-part", parts, g.part(), p -> p, p -> change(Trigger.Gamepad.class,
                                        x -> x.withPart(p))),
                        "A stick moves a pad; an analogue trigger moves a fader"));
    }

    private List<Node> key(Trigger.Key k) {
        return List.of(Fields.named("Key", KeyField.of("trigger-key", k.key(), key -> {
            if (!key.isEmpty()) {
                change(Trigger.Key.class, x -> x.withKey(key));
            }
        })), Fields.check("trigger-everywhere", "Also while another application has focus", k.everywhere(),
                on -> change(Trigger.Key.class, x -> x.withEverywhere(on))));
    }

    private List<Node> midi(Trigger.Midi m, Row row) {
        List<Node> nodes = new ArrayList<>();
        List<String> ports = new ArrayList<>(sources.ports());
        if (!ports.contains(m.port())) {
            ports.add(m.port());
        }
        nodes.add(Fields.named("Port", Fields.choice("trigger-port", ports, m.port(), p -> p,
                p -> midi(x -> x.withPort(p)))));
        var message = Fields.choice("trigger-message", List.of(Message.values()), m.message(),
                x -> x.name().toLowerCase(
                        Locale.ROOT),
                to -> midi(x -> x.withControl(to, x.channel(), x.number())));
        TextField channel = data("trigger-channel", m.channel(), "", "Channel, 1 to 16", n -> midi(x -> x.withControl(x
                .message(), n == null ? x.channel() : Math.clamp(n, 1, MAX_CHANNEL), x.number())));
        TextField number = data("trigger-number", m.number(), "", "Number, 0 to 127", n -> midi(x -> x.withControl(x
                .message(), x.channel(), n == null ? x.number() : n)));
        nodes.add(Fields.row(Fields.named("Message", message), Fields.named("Channel", channel),
                Fields.named(
                        "Number", number)));
        if (m.message() == Message.CONTROL) {
            List<Named> turns = new ArrayList<>(List.of(new Named(null, "pressed")));
            Arrays.stream(Turns.values()).forEach(t -> turns.add(new Named(t.name(), "the gear reports " + t.words())));
            Named now = turns.stream().filter(n -> Objects.equals(n.id(), m.turns() == null ? null : m.turns().name()))
                    .findFirst().orElse(null);
            nodes.add(Fields.named("Encoder values", Fields.choice("trigger-turns", turns, now, Named::words,
                    n -> midi(x -> x.withTurns(n.id() == null ? null : Turns.valueOf(n.id()))))));
        }
        if (m.turns() == Turns.ABSOLUTE) {
            nodes.add(Fields.check("trigger-motor", "Motorised: follows the level", m.motor(),
                    on -> midi(x -> x.withMotor(on))));
        }
        if (m.message() != Message.PROGRAM) {
            nodes.add(leds(m, row));
        }
        return nodes;
    }

    private void midi(UnaryOperator<Trigger.Midi> how) {
        change(Trigger.Midi.class, how::apply);
    }

    /** What lights its led, for each state of the button. */
    private Node leds(Trigger.Midi m, Row row) {
        GridPane grid = new GridPane(Space.S8, Space.S6);
        grid.add(new Label("State"), 0, 0);
        grid.add(new Label("Value"), 1, 0);
        grid.add(new Label(m.message() == Message.NOTE ? "Note" : "Control"), 2, 0);
        int line = 1;
        for (State s : row.button().states()) {
            Led led = m.leds().get(s.id());
            TextField value = data("trigger-lamp-" + s.id(), led == null ? null : (Integer) led.value(), "none",
                    "LED value in " + s.name(), n -> led(s.id(), was -> n == null
                            ? null
                            : (was == null ? new Led(null, n) : was.withValue(n))));
            TextField number = data("trigger-lamp-number-" + s.id(), led == null ? null : led.number(),
                    String.valueOf(m
                            .number()),
                    "LED note or control in " + s.name(), n -> led(s.id(),
                            was -> (was == null ? new Led(n, MAX_DATA) : was.withNumber(n))));
            grid.addRow(line++, new Label(s.name()), value, number);
        }
        return Fields.named("LED, 0 to 127", grid);
    }

    /** A field for a number from 0 to 127, or for none. */
    private static TextField data(String id, @Nullable Integer now, String none, String words,
            Consumer<@Nullable Integer> to) {
        TextField field = Fields.text(id, now == null ? "" : String.valueOf(now), text -> {
            String digits = text.replaceAll("\\D", "");
            to.accept(digits.isEmpty()
                    ? null
                    : (Integer) Math.min(MAX_DATA, Integer.parseInt(digits.substring(0, Math.min(4, digits
                            .length())))));
        });
        field.setPromptText(none);
        field.setPrefColumnCount(4);
        field.setAccessibleText(words);
        return field;
    }

    private void led(String state, UnaryOperator<@Nullable Led> how) {
        midi(m -> {
            Map<String, Led> leds = new LinkedHashMap<>(m.leds());
            Led next = how.apply(leds.remove(state));
            if (next != null) {
                leds.put(state, next);
            }
            return m.withLeds(leds);
        });
    }

    private List<Node> clock(Trigger.Clock c) {
        return List.of(Fields.named("When", checked("trigger-at", c.at().text(), text -> {
            change(Trigger.Clock.class, x -> x.withAt(Schedule.of(text)));
        }), "Such as 21:30; Fri,Sat 21:30; 2026-12-24T21:30; every 15 min"),
                Fields.check("trigger-late",
                        "If the computer was asleep, press when it wakes", c.late(),
                        on -> change(Trigger.Clock.class, x -> x.withLate(on))));
    }

    private List<Node> when(Trigger.When w) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(Fields.named("When", Fields.choice("trigger-what", List.of(What.values()), w.what(), What::words,
                what -> change(Trigger.When.class, x -> x.withWhat(what)))));
        if (w.what() == What.GEAR_LOST || w.what() == What.GEAR_BACK) {
            List<Named> gear = new ArrayList<>(List.of(new Named(null, "any gear")));
            for (Twin t : desk.bench().rig().twins().values()) {
                gear.add(new Named(t.gear(), t.title()));
            }
            nodes.add(Fields.named("Gear", Fields.choice("trigger-gear", gear, gear.stream().filter(g -> Objects
                    .equals(g.id(), w.gear())).findFirst().orElse(null), Named::words,
                    g -> change(Trigger.When.class, x -> x.withGear(g.id())))));
        }
        if (w.what() == What.BOARD_OPENED) {
            nodes.add(Fields.help("This trigger also presses in Build, to prepare the gear."));
        }
        return nodes;
    }

    /** A field whose text is taken when it makes sense, and says why where it does not. */
    private static VBox checked(String id, String now, Consumer<String> to) {
        Label wrong = Fields.read("");
        wrong.getStyleClass().add("trouble");
        wrong.setWrapText(true);
        wrong.managedProperty().bind(wrong.textProperty().isNotEmpty());
        return new VBox(Space.S2, Fields.text(id, now, text -> {
            try {
                to.accept(text.strip());
                wrong.setText("");
            } catch (IllegalArgumentException e) {
                wrong.setText(e.getMessage());
            }
        }), wrong);
    }
}
