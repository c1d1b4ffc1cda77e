package rombix.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.chain.GearStep;
import rombix.core.edit.GearEdits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

/** What people type, and the step that has to be offered first: on the demo board, with gear of every other card as well. */
class TypedLinesTest {
    private static final String TABLE = "/rombix/find/typed-lines.csv";
    private static final Map<String, Map<String, List<Item>>> LISTS = Map.of(
            "house-json", Map.of("plug", List.of(new Item("kettle", "Kettle plug", Map.of())), "bulb", List.of(new Item(
                    "porch", "Porch bulb", Map.of())), "sensor", List.of(new Item("cellar", "Cellar", Map.of()))),
            "wake-on-lan", Map.of("computer", List.of(new Item("encoder", "Encoder", Map.of("mac",
                    "00:11:22:33:44:55")))),
            "fixtures",
            Map.of("dimmer", List.of(fixture("stage")), "dimmer-16", List.of(fixture("cyclorama")), "rgb", List
                    .of(fixture("wash")), "rgbw", List.of(fixture("uplight")), "mover", List.of(fixture("spot")),
                    "strobe",
                    List.of(fixture("flash")), "wheel", List.of(fixture("gobo"))),
            "any-osc", Map.of("message", List.of(new Item("haze", "Haze", Map.of("address", "/haze")))));
    /** What gear has told, with one item each. */
    private static final Map<String, String> TOLD = Map.of("scene-list", "Host Desk", "layer", "Lower Third",
            "application", "Notes", "program", "Browser", "presets", "Telescope", "playlists", "Quiet night");
    private static Rig rig;
    private static Finder finder;

    @BeforeAll
    static void open() throws BadFile {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Board board = GearEdits.change(demo.board(), "desk", g -> {
            List<Item> all = new ArrayList<>(demo.twin("desk").orElseThrow().items("channel", Readings.NONE));
            for (int strip : new int[]{1, 3, 30}) {
                all.add(new Item("strip-" + strip, "Strip " + strip, Map.of("mute", 50 + strip, "level", 90 + strip)));
            }
            Map<String, List<Item>> lists = new LinkedHashMap<>(g.lists());
            lists.put("channel", all);
            return g.withLists(lists);
        });
        for (Card card : demo.cards().values()) {
            if (!card.protocols().isEmpty()
                    && demo.board().gear().stream().noneMatch(g -> g.card().equals(card.id()))) {
                board = GearEdits.add(board, card, card.protocols().iterator().next());
                String id = board.gear().getLast().id();
                for (Map.Entry<String, List<Item>> list : LISTS.getOrDefault(card.id(), Map.of()).entrySet()) {
                    board = GearEdits.listed(board, id, list.getKey(), list.getValue());
                }
            }
        }
        rig = demo.with(board);
        finder = new Finder(rig, _ -> id -> TOLD.containsKey(id)
                ? new Value.Choices(List.of(new Value.Choice(TOLD.get(id).toLowerCase(Locale.ROOT).replace(' ', '-'),
                        TOLD
                                .get(id))))
                : null);
    }

    private static Item fixture(String id) {
        return new Item(id, id.substring(0, 1).toUpperCase(Locale.ROOT) + id.substring(1), Map.of());
    }

    private static String first(String typed) {
        List<Found> found = finder.find(typed, 5);
        return found.isEmpty() ? "" : found.getFirst().title().replace('\u00a0', ' ');
    }

    @ParameterizedTest
    @CsvFileSource(resources = TABLE, delimiter = '|', quoteCharacter = '\1')
    void isOfferedFirst(String typed, String title) {
        assertThat(first(typed)).as(typed).isEqualTo(title);
    }

    @Test
    void theTableHasAHundredAndFiftyLinesAndEveryCommandOfEveryCard() throws IOException {
        List<String> lines = Files.readAllLines(Path.of("src/test/resources" + TABLE));
        assertThat(lines).hasSizeGreaterThanOrEqualTo(150);
        Set<String> found = lines.stream().map(l -> finder.find(l.split(" \\| ")[0], 1).getFirst().step()).filter(
                GearStep.Do.class::isInstance).map(s -> (GearStep.Do) s)
                .map(d -> rig.board().gear(d.gear()).orElseThrow()
                        .card() + ":" + d.command())
                .collect(Collectors.toCollection(TreeSet::new));
        Set<String> all = rig.board().gear().stream().map(g -> rig.cards().get(g.card()))
                .flatMap(c -> c.commands().stream()
                        .map(k -> c.id() + ":" + k.id()))
                .collect(Collectors.toCollection(TreeSet::new));
        assertThat(found).containsAll(all);
    }

    @Test
    void withoutThisComputerItIsOfferedToBeAdded() {
        Board board = Board.empty("bare");
        Finder bare = new Finder(rig.with(board), _ -> Readings.NONE);
        for (String typed : List.of("open https://example.org/x", "press ctrl+m")) {
            Found found = bare.find(typed, 3).getFirst();
            assertThat(found.adds()).as(typed).isNotNull();
            assertThat(found.where()).isEqualTo("adds “This computer”");
        }
        assertThat(finder.find("press ctrl+m", 1).getFirst().adds()).isNull();
    }

    @Test
    void whatIsNotUnderstoodIsSaidWithWhatIs() {
        assertThat(finder.find("desk key purple", 5)).isEmpty();
        assertThat(finder.misunderstood("desk key purple")).isEqualTo(
                "“desk key” found in Lamps; “purple” isn't a value of its level.");
        assertThat(finder.misunderstood("xqzzy wvvkj")).isEmpty();
    }
}
