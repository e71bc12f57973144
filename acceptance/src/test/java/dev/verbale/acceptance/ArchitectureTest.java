package dev.verbale.acceptance;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaPackage;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.core.importer.Location;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.dependencies.SliceAssignment;
import com.tngtech.archunit.library.dependencies.SliceIdentifier;
import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.NullMarked;

/** The arrows between the modules, and what every package owes its reader. */
@AnalyzeClasses(
        packages = "dev.verbale",
        importOptions = {ImportOption.DoNotIncludeTests.class, ArchitectureTest.WithoutJarsOfTests.class})
class ArchitectureTest {

    private static final String[] FORMAT = {
        "dev.verbale.ci..",
        "dev.verbale.event..",
        "dev.verbale.journal..",
        "dev.verbale.folder..",
        "dev.verbale.json..",
        "dev.verbale.vocabulary..",
        "dev.verbale.stack.."
    };
    private static final String[] RECORDER = {
        "dev.verbale",
        "dev.verbale.spi..",
        "dev.verbale.engine..",
        "dev.verbale.border..",
        "dev.verbale.content..",
        "dev.verbale.secrets..",
        "dev.verbale.jul.."
    };
    /** A slice for each package, whatever lies below it. */
    private static final SliceAssignment EACH_PACKAGE = new SliceAssignment() {
        @Override
        public SliceIdentifier getIdentifierOf(JavaClass one) {
            return one.getPackageName().startsWith("dev.verbale")
                    ? SliceIdentifier.of(one.getPackageName())
                    : SliceIdentifier.ignore();
        }

        @Override
        public String getDescription() {
            return "packages";
        }
    };

    private static final String[] EVERYWHERE = {"java..", "org.jspecify..", "org.apiguardian.."};

    @ArchTest
    static final ArchRule FORMAT_KNOWS_NOBODY = only(FORMAT, FORMAT, "tools.jackson.core..");

    @ArchTest
    static final ArchRule RECORDER_KNOWS_FORMAT =
            only(RECORDER, with(RECORDER, FORMAT), "javax.imageio..", "tools.jackson.core..", "org.opentest4j..");

    @ArchTest
    static final ArchRule MASKING_IS_PURE_COMPUTATION =
            only(array("dev.verbale.secrets.."), array("dev.verbale.secrets.."));

    @ArchTest
    static final ArchRule LOGGER_ADAPTERS_KNOW_THE_RECORDER_AND_THEIR_LOGGER = only(
            array("dev.verbale.logback..", "dev.verbale.log4j.."),
            with(RECORDER, FORMAT),
            "dev.verbale.logback..",
            "dev.verbale.log4j..",
            "ch.qos.logback..",
            "org.slf4j..",
            "org.apache.logging.log4j..");

    @ArchTest
    static final ArchRule JUNIT_ADAPTER_KNOWS_THE_RECORDER_AND_JUNIT = only(
            array("dev.verbale.junit.."),
            with(RECORDER, FORMAT),
            "dev.verbale.junit..",
            "org.junit.platform..",
            "org.junit.jupiter.api..",
            "org.opentest4j..");

    @ArchTest
    static final ArchRule VIDEOS_KNOW_THE_RECORDER_AND_AN_ENCODER = only(
            array("dev.verbale.video.."),
            with(RECORDER, FORMAT),
            "dev.verbale.video..",
            "javax.imageio..",
            "org.bytedeco..");

    @ArchTest
    static final ArchRule WHAT_BROWSERS_SHARE_KNOWS_NO_BROWSER = only(
            array("dev.verbale.browser.."),
            with(RECORDER, FORMAT),
            "dev.verbale.browser..",
            "dev.verbale.video..",
            "tools.jackson.core..");

    @ArchTest
    static final ArchRule SELENIUM_ADAPTER_KNOWS_THE_RECORDER_AND_SELENIUM = only(
            array("dev.verbale.selenium.."),
            with(RECORDER, FORMAT),
            "dev.verbale.selenium..",
            "dev.verbale.browser..",
            "dev.verbale.video..",
            "org.openqa.selenium..");

    @ArchTest
    static final ArchRule PLAYWRIGHT_ADAPTER_KNOWS_THE_RECORDER_AND_PLAYWRIGHT = only(
            array("dev.verbale.playwright.."),
            with(RECORDER, FORMAT),
            "dev.verbale.playwright..",
            "dev.verbale.browser..",
            "dev.verbale.video..",
            "com.microsoft.playwright..",
            "com.google.gson..");

    @ArchTest
    static final ArchRule HTTP_ADAPTER_KNOWS_THE_RECORDER_AND_THE_JDK =
            only(array("dev.verbale.http.."), with(RECORDER, FORMAT), "dev.verbale.http..", "javax.net.ssl..");

