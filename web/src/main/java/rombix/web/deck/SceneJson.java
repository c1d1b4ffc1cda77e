package rombix.web.deck;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.board.StepPlaces;
import rombix.core.board.StepWords;
import rombix.core.event.Happening;
import rombix.running.face.OnAir;
import rombix.running.state.DeckState;

/**
 * What is in sight beside the faces, in JSON: what is on air, what runs, what is asked, said or went wrong. Moments are
 * milliseconds on the deck's clock.
 */
final class SceneJson {
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record SceneMessage(String mode, List<LampMessage> air, List<String> chosen, List<RunMessage> runs,
            List<AskMessage> asks, @Nullable SaidMessage said, List<FaultMessage> faults) {
    }

    /** An indicator; {@code since} is when it went on air, and counts on; absent where nothing counts. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record LampMessage(String word, @Nullable String tone, @Nullable Long since) {
    }

    record RunMessage(long id, String button, String name, long from, long to, String step, boolean asks) {
    }

    /** @param on whose press asked it, as the log names that */
    record AskMessage(long id, String button, String name, String text, String kind, List<String> options,
            @Nullable String preset, String on) {
    }

    record SaidMessage(String name, String text, long at) {
    }

    record FaultMessage(String button, String name, String text) {
    }

    private final Supplier<Rig> rig;
    private final Supplier<DeckState> deck;
    private final OnAir onAir;
    private final Map<String, String> steps = new HashMap<>();
    private @Nullable Board worded;

    SceneJson(Supplier<Rig> rig, Supplier<DeckState> deck, LongSupplier nanos) {
        this.rig = rig;
        this.deck = deck;
        onAir = new OnAir(rig, deck, nanos);
    }

    /** The gear may list other things now. */
    void listsChanged() {
        onAir.concerns(true, Set.of());
    }

    /** @param sees whether a button is on a page that is seen: of others nothing is told */
    SceneMessage now(Predicate<String> sees) {
        DeckState state = deck.get();
        List<LampMessage> air = onAir.indicators().stream().map(i -> new LampMessage(i.word(), i.tone() == null
                ? null
                : i.tone().name().toLowerCase(Locale.ROOT),
                i.sinceNanos() == null
                        ? null
                        : i.sinceNanos() / 1_000_000))
                .toList();
        return new SceneMessage(state.mode().name().toLowerCase(Locale.ROOT), air, onAir.chosen(), state.running()
                .stream().filter(r -> sees.test(r.button())).map(this::run).toList(),
                state.questions().stream().filter(a -> sees.test(a
                        .button())).map(this::ask).toList(),
                said(state, sees),
                state.troubles().stream().filter(f -> sees.test(f.button()))
                        .map(f -> new FaultMessage(f.button(), name(f.button()), f.message()))
                        .toList());
    }

    private RunMessage run(DeckState.Running r) {
        return new RunMessage(r.run(), r.button(), name(r.button()), r.startNanos() / 1_000_000, (r.startNanos() + r
                .expectedNanos()) / 1_000_000, step(r), deck.get().asks(r.run()));
    }

    private String step(DeckState.Running run) {
        if (rig.get().board() != worded) {
            worded = rig.get().board();
            steps.clear();
        }
        return run.step().isEmpty()
                ? ""
                : steps.computeIfAbsent(run.button() + " " + run.step(), _ -> StepPlaces.step(rig.get(), run.button(),
                        run.step()).map(new StepWords(rig.get(), g -> deck.get().readings(g))::of).orElse(""));
    }

    private AskMessage ask(Happening.Asked a) {
        DeckState.Running run = deck.get().runs().get(a.run());
        String on = run == null ? "" : run.source();
        return new AskMessage(a.question(), a.button(), name(a.button()), a.text(), a.kind().name().toLowerCase(
                Locale.ROOT), a.options(), a.preset() == null ? null : a.preset().toString(), on);
    }

    private @Nullable SaidMessage said(DeckState state, Predicate<String> sees) {
        DeckState.Said said = state.said();
        return said == null || !sees.test(said.what().button())
                ? null
                : new SaidMessage(name(said.what().button()), said.what().text(), said.atNanos() / 1_000_000);
    }

    private String name(String button) {
        return rig.get().button(button).map(b -> b.name()).orElse(button);
    }
}
