package rombix.web.api;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.BiFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.chain.DeckStep.Ask.AnswerType;
import rombix.core.event.Happening;
import rombix.core.touch.DeckPort;
import rombix.core.twin.Scale;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.running.log.LogStore;
import rombix.running.owner.Secrets;
import rombix.running.state.DeckState;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Right;
import tools.jackson.databind.JsonNode;

/**
 * What programs can do, version 1: see and press what a hand could, each through a port of its own. One table says which
 * calls there are; the OpenAPI document describes the same. Its loop's thread has it.
 */
public final class ProgramApi implements AutoCloseable {
    /** The longest hold that a program begins with one call. */
    static final int MOST_HOLD_MILLIS = 60_000;
    private static final int MOST_ROWS = 1000;
    private static final String GONE = "program gone";

    private record Route(String method, String template, Pattern pattern, @Nullable Right right,
            BiFunction<ApiCall, Matcher, ApiAnswer> does) {
    }

    private final RunningDeck deck;
    private final ScheduledExecutorService loop;
    private final ApiState state;
    private final List<Route> routes;
    private final Map<String, DeckPort> ports = new HashMap<>();
    private final AccessList access;
    private final Runnable revoked = this::revoked;

    /** @param loop where holds end that were begun for a time */
    public ProgramApi(RunningDeck deck, AccessList access, ScheduledExecutorService loop) {
        this.deck = deck;
        this.loop = loop;
        this.state = new ApiState(deck);
        this.access = access;
        access.watch(revoked);
        routes = List.of(
                read("/status", (_, _) -> new ApiAnswer.Found(state.status())),
                read("/pages", (c, _) -> new ApiAnswer.Found(state.pages(c.access()))),
                read("/buttons", (c, _) -> new ApiAnswer.Found(state.buttons(c.access()))),
                read("/buttons/{button}", (c, m) -> found(state.button(c.access(), m.group("button")), "button")),
                read("/readings", (_, _) -> new ApiAnswer.Found(state.readings())),
                read("/readings/{gear}/{reading}", (_, m) -> found(state.reading(m.group("gear"), m.group("reading")),
                        "reading")),
                read("/runs", (c, _) -> new ApiAnswer.Found(state.runs(c.access()))),
                read("/questions", (c, _) -> new ApiAnswer.Found(state.questions(c.access()))),
                read("/events", (_, _) -> new ApiAnswer.Follow()),
                route("GET", "/log", Right.LOG, (c, _) -> log(c)),
                works("/buttons/{button}/press", this::press),
                works("/buttons/{button}/release", (p, b, _) -> p.release(b.id())),
                works("/buttons/{button}/turn", (p, b, body) -> p.turn(b.id(), Math.clamp(body.path("by").asInt(1),
                        -100, 100), body.path("fine").asBoolean(false))),
                works("/buttons/{button}/choose", (p, b, body) -> p.choose(b.id(), body.path("at").asInt(0))),
                route("POST", "/buttons/{button}/move", Right.PRESS, this::move),
                route("POST", "/questions/{question}/answer", Right.PRESS, this::answer),
                route("POST", "/runs/{run}/stop", Right.PRESS, this::stop),
                route("POST", "/stop-all", Right.STOP_ALL, (c, _) -> {
                    port(c.access()).stopAll();
                    return new ApiAnswer.Accepted();
                }));
    }

    private interface Work {
        void on(DeckPort port, Button button, JsonNode body);
    }

    private static Route route(String method, String template, @Nullable Right right,
            BiFunction<ApiCall, Matcher, ApiAnswer> does) {
        String pattern = template.replace("{reading}", "(?<reading>.+)").replaceAll("\\{(\\w+)}", "(?<$1>[^/]+)");
        return new Route(method, template, Pattern.compile(pattern), right, does);
    }

    private static Route read(String template, BiFunction<ApiCall, Matcher, ApiAnswer> does) {
        return route("GET", template, null, does);
    }