    @ArchTest
    static final ArchRule REST_ASSURED_ADAPTER_KNOWS_THE_RECORDER_AND_REST_ASSURED = only(
            array("dev.verbale.restassured.."),
            with(RECORDER, FORMAT),
            "dev.verbale.restassured..",
            "io.restassured..",
            "org.apache.http.."); // the client underneath, which its public interface gives

    @ArchTest
    static final ArchRule OKHTTP_ADAPTER_KNOWS_THE_RECORDER_AND_OKHTTP = only(
            array("dev.verbale.okhttp.."),
            with(RECORDER, FORMAT),
            "dev.verbale.okhttp..",
            "okhttp3..",
            "okio..",
            "kotlin..");

    @ArchTest
    static final ArchRule APACHE_ADAPTER_KNOWS_THE_RECORDER_AND_THE_CLIENT = only(
            array("dev.verbale.httpclient5.."), with(RECORDER, FORMAT), "dev.verbale.httpclient5..", "org.apache.hc..");

    @ArchTest
    static final ArchRule SPRING_ADAPTER_KNOWS_THE_RECORDER_AND_SPRING = only(
            array("dev.verbale.spring.."), with(RECORDER, FORMAT), "dev.verbale.spring..", "org.springframework..");

    @ArchTest
    static final ArchRule CONTRACTS_KNOW_THE_RECORDER_AND_A_VALIDATOR = only(
            array("dev.verbale.contract.."),
            with(RECORDER, FORMAT),
            "dev.verbale.contract..",
            "com.networknt..",
            "org.snakeyaml..",
            "tools.jackson..");

    @ArchTest
    static final ArchRule ARCHIVES_KNOW_RESULTS =
            only(array("dev.verbale.har.."), FORMAT, "dev.verbale.har..", "dev.verbale.results..", "tools.jackson..");

    @ArchTest
    static final ArchRule ASSERTJ_ADAPTER_KNOWS_THE_RECORDER_AND_ASSERTJ =
            only(array("dev.verbale.assertj.."), with(RECORDER, FORMAT), "dev.verbale.assertj..", "org.assertj..");

    @ArchTest
    static final ArchRule STEP_METHODS_KNOW_THE_RECORDER_AND_WHAT_MAKES_CLASSES = only(
            array("dev.verbale.steps.."),
            with(RECORDER, FORMAT),
            "dev.verbale.steps..",
            "net.bytebuddy..",
            "org.objenesis..");

    @ArchTest
    static final ArchRule RESULTS_KNOWS_FORMAT_AND_NEVER_THE_RECORDER = only(
            array("dev.verbale.results.."), FORMAT, "dev.verbale.results..", "tools.jackson.core..", "org.jsoup..");

    @ArchTest
    static final ArchRule HISTORY_KNOWS_RESULTS = only(
            array("dev.verbale.history.."),
            FORMAT,
            "dev.verbale.history..",
            "dev.verbale.results..",
            "tools.jackson.core..",
            "org.hipparchus..",
            "javax.imageio..");

    @ArchTest
    static final ArchRule EXPORTS_KNOW_HISTORY_AND_RULES = only(
            array("dev.verbale.export.."),
            FORMAT,
            "dev.verbale.export..",
            "dev.verbale.history..",
            "dev.verbale.results..",
            "dev.verbale.rules..",
            "tools.jackson.core..",
            "javax.imageio..",
            "javax.xml.stream..",
            "org.apache.commons.csv..");

    @ArchTest
    static final ArchRule IMPORTS_KNOW_RESULTS = only(
            array("dev.verbale.imports.."),
            FORMAT,
            "dev.verbale.imports..",
            "dev.verbale.har..",
            "dev.verbale.results..",
            "dev.verbale.secrets..",
            "javax.xml.stream..");

    @ArchTest
    static final ArchRule CHANGES_KNOW_RESULTS = only(
            array("dev.verbale.changes.."),
            FORMAT,
            "dev.verbale.changes..",
            "dev.verbale.results..",
            "io.github.classgraph..");

    @ArchTest
    static final ArchRule TELEMETRY_KNOWS_RESULTS = only(
            array("dev.verbale.otlp.."), FORMAT, "dev.verbale.otlp..", "dev.verbale.results..", "io.opentelemetry..");

    @ArchTest
    static final ArchRule QUERIES_KNOW_HISTORY = only(
            array("dev.verbale.query.."),
            FORMAT,
            "dev.verbale.query..",
            "dev.verbale.history..",
            "dev.verbale.results..",
            "java.sql..",
            "tools.jackson.core..",
            "org.apache.commons.csv..",
            "org.jdbi..",
            "org.h2..");

