package rombix.web.deck;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.running.RunningDeck;
import rombix.running.face.FaceSources;
import rombix.running.face.FaceWords;
import rombix.running.state.Changes;
import rombix.running.state.DeckState;
import rombix.running.state.Seen;
import rombix.web.access.Access;
import rombix.web.deck.FaceJson.FaceMessage;
import rombix.web.deck.SceneJson.SceneMessage;
import rombix.web.json.WebJson;

/**
 * The deck as devices show it, made once for all of them: the JSON of each face on a page that some device shows, each with
 * the number of the change in which it became so. A device that knows that number needs no more to catch up, however long
 * it was away. One thread's.
 */
final class LiveFaces {
    /** A message as it was made last, and its JSON, which is only made where the message has become another. */
    private record Made<T>(@Nullable T message, String json, long change) {
        Made<T> now(T next, long changed) {
            return next.equals(message) ? this : new Made<>(next, WebJson.text(next), changed);
        }
    }

    private final RunningDeck deck;
    private final FaceWords words;
    private final FaceJson faces;
    private final SceneJson scene;
    private final Map<String, Made<FaceMessage>> made = new HashMap<>();
    private final Map<String, FaceSources> sources = new HashMap<>();
    private final Map<String, List<Button>> byPage = new HashMap<>();
    private Rig rig;
    private DeckState state = DeckState.NOTHING;
    private long change = 1;
    private long rigChange = 1;
    private Made<SceneMessage> now = new Made<>(null, "{}", 0);

    LiveFaces(RunningDeck deck) {
        this.deck = deck;
        rig = deck.rig();
        words = new FaceWords(() -> rig, () -> state, deck::wall, deck::nanos);
        faces = new FaceJson(() -> rig, () -> state, words);
        scene = new SceneJson(() -> rig, () -> state, deck::nanos);
        sources();
    }

    private void sources() {
        sources.clear();
        byPage.clear();
        for (Page page : rig.board().pages()) {
            byPage.put(page.id(), page.buttons());
            page.buttons().forEach(b -> sources.put(b.id(), FaceSources.of(b)));
        }
    }

    /** What has happened; {@code shown} are the pages that devices show. */
    void see(Seen seen, Collection<String> shown) {
        DeckState before = state;
        state = seen.state();
        Rig played = deck.rig();
        boolean lists = seen.whole();
        if (played != rig || seen.whole()) {
            rig = played;
            change++;
            rigChange = change;
            made.clear();
            sources();
            lists = true;
            shown.forEach(this::make);
        } else {
            Changes changes = Changes.of(seen, before);
            change++;
            lists = !changes.whole().isEmpty();
            for (String page : shown) {
                for (Button b : byPage.getOrDefault(page, List.of())) {
                    FaceSources of = sources.get(b.id());
                    if (of != null && of.concerned(changes)) {
                        make(b);
                    }
                }
            }
        }
        scene(lists);
    }

    /** Whether faces of these pages change as seconds pass. */
    boolean ticks(Collection<String> shown) {
        return ticking(shown).findAny().isPresent();
    }

    /** Makes those anew that change as seconds pass. */
    void tick(Collection<String> shown) {
        change++;
        ticking(shown).toList().forEach(this::make);
    }

    private Stream<Button> ticking(Collection<String> shown) {
        return shown.stream().flatMap(p -> byPage.getOrDefault(p, List.of()).stream()).filter(b -> {
            FaceSources of = sources.get(b.id());
            return of != null && of.ticks();
        });
    }

    /** A page is shown that none showed before. */
    void make(String page) {
        byPage.getOrDefault(page, List.of()).forEach(this::make);
    }

    private void make(Button button) {
        FaceMessage face = faces.of(button);
        made.compute(button.id(),
                (_, before) -> (before == null ? new Made<FaceMessage>(null, "", 0) : before).now(face,
                        change));
    }

    private void scene(boolean listsChanged) {
        if (listsChanged) {
            scene.listsChanged();
        }
        now = now.now(scene.now(_ -> true), change);
    }

    /** The number of the last change. */
    long change() {
        return change;
    }

    /** Whether another board plays, or is played anew, since a change. */
    boolean anew(long since) {
        return rigChange > since;
    }

    Board board() {
        return rig.board();
    }

    Rig rig() {
        return rig;
    }

    DeckState state() {
        return state;
    }

    FaceWords words() {
        return words;
    }

    /** The moment on the clock of what plays, in milliseconds. */
    long millis() {
        return deck.nanos() / 1_000_000;
    }

    /** The time of day on that clock, in milliseconds. */
    long dayMillis() {
        return deck.wall().toLocalTime().toNanoOfDay() / 1_000_000;
    }

    /** What runs, is on air and is asked on the pages that are seen, where that changed since a change; else null. */
    @Nullable
    String scene(Access access, long since) {
        if (now.change() <= since) {
            return null;
        }
        return access.pages().isEmpty() ? now.json() : WebJson.text(scene.now(b -> sees(access, b)));
    }

    private boolean sees(Access access, String button) {
        return rig.pageOf(button).filter(p -> access.sees(p.id())).isPresent();
    }

    /** The faces of a page that changed since a change, as the members of a JSON object; empty where none did. */
    String faces(String page, long since) {
        StringBuilder members = new StringBuilder();
        for (Button b : byPage.getOrDefault(page, List.of())) {
            Made<FaceMessage> face = made.get(b.id());
            if (face != null && face.change() > since) {
                members.append(members.isEmpty() ? "" : ",").append(WebJson.text(b.id())).append(':').append(face
                        .json());
            }
        }
        return members.toString();
    }
}
