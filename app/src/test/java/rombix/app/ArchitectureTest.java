package rombix.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.time.Clock;
import java.time.Instant;

@AnalyzeClasses(packages = "rombix", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule CORE_KNOWS_NO_INTERFACE_AND_NO_SOCKETS = noClasses().that().resideInAPackage("rombix.core..")
            .should().dependOnClassesThat().resideInAnyPackage("javafx..", "java.net..", "javax.sound..",
                    "rombix.wire..", "rombix.links..", "rombix.standins..", "rombix.app..");

    @ArchTest
    static final ArchRule WIRE_KNOWS_NOBODY = noClasses().that().resideInAPackage("rombix.wire..").should()
            .dependOnClassesThat().resideInAnyPackage("rombix.core..", "rombix.links..", "rombix.standins..",
                    "rombix.app..", "java.net..", "java.util.concurrent..", "javafx..");

    @ArchTest
    static final ArchRule LINKS_KNOW_CORE_AND_WIRE = noClasses().that().resideInAPackage("rombix.links..").should()
            .dependOnClassesThat().resideInAnyPackage("rombix.standins..", "rombix.app..", "javafx..");

    @ArchTest
    static final ArchRule STAND_INS_ARE_ANOTHER_PROGRAM = noClasses().that().resideInAPackage("rombix.standins..")
            .should().dependOnClassesThat().resideInAnyPackage("rombix.links..", "rombix.app..", "javafx..");

    @ArchTest
    static final ArchRule EDITING_KNOWS_NO_NODES = noClasses().that().resideInAPackage("rombix.app.edit..").should()
            .dependOnClassesThat().resideInAnyPackage("javafx..", "rombix.app.view..", "rombix.app.show..");

    @ArchTest
    static final ArchRule NO_CYCLES_BETWEEN_PACKAGES = slices().matching("rombix.(*).(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule FILES_ARE_THE_STORES = noClasses().that().resideInAPackage("rombix.core..").and()
            .resideOutsideOfPackage("rombix.core.store..").should().dependOnClassesThat()
            .resideInAPackage("java.nio.file..");

    @ArchTest
    static final ArchRule TIME_IS_HANDED_IN = noClasses().that().resideInAPackage("rombix.core..").should()
            .callMethod(System.class, "nanoTime").orShould().callMethod(System.class, "currentTimeMillis").orShould()
            .callMethod(Instant.class, "now").orShould().callMethod(Clock.class, "systemUTC").orShould()
            .callMethod(Thread.class, "sleep", long.class);

    @ArchTest
    static final ArchRule NO_EMPTY_NAMES = noClasses().should()
            .haveNameMatching(".*(Impl|Manager|Util|Utils|Helper)$");

    @ArchTest
    static final ArchRule DATA_OF_BOARDS_IS_RECORDS = classes().that().resideInAPackage("rombix.core.chain..").and()
            .areTopLevelClasses().and().arePublic().and().areNotEnums().and().areNotInterfaces().should().beRecords();
}
