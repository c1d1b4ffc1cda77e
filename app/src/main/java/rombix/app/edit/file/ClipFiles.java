package rombix.app.edit.file;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Face.Tally;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Tone;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.edit.Proposals;
import rombix.core.sound.Clip;
import rombix.core.twin.Figures;
import rombix.core.value.Value;
import rombix.links.sound.SoundFile;

/** Sound files that become clips of a board's player, and the steps and buttons that play them. */
public final class ClipFiles {
    /** The list of a player that has its clips, and the fields of each. */
    public static final String CLIP = "clip";
    public static final String FILE = "file";
    public static final String OUTLINE = "outline";
    public static final String SECONDS = "seconds";

    private static final String CARD = "player";
    private static final int PARTS = 120;

    private ClipFiles() {
    }

    /** A sound file as far as a board knows it. */
    public record Sound(Path file, double seconds, String outline) {
    }

    /** Whether a file's name says that it is sound. */
    public static boolean sound(Path file) {
        return Rig.sound(file.getFileName().toString());
    }

    /**
     * Reads one. It may take seconds.
     *
     * @throws IOException in plain words
     */
    public static Sound read(Path file) throws IOException {
        Clip clip = SoundFile.read(file);
        return new Sound(file, Math.round(clip.seconds() * 1000) / 1000.0, clip.outline(PARTS));
    }

    /** An item with another file. */
    public static Item withFile(Rig rig, Item item, Sound sound) {
        Map<String, Object> fields = new HashMap<>(item.fields());
        fields.put(FILE, rig.named(full(sound.file())));
        fields.put(SECONDS, sound.seconds());
        fields.put(OUTLINE, sound.outline());
        return new Item(item.id(), item.name(), fields);
    }

    /**
     * A board with clips in it.
     *
     * @param player the gear that plays them
     * @param clips those that were asked for, in their order
     */
    public record Added(Board board, String player, List<Item> clips) {
    }

    /**
     * Adds files to the clips of the board's player; one that is there already stays as it is.
     *
     * @param output where a player plays that the board has not had yet
     */
    public static Added add(Rig rig, List<Sound> sounds, String output) {
        Board board = rig.board();
        Gear player = board.gear().stream().filter(g -> g.card().equals(CARD)).findFirst().orElse(null);
        Card card = rig.cards().get(CARD);
        if (player == null) {
            if (card == null) {
                throw new IllegalStateException("there is no card for a player");
            }
            Protocol protocol = card.protocols().iterator().next();
            board = GearEdits.add(board, card, protocol);
            String id = board.gear().getLast().id();
            board = GearEdits.reached(board, id, protocol, output);
            player = board.gear().getLast();
        }
        List<Item> all = new ArrayList<>(player.lists().getOrDefault(CLIP, List.of()));
        List<Item> asked = new ArrayList<>();
        for (Sound sound : sounds) {
            Optional<Item> there = all.stream().filter(i -> rig.named(full(sound.file())).equals(i.fields().get(FILE)))
                    .findFirst();
            Item item = there.orElseGet(() -> fresh(rig, sound, all));
            if (there.isEmpty()) {
                all.add(item);
            }
            asked.add(item);
        }
        return new Added(GearEdits.listed(board, player.id(), CLIP, all), player.id(), asked);
    }

    private static Item fresh(Rig rig, Sound sound, List<Item> all) {
        String name = title(sound.file());
        String id = Edits.freshId(name, CLIP, taken -> all.stream().anyMatch(i -> i.id().equals(taken)));
        return withFile(rig, new Item(id, name, Map.of()), sound);
    }

    private static String full(Path file) {
        return file.toAbsolutePath().normalize().toString();
    }

    /** What a file is called among people: {@code star-sting.wav} is Star sting. */
    private static String title(Path file) {
        String plain = file.getFileName().toString().replaceFirst("\\.[^.]+$", "").replaceAll("[-_ ]+", " ").strip();
        return plain.isEmpty() ? "Clip" : Figures.capitalized(plain);
    }

    /** What plays them: the one, or one of several, in an order that is shuffled anew when all have been played. */
    public static Step step(Added added) {
        Function<Item, Step> play = clip -> new GearStep.Do(added.player(), "play", Map.of(CLIP, Value.of(clip.id())));
        return added.clips().size() == 1
                ? play.apply(added.clips().getFirst())
                : new Step.Pick(Step.Pick.Way.SHUFFLED, added.clips().stream().map(c -> new Step.Choice(c.name(), 1,
                        Chain.of(play.apply(c)))).toList(), StepOptions.PLAIN, Map.of());
    }

    /** A button that plays them, for an empty cell. */
    public static Button button(Added added, Card card, int column, int row) {
        String name = added.clips().size() == 1 ? added.clips().getFirst().name() : "One of " + added.clips().size();
        Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
        on.put(Gesture.PRESS, Chain.of(step(added)));
        List<Tally> tally = added.clips().size() > 1
                ? List.of()
                : List.of(new Tally(Condition.OnReading.is(added.player(), "playing/" + added.clips().getFirst().id(),
                        Value.of(true)), "PLAYING", Tone.READY, Map.of()));
        Face face = Face.PLAIN.withIcon(added.clips().size() == 1 ? "mdi2m-music-note" : "mdi2s-shuffle-variant")
                .withFill(Proposals.fill(card)).withTally(tally);
        State state = new State("on", "on", face, State.STAY, null, on, Map.of());
        return new Button(Edits.freshId(added.board(), name), name, column, row, 1, 1, Button.Busy.RESTART, List.of(
                state), Map.of());
    }
}