    private Route works(String template, Work work) {
        return route("POST", template, Right.PRESS, (c, m) -> {
            Optional<Button> button = button(c, m);
            button.ifPresent(b -> work.on(port(c.access()), b, c.body()));
            return button.isEmpty() ? missing("button") : new ApiAnswer.Accepted();
        });
    }

    /** All calls, each as its method and its path. */
    public Set<String> calls() {
        return routes.stream().map(r -> r.method() + " " + r.template()).collect(Collectors.toSet());
    }

    /** Answers a call. */
    public ApiAnswer answer(ApiCall call) {
        boolean path = false;
        for (Route r : routes) {
            Matcher m = r.pattern().matcher(call.path());
            if (m.matches()) {
                path = true;
                if (r.method().equals(call.method())) {
                    return r.right() != null && !call.access().may(r.right())
                            ? new ApiAnswer.Refused(403, "Not allowed", "This token may not " + r.right().words()
                                    + ". Change it in Rombix, under “Pages in a browser”.")
                            : r.does().apply(call, m);
                }
            }
        }
        return path
                ? new ApiAnswer.Refused(405, "Wrong method", call.method() + " isn't possible there.")
                : new ApiAnswer.Refused(404, "Not found", "There is no such call. See /api/v1/openapi.json.");
    }

    private static ApiAnswer missing(String what) {
        return new ApiAnswer.Refused(404, "Not found", "There is no such " + what + ".");
    }

    private static ApiAnswer found(Optional<?> value, String what) {
        return value.isPresent() ? new ApiAnswer.Found(value.get()) : missing(what);
    }

    private static ApiAnswer bad(String why) {
        return new ApiAnswer.Refused(400, "Bad request", why);
    }

    private DeckPort port(Access access) {
        return ports.computeIfAbsent(access.id(), _ -> deck.port(access.source()));
    }

    private void revoked() {
        if (!loop.isShutdown()) {
            loop.execute(this::retain);
        }
    }

    /** Programs hold nothing any more: what was to be released later would be held for ever. */
    @Override
    public void close() {
        access.unwatch(revoked);
        ports.values().forEach(p -> p.letGo(GONE));
        ports.clear();
    }

    /** Those that were revoked, or may no longer press, hold nothing from now on. */
    private void retain() {
        ports.entrySet().removeIf(p -> {
            boolean gone = access.get(p.getKey()).filter(a -> a.may(Right.PRESS)).isEmpty();
            if (gone) {
                p.getValue().letGo(GONE);
            }
            return gone;
        });
    }

    private Optional<Button> button(ApiCall call, Matcher m) {
        String id = m.group("button");
        return state.sees(call.access(), id) ? deck.rig().button(id) : Optional.empty();
    }

    /** A press without a time is a click; one with a time is held for so long. */
    private void press(DeckPort port, Button button, JsonNode body) {
        long hold = Math.clamp(body.path("holdMs").asLong(0), 0, MOST_HOLD_MILLIS);
        port.press(button.id());
        if (hold == 0) {
            port.release(button.id());
        } else {
            loop.schedule(() -> port.release(button.id()), hold, TimeUnit.MILLISECONDS);
        }
    }

    private ApiAnswer move(ApiCall call, Matcher m) {
        Optional<Button> button = button(call, m);
        if (button.isEmpty()) {
            return missing("button");
        }
        Control control = button.get().control();
        int axis = call.body().path("axis").asInt(0);
        double at = call.body().path("at").asDouble(Double.NaN);
        if (control == null || axis < 0 || axis >= control.axes().size()) {
            return bad("The button has no such level.");
        }
        if (!(at >= 0 && at <= 1)) {
            return bad("“at” is a number from 0 to 1.");
        }
        Control.Axis level = control.axes().get(axis);
        Optional<Scale> scale = deck.rig().twin(level.gear()).flatMap(t -> Scale.of(t, level.reading()));
        scale.ifPresent(s -> port(call.access()).move(button.get().id(), axis, s.setting(at)));
        return scale.isEmpty() ? bad("The gear has no such level.") : new ApiAnswer.Accepted();
    }

    private static long number(Matcher m, String group) {
        try {
            return Long.parseLong(m.group(group));
        } catch (NumberFormatException e) {
            return -1;
        }
    }

