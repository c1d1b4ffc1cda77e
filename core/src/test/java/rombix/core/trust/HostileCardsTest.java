package rombix.core.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Board;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** Boards that bring a card of their own for this computer, which does more than any step of theirs says. */
class HostileCardsTest {
    private static final String EVIL = "/tmp/evil --all";
    private static Rig demo;

    @BeforeAll
    static void read() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    /** The demo board at this computer itself, with another card for it. */
    private static Rig rig(String commands, UnaryOperator<Board> edit) throws Exception {
        Card card = CardLibrary.read(Path.of("desktop.json"), """
                {"card": 2, "id": "desktop", "title": "Lamp", "readings": [
                   {"id": "glow", "type": "number", "min": 0, "max": 10, "arrives": {"desktop": {"from": "glow"}}}],
                 "commands": [%s]}""".formatted(commands));
        Map<String, Card> cards = new HashMap<>(demo.cards());
        cards.put("desktop", card);
        Board board = GearEdits.change(demo.board(), "computer", g -> g.withLink(g.link().reached(g.link().protocol(),
                "here")));
        return Rig.of(edit.apply(board), cards);
    }

    private static UnaryOperator<Board> press(Step... steps) {
        return b -> Edits.chain(b, "next-cue", 0, Gesture.PRESS, _ -> Chain.of(steps));
    }

    private static GearStep.Do step(String command, Map<String, Value> with) {
        return new GearStep.Do("computer", command, with);
    }

    private static void askedAndRefusedWithoutLeave(Rig rig, Order order) {
        assertThat(Asks.of(rig, Set.of())).anyMatch(a -> a.kind() == Ask.Kind.WORKS_HERE && a.words().contains(EVIL));
        assertThat(order.packets()).allSatisfy(p -> {
            assertThat(Grants.of(rig).allow("computer", p)).isTrue();
            assertThat(Grants.NONE.allow("computer", p)).isFalse();
            assertThat(Grants.of(demo).allow("computer", p)).isFalse();
        });
    }

    private static Order reach(Rig rig) {
        Twin twin = rig.twin("computer").orElseThrow();
        Twin.Call call = twin.toReach("glow", Value.of(3)).orElseThrow();
        return twin.order(call.command(), call.args(), Twin.Readings.NONE);
    }

    private static final String GLOW = """
            {"id": "glow", "title": "Glow {level}", "params": [{"id": "level", "type": "number"}],
             "send": {"desktop": [{"to": "programs run", "args": ["/tmp/evil", "--all", "", false]}]},
             "changes": [{"reading": "glow", "to": "{level}"}]}""";

    @Test
    void whatPutsAReadingBackIsAskedFor() throws Exception {
        Rig rig = rig(GLOW, press(new Step.ForAWhile(Chain.of(step("glow", Map.of("level", Value.of(1)))), 50,
                StepOptions.PLAIN, Map.of())));
        askedAndRefusedWithoutLeave(rig, reach(rig));
    }

    @Test
    void whatADialSendsIsAskedFor() throws Exception {
        Rig rig = rig(GLOW, b -> Edits.button(b, "next-cue", n -> n.withControl(new Control.Fader(new Control.Axis(
                "computer", "glow")))));
        askedAndRefusedWithoutLeave(rig, reach(rig));
    }

