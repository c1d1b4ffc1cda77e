package rombix.web.api;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.event.Happening;
import rombix.core.value.Value;
import rombix.running.RunningDeck;
import rombix.running.face.FaceNow;
import rombix.running.face.FaceWords;
import rombix.running.state.DeckState;
import rombix.web.access.Access;

/** A deck as programs are told of it: each kind of answer is a record, whose fields are those of the OpenAPI document. */
final class ApiState {
    /** @param page the page that the window shows; absent where none was shown yet */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record StatusAnswer(String board, String mode, @Nullable String page) {
    }

    record PageAnswer(String id, String name, boolean hidden, int columns, int rows, List<String> buttons) {
    }

    /**
     * @param state the place of the state that is shown, counted from 0
     * @param fault what went wrong and was not cleared; absent where nothing did
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record ButtonAnswer(String id, String name, String page, List<String> states, int state, boolean held,
            boolean running, String label, String second, @Nullable String tally, List<LevelAnswer> levels,
            @Nullable String fault) {
    }

    /** @param at the place on its way, from 0 to 1; absent where it is not known */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    record LevelAnswer(@Nullable Double at, String words) {
    }

    record RunAnswer(long id, String button, String what, String source, double secondsGone, double secondsLeft) {
    }

    record QuestionAnswer(long id, String button, String text, String kind, List<String> options) {
    }

    /** @param known whether the gear is reached, so that the value is present and not the last one known */
    record ReadingAnswer(String gear, String reading, Object value, boolean known, double seconds) {
    }

    private final RunningDeck deck;

    ApiState(RunningDeck deck) {
        this.deck = deck;
    }

    private DeckState state() {
        return deck.feed().state();
    }

    StatusAnswer status() {
        return new StatusAnswer(deck.rig().board().name(), state().mode().name().toLowerCase(Locale.ROOT), state()
                .page());
    }

    List<PageAnswer> pages(Access access) {
        return deck.rig().board().pages().stream().filter(p -> access.sees(p.id())).map(p -> new PageAnswer(p.id(), p
                .name(), p.hidden(), p.columns(), p.rows(), p.buttons().stream().map(Button::id).toList())).toList();
    }

    List<ButtonAnswer> buttons(Access access) {
        Rig rig = deck.rig();
        FaceWords words = new FaceWords(() -> rig, this::state, deck::wall, deck::nanos);
        return rig.board().pages().stream().filter(p -> access.sees(p.id())).flatMap(p -> p.buttons().stream().map(
                b -> button(p, b, words))).toList();
    }

    Optional<ButtonAnswer> button(Access access, String id) {
        Rig rig = deck.rig();
        FaceWords words = new FaceWords(() -> rig, this::state, deck::wall, deck::nanos);
        return rig.pageOf(id).filter(p -> access.sees(p.id())).flatMap(p -> rig.button(id).map(b -> button(p, b,
                words)));
    }

    private ButtonAnswer button(Page page, Button b, FaceWords words) {
        FaceNow face = FaceNow.of(b, state(), words);
        return new ButtonAnswer(b.id(), b.name(), page.id(), b.states().stream().map(s -> s.name()).toList(), face
                .state(), face.held(), state().running(b.id()) != null, face.label(), face.second(),
                face.tally() == null ? null : face.tally().word(), face.levels().stream().map(l -> new LevelAnswer(
                        Double.isNaN(l.place()) ? null : l.place(), l.words())).toList(),
                face.fault());
    }

    List<RunAnswer> runs(Access access) {
        return state().running().stream().filter(r -> sees(access, r.button())).map(this::run).toList();
    }

    private RunAnswer run(DeckState.Running r) {
        double gone = (deck.nanos() - r.startNanos()) / 1e9;
        return new RunAnswer(r.run(), r.button(), r.what(), r.source(), gone, Math.max(0, r.expectedNanos() / 1e9
                - gone));
    }

    List<QuestionAnswer> questions(Access access) {
        return state().questions().stream().filter(a -> sees(access, a.button())).map(ApiState::question).toList();
    }

    static QuestionAnswer question(Happening.Asked a) {
        return new QuestionAnswer(a.question(), a.button(), a.text(), a.kind().name().toLowerCase(Locale.ROOT), a
                .options());
    }

    boolean sees(Access access, String button) {
        return deck.rig().pageOf(button).filter(p -> access.sees(p.id())).isPresent();
    }

    Map<String, List<ReadingAnswer>> readings() {
        Map<String, List<ReadingAnswer>> all = new LinkedHashMap<>();
        deck.rig().twins().keySet().forEach(g -> all.put(g, state().readings().getOrDefault(g,
                org.pcollections.HashTreePMap.empty()).entrySet().stream().filter(
                        e -> !(e.getValue()
                                .value() instanceof Value.Choices))
                .sorted(Map.Entry.comparingByKey()).map(e -> reading(g, e
                        .getKey(), e.getValue().value()))
                .toList()));
        return all;
    }

    Optional<ReadingAnswer> reading(String gear, String id) {
        return Optional.ofNullable(state().reading(gear, id)).filter(v -> !(v instanceof Value.Choices)).map(
                v -> reading(gear, id, v));
    }

    private ReadingAnswer reading(String gear, String id, Value value) {
        return new ReadingAnswer(gear, id, plain(value), !state().lastKnown(gear), state().secondsSince(gear, id, deck
                .nanos()));
    }

    /** A value as JSON has it: a number, yes or no, or a text. */
    static Object plain(Value value) {
        return switch (value) {
            case Value.Num(double n) when n == Math.rint(n) && Math.abs(n) < 1e15 -> (long) n;
            case Value.Num(double n) -> n;
            case Value.Flag(boolean on) -> on;
            default -> value.toString();
        };
    }
}
