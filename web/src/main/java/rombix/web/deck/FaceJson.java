package rombix.web.deck;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.Ikon;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.value.Value;
import rombix.running.face.FaceNow;
import rombix.running.face.FaceWords;
import rombix.running.face.IconFont;
import rombix.running.state.DeckState;

/** A face in JSON. Moments in it are milliseconds on the deck's clock, so that a face that stays as it is stays the same text. */
final class FaceJson {
    /**
     * @param icon the icon's letter in the icon font
     * @param fit how the picture takes its room: icon, whole or cover
     * @param tone what the tally means: air, ready or quiet
     * @param pips the names of its states where it has several
     * @param going what a bar along the edge shows
     * @param cells what a row or a key pad has in its cells
     * @param items what a list shows
     */
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    record FaceMessage(String label, String second, @Nullable String icon, @Nullable String picture,
            @Nullable String fit, int padding, @Nullable String pictureTint, @Nullable String mark, String fill,
            @Nullable String tint, @Nullable String ink, @Nullable String accent, @Nullable String tally,
            @Nullable String tone, List<String> pips, int state, int coming, boolean held, @Nullable String fault,
            List<LevelMessage> levels, @Nullable GoingMessage going, List<String> cells, @Nullable ItemsMessage items,
            String spoken) {
    }

    /** A level: its place on its way, -1 where it is not known, and its words. */
    record LevelMessage(double at, String words) {
    }

    /** From when to when a chain runs, or a press is waited for; {@code word} is what stands beside it, if anything. */
    record GoingMessage(long from, long to, String word) {
    }

    /** Which item is on, from 1, and when it ends, in seconds since midnight; -1 where that is not planned. */
    record ItemsMessage(List<Item> items, int on, long ends) {
        /** An item with its planned time in words. */
        record Item(String name, String text, String time) {
        }
    }

    private final Supplier<Rig> rig;
    private final Supplier<DeckState> deck;
    private final FaceWords words;

    FaceJson(Supplier<Rig> rig, Supplier<DeckState> deck, FaceWords words) {
        this.rig = rig;
        this.deck = deck;
        this.words = words;
    }

    FaceMessage of(Button button) {
        FaceNow now = FaceNow.of(button, deck.get(), words);
        Face face = now.face();
        Face.Image image = face.image();
        Face.Tally tally = now.tally();
        boolean cells = button.control() instanceof Control.Row || button.control() instanceof Control.KeyPad;
        return new FaceMessage(cells || button.control() instanceof Control.Items ? button.name() : now.label(), now
                .second(), image == null ? icon(face.icon()).orElse(null) : null,
                image == null
                        ? null
                        : image.picture(),
                image == null
                        ? null
                        : lower(image.fit()),
                image == null ? 0 : image.padding(), image == null
                        ? null
                        : image.tint(),
                face.mark() == null ? null : lower(face.mark()),
                lower(face.fill()), face.tint(), now.ink(), face.accent(), tally == null ? null : tally.word(),
                tally == null ? null : lower(tally.tone()), now.states() > 1 && !cells
                        ? button.states().stream().map(s -> s.name()).toList()
                        : List.of(),
                now.state(), now.coming(), now.held(), now.fault(), now.levels().stream().map(
                        l -> new LevelMessage(Double.isNaN(l.place()) ? -1 : l.place(), l.words())).toList(),
                going(button), cells ? button.states().stream().map(s -> s.name()).toList() : List.of(), items(
                        button),
                now.spoken());
    }

    private static String lower(Enum<?> of) {
        return of.name().toLowerCase(Locale.ROOT);
    }

    /** The icon's letter in the font of icons. */
    static Optional<String> icon(@Nullable String literal) {
        if (literal == null) {
            return Optional.empty();
        }
        return IconFont.find(literal).map(Ikon::getCode).map(Character::toString);
    }

    private @Nullable GoingMessage going(Button button) {
        DeckState.Guarding guard = deck.get().guarding(button.id());
        if (guard != null) {
            return new GoingMessage(millis(guard.sinceNanos()), millis(guard.untilNanos()), guard.hold()
                    ? "HOLD"
                    : "AGAIN");
        }
        DeckState.Running run = deck.get().running(button.id());
        return run == null
                ? null
                : new GoingMessage(millis(run.startNanos()), millis(run.startNanos() + run.expectedNanos()), deck.get()
                        .asks(run.run()) ? "ASKS" : "");
    }

    private static long millis(long nanos) {
        return nanos / 1_000_000;
    }

    private @Nullable ItemsMessage items(Button button) {
        if (!(button.control() instanceof Control.Items list)) {
            return null;
        }
        return rig.get().board().runDown(list.list()).map(r -> new ItemsMessage(r.items().stream().map(
                i -> new ItemsMessage.Item(i.name(), i.text(), i.seconds() == 0 ? "" : RunDown.time(i.seconds())))
                .toList(), (int) number(r.id(), button), ends(r, button))).orElse(null);
    }

    private double number(String name, Button button) {
        return words.named(name, button.id()) instanceof Value.Num(double n) ? n : 0;
    }

    private long ends(RunDown list, Button button) {
        int on = (int) number(list.id(), button);
        return on < 1 || on > list.items().size() || list.items().get(on - 1).seconds() == 0
                ? -1
                : (long) number(list.id() + ".ends", button);
    }
}