    /** Steps that its owner makes of it later are the owner's own, and agreed to with that. */
    @Test
    void whatACardHoldsReadyForASnapshotIsAskedForThoughNothingUsesItYet() throws Exception {
        Rig rig = rig(GLOW, b -> b);
        askedAndRefusedWithoutLeave(rig, reach(rig));
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {
            // The opposite of a harmless command.
            "{'id':'on','send':{'desktop':[{'to':'clipboard put','args':['hi']}]},'undo':{'command':'off'}},{'id':'off','send':{'desktop':[{'to':'programs run','args':['/tmp/evil','--all','',false]}]}}; off",
            // An opposite that hands the program over.
            "{'id':'on','send':{'desktop':[{'to':'clipboard put','args':['hi']}]},'undo':{'command':'off','with':{'p':'/tmp/evil --all'}}},{'id':'off','params':[{'id':'p','type':'text'}],'send':{'desktop':[{'to':'programs run','args':['{p}','','',false]}]}}; off",
            // The program stands in a preset that no step spells out.
            "{'id':'on','params':[{'id':'p','type':'text','default':'/tmp/evil --all'}],'send':{'desktop':[{'to':'programs run','args':['{p}','','',false]}]}}; on",
            // The second packet of a command whose first is harmless.
            "{'id':'on','send':{'desktop':[{'to':'clipboard put','args':['hi']},{'to':'programs run','args':['/tmp/evil','--all','',false]}]}}; on",
            // The word that makes it a program comes from an argument.
            "{'id':'on','params':[{'id':'w','type':'text','default':'run'}],'send':{'desktop':[{'to':'programs {w}','args':['/tmp/evil','--all','',false]}]}}; on",
            // The program is put together from two places.
            "{'id':'on','params':[{'id':'a','type':'text','default':'/tmp'},{'id':'b','type':'text','default':'evil --all'}],'send':{'desktop':[{'to':'programs run','args':['{a}/{b}','','',false]}]}}; on",
            // A file is opened, whatever the title says.
            "{'id':'on','title':'Good evening','send':{'desktop':[{'to':'files open','args':['/tmp/evil --all']}]}}; on",
            // A picture of the screen is written over a file.
            "{'id':'on','title':'Good evening','send':{'desktop':[{'to':'screen save','args':['everything','pointer','/tmp/evil --all']}]}}; on",
            // Keys that open a terminal, under a friendly name.
            "{'id':'on','title':'Good evening','send':{'desktop':[{'to':'keys type','args':['/tmp/evil --all',8,'',true]}]}}; on"})
    void whatACardSaysInItsOwnWordsIsAskedFor(String commands, String sent) throws Exception {
        Rig rig = rig(commands.replace('\'', '"'), press(step("on", Map.of())));
        Twin twin = rig.twin("computer").orElseThrow();
        Card.Command command = twin.card().command(sent).orElseThrow();
        Map<String, Value> args = command.param("p").filter(p -> p.preset() == null)
                .map(p -> Map.of("p", Value.of(EVIL)))
                .orElse(Map.of());
        askedAndRefusedWithoutLeave(rig, twin.order(command, args, Twin.Readings.NONE));
    }

    @Test
    void aSecretThatIsComputedIsNeverOneThatThisComputerKeeps() throws Exception {
        Rig rig = rig("""
                {"id": "say", "params": [{"id": "s", "type": "text"}],
                 "send": {"desktop": [{"to": "keys secret", "args": ["{s}", 8, "", true]}]}}""", press(
                new GearStep.Do("computer", "say", Map.of("s", new Arg.Computed("\"ba\" + \"nk\"")), null,
                        StepOptions.PLAIN, Map.of())));
        Twin twin = rig.twin("computer").orElseThrow();
        for (String name : List.of("bank", Twin.ASKED + "1")) {
            Order order = twin.order(twin.card().command("say").orElseThrow(), Map.of("s", Value.of(name)),
                    Twin.Readings.NONE);
            assertThat(Grants.of(rig).allow("computer", order.packets().getFirst())).isEqualTo(name.startsWith(
                    Twin.ASKED));
        }
    }

    @Test
    void anotherProgramThanTheStepsIsRefusedThoughTheBoardRunsPrograms() throws Exception {
        Rig rig = Rig.of(press(step("run", Map.of("program", Value.of("/usr/bin/true")))).apply(demo.board()), demo
                .cards());
        Twin twin = rig.twin("computer").orElseThrow();
        for (String program : List.of("/usr/bin/true", "/tmp/evil")) {
            Order order = twin.order(twin.card().command("run").orElseThrow(), Map.of("program", Value.of(program)),
                    Twin.Readings.NONE);
            assertThat(Grants.of(rig).allow("computer", order.packets().getFirst())).isEqualTo(program.equals(
                    "/usr/bin/true"));
        }
    }

    @Test
    void aCardThatChangedIsAskedForAnew() throws Exception {
        Map<String, Card> cards = new HashMap<>(demo.cards());
        Card house = cards.get("house");
        Set<String> before = keys(demo);
        cards.put("house", house.withCommands(house.commands().subList(1, house.commands().size())));
        assertThat(keys(Rig.of(demo.board(), cards))).isNotEqualTo(before);
        assertThat(keys(demo.with(GearEdits.change(demo.board(), "house", g -> g.withLink(g.link().withUser("root"))))))
                .isNotEqualTo(before);
    }

    /** To list it took a minute and a half: the user was looked for from every letter of it. */
    @Test
    @Timeout(30)
    void anAddressOfAnyLengthIsListedAtOnce() {
        Rig rig = demo
                .with(GearEdits.change(demo.board(), "house", g -> g.withLink(g.link().reached(g.link().protocol(), "x"
                        .repeat(1_000_000)))));
        assertThat(keys(rig)).anyMatch(k -> k.contains("xxxxx"));
    }

    private static Set<String> keys(Rig rig) {
        return new java.util.TreeSet<>(Asks.of(rig, Set.of()).stream().map(Ask::key).toList());
    }
}
