package rombix.running.face;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.card.Card.Tone;
import rombix.core.card.Card.Word;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.running.state.DeckState;

/**
 * What the gear's cards want always in sight: indicators, and what is chosen, such as the scene. It knows which readings
 * those are, so that nobody looks at all the others to see whether something of it has changed. The interface's thread's.
 */
public final class OnAir {
    /**
     * What an indicator says, and how: on air, ready, or {@code null} for neither.
     *
     * @param sinceNanos since when it has been on air, on the deck's clock; null where nothing counts
     */
    public record Indicator(String word, @Nullable Tone tone, @Nullable Long sinceNanos, String text) {
        Indicator(String word, @Nullable Tone tone) {
            this(word, tone, null, word);
        }

        public boolean air() {
            return tone == Tone.AIR;
        }
    }

    private record Source(Twin twin, Twin.Reading reading) {
        String key() {
            return twin.gear() + ":" + reading.id();
        }
    }

    private final Supplier<Rig> rig;
    private final Supplier<DeckState> deck;
    private final LongSupplier nanos;
    private @Nullable Rig listed;
    private List<Source> sources = List.of();
    private Set<String> watched = Set.of();

    /** @param nanos the moment on the deck's clock */
    public OnAir(Supplier<Rig> rig, Supplier<DeckState> deck, LongSupplier nanos) {
        this.rig = rig;
        this.deck = deck;
        this.nanos = nanos;
    }

    /**
     * Whether these changes may have changed something of it.
     *
     * @param whole whether more of some gear has changed than these readings, each {@code gear:reading}
     */
    public boolean concerns(boolean whole, Set<String> readings) {
        if (whole) {
            listed = null; // The gear may list other things now.
        }
        list();
        return whole || !Collections.disjoint(readings, watched);
    }

    /** The indicators as they are; where one is on air, for how long. */
    public List<Indicator> indicators() {
        list();
        return sources.stream().filter(s -> s.reading().spec().type() == ValueType.FLAG).flatMap(s -> indicator(s)
                .stream()).toList();
    }

    /** What is chosen, in the gear's words. */
    public List<String> chosen() {
        list();
        List<String> all = new ArrayList<>();
        for (Source s : sources) {
            Value v = deck.get().reading(s.twin().gear(), s.reading().id());
            if (s.reading().spec().type() == ValueType.CHOICE && v != null) {
                String now = s.twin().spoken(s.reading(), v, deck.get().readings(s.twin().gear()));
                all.add(deck.get().lastKnown(s.twin().gear()) ? FaceNow.lastKnown(now) : now);
            }
        }
        return all;
    }

    private void list() {
        Rig now = rig.get();
        if (now == listed) {
            return;
        }
        listed = now;
        List<Source> found = new ArrayList<>();
        for (Twin twin : now.twins().values()) {
            for (Twin.Reading r : twin.readings(deck.get().readings(twin.gear()))) {
                boolean kind = r.spec().type() == ValueType.CHOICE || r.spec().type() == ValueType.FLAG;
                if (r.spec().indicator() && kind && !excluded(twin, r)) {
                    found.add(new Source(twin, r));
                }
            }
        }
        sources = List.copyOf(found);
        watched = new HashSet<>(sources.stream().map(Source::key).toList());
    }

    private boolean excluded(Twin twin, Twin.Reading reading) {
        return reading.spec().id().match(reading.id()).filter(places -> !places.isEmpty()).map(places -> {
            String list = places.keySet().iterator().next();
            var items = twin.items(list, deck.get().readings(twin.gear()));
            return items.stream().anyMatch(i -> i.fields().containsKey("lamp")) && items.stream()
                    .noneMatch(i -> i.id().equals(places.get(list)) && Boolean.TRUE.equals(i.fields().get("lamp")));
        }).orElse(false);
    }

    private Optional<Indicator> indicator(Source s) {
        String gear = s.twin().gear();
        Twin.Reading reading = s.reading();
        Value value = deck.get().reading(gear, reading.id());
        Word word = value == null ? null : value.asFlag() ? reading.spec().yes() : reading.spec().no();
        if (word == null) {
            return Optional.empty();
        }
        if (deck.get().lastKnown(gear)) {
            return Optional.of(new Indicator(FaceNow.lastKnown(reading.spec().id().places().isEmpty()
                    ? word.word()
                    : reading.title().toUpperCase(Locale.ROOT) + " " + word.word()), null));
        }
        if (!reading.spec().id().places().isEmpty()) { // One of several: its own name says which.
            return Optional.of(new Indicator(reading.title().toUpperCase(Locale.ROOT) + " " + word.word(),
                    word.tone() == Tone.READY ? Tone.READY : null));
        }
        return Optional.of(word.tone() == Tone.AIR
                ? new Indicator(word.word(), Tone.AIR, deck.get().since(gear, reading.id()), word.word() + " " + Figures
                        .clock(deck.get().secondsSince(gear, reading.id(), nanos.getAsLong()), true))
                : new Indicator(word.word(), word.tone() == Tone.READY ? Tone.READY : null));
    }
}