    @ArchTest
    static final ArchRule LAKES_KNOW_QUERIES = only(
            array("dev.verbale.lake.."),
            FORMAT,
            "dev.verbale.lake..",
            "dev.verbale.query..",
            "dev.verbale.history..",
            "dev.verbale.results..",
            "java.sql..",
            "tools.jackson.core..",
            "org.duckdb..");

    /** The table that holds nothing itself is the only place that knows one database from within. */
    @ArchTest
    static final ArchRule ONE_PACKAGE_KNOWS_H2 = noClasses()
            .that()
            .resideOutsideOfPackage("dev.verbale.query.remembered..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.h2..");

    @ArchTest
    static final ArchRule RULES_KNOW_HISTORY = only(
            array("dev.verbale.rules.."),
            FORMAT,
            "dev.verbale.rules..",
            "dev.verbale.history..",
            "dev.verbale.results..",
            "org.snakeyaml.engine..");

    @ArchTest
    static final ArchRule REPORT_KNOWS_RESULTS = only(
            array("dev.verbale.report.."),
            FORMAT,
            "dev.verbale.report..",
            "dev.verbale.har..",
            "dev.verbale.history..",
            "dev.verbale.rules..",
            "dev.verbale.results..",
            "tools.jackson.core..");

    @ArchTest
    static final ArchRule THE_VIEWER_KNOWS_REPORT = only(
            array("dev.verbale.viewer.."),
            FORMAT,
            "dev.verbale.viewer..",
            "dev.verbale.history..",
            "dev.verbale.report..",
            "dev.verbale.results..",
            "com.sun.net.httpserver..",
            "tools.jackson.core..");

    @ArchTest
    static final ArchRule PACKS_AND_SEALS_KNOW_RESULTS = only(
            array("dev.verbale.packing..", "dev.verbale.sealing.."),
            FORMAT,
            "dev.verbale.packing..",
            "dev.verbale.sealing..",
            "dev.verbale.results..");

    @ArchTest
    static final ArchRule SITES_KNOW_THE_VIEWER = only(
            array("dev.verbale.publishing.."),
            FORMAT,
            "dev.verbale.publishing..",
            "dev.verbale.report..",
            "dev.verbale.results..",
            "dev.verbale.history..",
            "dev.verbale.viewer..",
            "software.amazon.awssdk..",
            "tools.jackson.core..");

    @ArchTest
    static final ArchRule MESSAGES_KNOW_EXPORTS = only(
            array("dev.verbale.messages.."),
            FORMAT,
            "dev.verbale.export..",
            "dev.verbale.messages..",
            "dev.verbale.results..",
            "dev.verbale.rules..",
            "com.samskivert.mustache..",
            "jakarta.activation..",
            "jakarta.mail..",
            "java.net.http..",
            "tools.jackson.core..");

    @ArchTest
    static final ArchRule SENDING_KNOWS_THE_FOLDER_ALONE =
            only(array("dev.verbale.sending.."), FORMAT, "dev.verbale.sending..", "java.net.http..");

    @ArchTest
    static final ArchRule THE_SENDER_KNOWS_THE_RECORDER_FROM_OUTSIDE = only(
            array("dev.verbale.sender.."),
            FORMAT,
            "dev.verbale.sender..",
            "dev.verbale.sending..",
            "dev.verbale.spi..");

    @ArchTest
    static final ArchRule THE_HUB_KNOWS_THE_VIEWER = only(
            array("dev.verbale.hub.."),
            FORMAT,
            "dev.verbale.history..",
            "dev.verbale.hub..",
            "dev.verbale.report..",
            "dev.verbale.results..",
            "dev.verbale.rules..",
            "dev.verbale.viewer..",
            "com.nimbusds..",
            "com.zaxxer.hikari..",
            "org.eclipse.jetty..",
            "org.flywaydb.core..",
            "org.jdbi..",
            "org.slf4j..",
            "software.amazon.awssdk..");