    private ApiAnswer answer(ApiCall call, Matcher m) {
        long id = number(m, "question");
        Happening.Asked asked = deck.feed().state().questions().stream().filter(a -> a.question() == id && state.sees(
                call.access(), a.button())).findFirst().orElse(null);
        if (asked == null) {
            return missing("question");
        }
        JsonNode value = call.body().path("value");
        if (asked.kind() == AnswerType.CHOICE || asked.kind() == AnswerType.NUMBER) {
            if (!value.isNumber() && !(asked.kind() == AnswerType.CHOICE && value.isString())) {
                return bad("“value” is a number here; for a choice also its name.");
            }
            port(call.access()).answer(id, value.isNumber() ? Value.of(value.asDouble()) : Value.of(value.asString()));
        } else {
            String text = value.asString("");
            port(call.access()).answer(id, Value.of(asked.kind() == AnswerType.SECRET ? Secrets.asked(text) : text));
        }
        return new ApiAnswer.Accepted();
    }

    private ApiAnswer stop(ApiCall call, Matcher m) {
        long run = number(m, "run");
        DeckState.Running there = deck.feed().state().runs().get(run);
        if (there == null || !state.sees(call.access(), there.button())) {
            return missing("run");
        }
        port(call.access()).stop(run);
        return new ApiAnswer.Accepted();
    }

    private ApiAnswer log(ApiCall call) {
        LogStore log = deck.log();
        if (log == null) {
            return new ApiAnswer.Refused(404, "Not found", "No log is kept.");
        }
        int limit;
        long before;
        try {
            limit = Integer.parseInt(call.query().getOrDefault("limit", "100"));
            before = Long.parseLong(call.query().getOrDefault("before", String.valueOf(Long.MAX_VALUE)));
        } catch (NumberFormatException e) {
            return bad("“limit” and “before” are whole numbers.");
        }
        if (limit < 1 || limit > MOST_ROWS) {
            return bad("“limit” is 1 to " + MOST_ROWS + ".");
        }
        String words = call.query().getOrDefault("text", "");
        return new ApiAnswer.Slow(() -> log.find(new LogStore.Query(words, Set.of(), 0, before, limit)));
    }

    /** What happened, as programs are told of it; null where they are not. */
    public @Nullable ApiEvent event(Access access, Happening happening) {
        return switch (happening) {
            case Happening.Came c when !(c.value() instanceof Value.Choices) -> new ApiEvent("reading", Map.of("gear", c
                    .gear(), "reading", c.reading(), "value", ApiState.plain(c.value())));
            case Happening.Shows s when state.sees(access, s.button()) -> new ApiEvent("button", Map.of("button", s
                    .button(), "state", s.state(), "held", s.held()));
            case Happening.Started s when state.sees(access, s.button()) -> new ApiEvent("run-started", ordered("run", s
                    .run(), "button", s.button(), "what", s.what(), "source", s.source()));
            case Happening.Ended e when state.sees(access, e.button()) -> new ApiEvent("run-ended", ordered("run", e
                    .run(), "button", e.button(), "end", e.end().name().toLowerCase(java.util.Locale.ROOT)));
            case Happening.Faulted f when f.message() != null && state.sees(access, f.button()) -> new ApiEvent("fault",
                    ordered("button", f.button(), "message", f.message()));
            case Happening.Asked a when state.sees(access, a.button()) -> new ApiEvent("question", ApiState.question(
                    a));
            case Happening.Said s when state.sees(access, s.button()) -> new ApiEvent("message", ordered("button", s
                    .button(), "text", s.text()));
            case Happening.Linked l -> new ApiEvent("gear", ordered("gear", l.gear(), "status", l.status().phase()
                    .name().toLowerCase(java.util.Locale.ROOT)));
            default -> null;
        };
    }

    /** The state with which an event stream begins. */
    public ApiEvent status() {
        return new ApiEvent("status", state.status());
    }

    private static Map<String, Object> ordered(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put((String) pairs[i], pairs[i + 1]);
        }
        return map;
    }
}
