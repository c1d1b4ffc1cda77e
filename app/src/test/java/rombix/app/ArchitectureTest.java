package rombix.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.fields;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.dependencies.SliceAssignment;
import com.tngtech.archunit.library.dependencies.SliceIdentifier;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import rombix.core.board.Board;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.thread.OwnedBy;

@AnalyzeClasses(packages = "rombix", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule CORE_KNOWS_NO_INTERFACE_AND_NO_SOCKETS = noClasses().that().resideInAPackage("rombix.core..")
            .should().dependOnClassesThat().resideInAnyPackage("javafx..", "java.net..", "javax.sound..",
                    "rombix.wire..", "rombix.links..", "rombix.standins..", "rombix.running..", "rombix.app..");

    @ArchTest
    static final ArchRule WIRE_KNOWS_NOBODY = noClasses().that().resideInAPackage("rombix.wire..").should()
            .dependOnClassesThat().resideInAnyPackage("rombix.core..", "rombix.links..", "rombix.standins..",
                    "rombix.app..", "java.net..", "java.util.concurrent..", "javafx..");

    @ArchTest
    static final ArchRule LINKS_KNOW_CORE_AND_WIRE = noClasses().that().resideInAPackage("rombix.links..").should()
            .dependOnClassesThat().resideInAnyPackage("rombix.standins..", "rombix.running..", "rombix.app..",
                    "javafx..");

    @ArchTest
    static final ArchRule STAND_INS_ARE_ANOTHER_PROGRAM = noClasses().that().resideInAPackage("rombix.standins..")
            .should().dependOnClassesThat().resideInAnyPackage("rombix.links..", "rombix.app..", "javafx..");

    @ArchTest
    static final ArchRule EDITING_KNOWS_NO_NODES = noClasses().that().resideInAPackage("rombix.app.edit..").should()
            .dependOnClassesThat().resideInAnyPackage("javafx..", "rombix.app.view..", "rombix.app.show..");

    @ArchTest
    static final ArchRule WHAT_RUNS_KNOWS_NO_TOOLKIT = noClasses().that().resideInAPackage("rombix.running..").should()
            .dependOnClassesThat().resideInAnyPackage("javafx..", "rombix.app..", "rombix.web..", "rombix.standins..");

    @ArchTest
    static final ArchRule PAGES_IN_A_BROWSER_NEED_NO_WINDOW = noClasses().that().resideInAPackage("rombix.web..")
            .should().dependOnClassesThat().resideInAnyPackage("javafx..", "rombix.app..", "rombix.links..",
                    "rombix.standins..");

    /** What everybody else may do with a deck stands in {@code DeckPort} and {@code Player}. */
    @ArchTest
    static final ArchRule ONLY_WHAT_RUNS_LOADS_AND_ENDS = noClasses().that().resideInAPackage("rombix.app..").should()
            .dependOnClassesThat().belongToAnyOf(Event.Load.class, Event.End.class, Event.Opened.class,
                    Event.WentLive.class, Event.Arm.class, Event.Run.class, Conductor.class);

    /** The rooms of the window, each of which may know those before it. */
    private static final List<String> ROOMS = List.of("common", "form", "tile", "step", "button", "score", "page",
            "live", "sheet", "gear", "rack", "card", "patch", "share", "panels", "window");

    @ArchTest
    static void roomsKnowThoseBeforeThem(JavaClasses classes) {
        for (int i = 0; i < ROOMS.size() - 1; i++) {
            String[] after = ROOMS.subList(i + 1, ROOMS.size()).stream().map(r -> "rombix.app.view." + r + "..")
                    .toArray(String[]::new);
            noClasses().that().resideInAPackage("rombix.app.view." + ROOMS.get(i) + "..").should()
                    .dependOnClassesThat().resideInAnyPackage(after).check(classes);
        }
        classes().that().resideInAPackage("rombix.app.view..").should().resideInAnyPackage(ROOMS.stream().map(
                r -> "rombix.app.view." + r).toArray(String[]::new)).check(classes);
    }

    /** Packages as they are, root packages included. */
    @ArchTest
    static final ArchRule NO_CYCLES_BETWEEN_PACKAGES = slices().matching("rombix.(**)").should().beFreeOfCycles();

    /**
     * Each class with those within it is one slice. What is recursive by nature is one slice together: a chain of steps
     * that hold chains, a board and its parts with their builders, the interpreter with its frames.
     */
    @ArchTest
    static final ArchRule NO_CIRCLES_OF_CLASSES = slices().assignedFrom(new SliceAssignment() {
        @Override
        public SliceIdentifier getIdentifierOf(JavaClass c) {
            String outer = built(c.getName().replaceAll("\\$.*", ""));
            for (List<String> natural : NATURAL) {
                if (natural.stream().anyMatch(outer::matches)) {
                    return SliceIdentifier.of(natural.getFirst());
                }
            }
            return SliceIdentifier.of(outer);
        }

        @Override
        public String getDescription() {
            return "classes";
        }
    }).should().beFreeOfCycles();

    private static final List<List<String>> NATURAL = List.of(
            List.of("rombix.core.board.Board", "rombix.core.board.Page", "rombix.core.board.Button"),
            List.of("rombix.core.chain.Chain", "rombix.core.chain.ChainJson", "rombix.core.chain.StepOptions",
                    "rombix.core.chain.(Gear|Deck)?Step"),
            List.of("rombix.core.card.value.WireValue", "rombix.core.card.value.WireValueJson",
                    "rombix.core.card.value.(Mapped|Computed)"),
            List.of("rombix.core.twin.Twin", "rombix.core.twin.Filling"),
            List.of("rombix.core.engine.Deck",
                    "rombix.core.engine.(Gestures|Rows|Shows|Strokes|Taps|DirectionPads|Levels|BoardTriggers|Follows|Buttons|Ending)"),
            List.of("rombix.core.engine.run.RunContext",
                    "rombix.core.engine.run.(Run|Runs|Orders|Picker|Watches|Telling|StepStart|ButtonPlay|Echoes)",
                    "rombix.core.engine.run.\\w+Frame"));

    /** What stands on a board is found by the rig's indexes; only edits, which make boards of boards, look through one. */
    @ArchTest
    static final ArchRule NOBODY_SCANS_A_BOARD_FOR_ONE_BUTTON = noClasses().that()
            .resideOutsideOfPackages("rombix.core.board..", "rombix.core.edit..").and()
            .doNotHaveSimpleName("UsageWords")
            .and()
            .doNotHaveSimpleName("ButtonEdits").and().resideOutsideOfPackage("rombix.bench..").should()
            .callMethod(Board.class, "button", String.class).orShould().callMethod(Board.class, "page", String.class)
            .orShould().callMethod(Board.class, "pageOf", String.class);

    /** What changes within the engine says which thread changes it. */
    @ArchTest
    static final ArchRule THE_ENGINE_SAYS_WHO_OWNS_WHAT = fields().that().areDeclaredInClassesThat()
            .resideInAnyPackage("rombix.core.engine..", "rombix.core.time").and().areNotFinal().and().areNotStatic()
            .and().areDeclaredInClassesThat().haveSimpleNameNotEndingWith("Clock").and().areDeclaredInClassesThat()
            .doNotHaveSimpleName("Conductor").should()
            .beDeclaredInClassesThat(new DescribedPredicate<>("say by whom they are owned") {
                @Override
                public boolean test(JavaClass c) {
                    JavaClass outer = c;
                    while (outer.getEnclosingClass().isPresent()) {
                        outer = outer.getEnclosingClass().get();
                    }
                    return outer.isAnnotatedWith(OwnedBy.class);
                }
            });

    @ArchTest
    static final ArchRule FILES_ARE_THE_STORES = noClasses().that().resideInAPackage("rombix.core..").and()
            .resideOutsideOfPackages("rombix.core.store..", "rombix.core.bundle..").should().dependOnClassesThat()
            .resideInAPackage("java.nio.file..");

    @ArchTest
    static final ArchRule TIME_IS_HANDED_IN = noClasses().that().resideInAPackage("rombix.core..").should()
            .callMethod(System.class, "nanoTime").orShould().callMethod(System.class, "currentTimeMillis").orShould()
            .callMethod(Instant.class, "now").orShould().callMethod(Clock.class, "systemUTC").orShould()
            .callMethod(Thread.class, "sleep", long.class);

    @ArchTest
    static final ArchRule NO_EMPTY_NAMES = noClasses().should()
            .haveNameMatching(".*(Impl|Manager|Util|Utils|Helper)$");

    /** The class that a generated builder belongs to, which may be of a record within it; any other class as it is. */
    private static String built(String name) {
        if (!name.endsWith("Builder")) {
            return name;
        }
        String of = name.substring(0, name.length() - "Builder".length());
        while (of.matches(".*\\.[A-Z]\\w*[A-Z]\\w*") && !exists(of)) {
            of = of.replaceAll("[A-Z][^A-Z]*$", "");
        }
        return exists(of) ? of : name;
    }

    private static boolean exists(String name) {
        return ArchitectureTest.class.getResource("/" + name.replace('.', '/') + ".class") != null;
    }

    @ArchTest
    static final ArchRule DATA_OF_BOARDS_IS_RECORDS = classes().that().resideInAPackage("rombix.core.chain..").and()
            .areTopLevelClasses().and().haveSimpleNameNotEndingWith("Builder").and().arePublic().and().areNotEnums()
            .and().areNotInterfaces().should().beRecords();
}