    @ArchTest
    static final ArchRule NOBODY_BUT_THE_COMMAND_LINE_KNOWS_THE_HUB = noClasses()
            .that()
            .resideOutsideOfPackages("dev.verbale.hub..", "dev.verbale.cli..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("dev.verbale.hub..");

    @ArchTest
    static final ArchRule THE_COMMAND_LINE_IS_ON_TOP = only(
            array("dev.verbale.cli.."),
            FORMAT,
            "dev.verbale.cli..",
            "ch.qos.logback..",
            "org.slf4j..",
            "dev.verbale.changes..",
            "dev.verbale.export..",
            "dev.verbale.har..",
            "dev.verbale.history..",
            "dev.verbale.hub..",
            "dev.verbale.imports..",
            "dev.verbale.lake..",
            "dev.verbale.messages..",
            "dev.verbale.otlp..",
            "dev.verbale.packing..",
            "dev.verbale.publishing..",
            "dev.verbale.query..",
            "dev.verbale.report..",
            "dev.verbale.results..",
            "dev.verbale.rules..",
            "dev.verbale.sealing..",
            "dev.verbale.sending..",
            "dev.verbale.viewer..",
            "java.net.http..",
            "picocli..");

    /** What a module does not export, nobody outside of it leans on, on the class path either. */
    @ArchTest
    static final ArchRule THE_ENGINE_IS_THE_RECORDERS_OWN = noClasses()
            .that()
            .resideOutsideOfPackages(RECORDER)
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("dev.verbale.engine..", "dev.verbale.border..", "dev.verbale.content..");

    @ArchTest
    static final ArchRule SECRETS_ARE_MASKED_WHERE_JOURNALS_ARE_WRITTEN = noClasses()
            .that()
            .resideOutsideOfPackages(RECORDER)
            .and()
            .resideOutsideOfPackage("dev.verbale.imports..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("dev.verbale.secrets..");

    @ArchTest
    static final ArchRule LINES_OF_A_JOURNAL_ARE_THE_FORMATS_OWN = noClasses()
            .that()
            .resideOutsideOfPackages(FORMAT)
            .should()
            .dependOnClassesThat()
            .resideInAPackage("dev.verbale.journal.line..");

    /** In any module: a package can be read without those that are above it. */
    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CYCLES =
            slices().assignedFrom(EACH_PACKAGE).should().beFreeOfCycles();

    /** The engine's layers, the lowest first: none knows one behind it. */
    @ArchTest
    static final ArchRule THE_ENGINE_HAS_LAYERS = layers(
            "dev.verbale.border..",
            "dev.verbale.content..",
            "dev.verbale",
            "dev.verbale.spi..",
            "dev.verbale.engine.scope..",
            "dev.verbale.engine.journal..",
            "dev.verbale.engine.guard..",
            "dev.verbale.engine.text..",
            "dev.verbale.engine.attachment..",
            "dev.verbale.engine.failure..",
            "dev.verbale.engine.log..",
            "dev.verbale.engine.evidence..",
            "dev.verbale.engine.step..",
            "dev.verbale.engine.check..",
            "dev.verbale.engine.settings..",
            "dev.verbale.engine.exchange..",
            "dev.verbale.engine.run..",
            "dev.verbale.engine.lifecycle..",
            "dev.verbale.engine");

    private static ArchRule layers(String... lowestFirst) {
        var layers = layeredArchitecture().consideringOnlyDependenciesInLayers();
        for (String layer : lowestFirst) layers = layers.layer(layer).definedBy(layer);
        for (int i = 0; i < lowestFirst.length; i++) {
            String[] above = Arrays.copyOfRange(lowestFirst, i + 1, lowestFirst.length);
            layers = above.length == 0
                    ? layers.whereLayer(lowestFirst[i]).mayNotBeAccessedByAnyLayer()
                    : layers.whereLayer(lowestFirst[i]).mayOnlyBeAccessedByLayers(above);
        }
        return layers;
    }

    @ArchTest
    static final ArchRule A_CLASS_IS_NAMED_FOR_WHAT_IT_IS =
            noClasses().should().haveNameMatching(".*(Manager|Helper|Utils?|Impl|Processor)");

    @ArchTest
    static void every_package_is_null_marked_and_says_its_job(JavaClasses classes) {
        Set<JavaPackage> packages = classes.stream()
                .map(JavaClass::getPackage)
                .filter(one -> one.getName().startsWith("dev.verbale"))
                .collect(Collectors.toSet());

        assertThat(packages)
                .hasSizeGreaterThan(10)
                .allSatisfy(one -> assertThat(one.isAnnotatedWith(NullMarked.class))
                        .as(one.getName())
                        .isTrue());
    }

    /** Those of other modules, which share what starts a JVM. */
    static final class WithoutJarsOfTests implements ImportOption {
        @Override
        public boolean includes(Location location) {
            return !location.contains("-tests.jar");
        }
    }

    private static ArchRule only(String[] packages, String[] known, String... more) {
        return classes()
                .that()
                .resideInAnyPackage(packages)
                .should()
                .onlyDependOnClassesThat()
                .resideInAnyPackage(with(with(known, more), EVERYWHERE));
    }

    private static String[] array(String... texts) {
        return texts;
    }

    private static String[] with(String[] some, String... more) {
        return Stream.concat(Arrays.stream(some), Arrays.stream(more)).toArray(String[]::new);
    }
}
