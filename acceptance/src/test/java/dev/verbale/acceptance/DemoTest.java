package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.verbale.event.ExchangeMade;
import dev.verbale.folder.RunFolder;
import dev.verbale.hostile.ByNight;
import dev.verbale.results.Entry;
import dev.verbale.results.ExchangeChecks;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.platform.console.ConsoleLauncher;

/** The demo's suite with all faults planted, from the browser to the folder. */
class DemoTest {

    @TempDir
    static Path root;

    private static Run run;
    private static String output;

    @BeforeAll
    static void run_the_suite() throws Exception {
        output = suite(Map.of(), root, "all").output();
        run = RunReader.read(root);
    }

    private static Jvm suite(Map<String, String> environment, Path root, String faults) throws Exception {
        Path suite = Jvm.classPathEntries().stream()
                .filter(entry -> entry.toString().matches(".*orto.*tests?(-classes|\\.jar)"))
                .findFirst()
                .orElseThrow();
        return Jvm.java(
                environment,
                Path.of("").toAbsolutePath(),
                "-Dverbale.root=" + root,
                "-Dverbale.module=.",
                "-Dorto.faults=" + faults,
                "-Dorto.images="
                        + Path.of("../examples/orto/src/test/images")
                                .toAbsolutePath()
                                .normalize(),
                ConsoleLauncher.class.getName(),
                "execute",
                "--scan-classpath=" + suite,
                "--details=none",
                "--disable-banner");
    }

    @Test
    void some_fail_for_reasons_that_can_be_believed() {
        assertThat(run.tests()).hasSizeBetween(62, 75);
        assertThat(run.needingAttention())
                .extracting(TestResult::name, test -> test.outcome().word())
                .as(output)
                .containsExactlyInAnyOrder(
                        tuple("the shed knows who has the key", "failed"),
                        tuple("nobody takes it a second time", "failed"),
                        tuple("gives each the other neighbour", "failed"),
                        tuple("a loan takes one sachet Kale, 1 before and 0 after", "failed"),
                        tuple("the history begins with the latest day", "errored"),
                        tuple("may is warm", "failed"),
                        tuple("a weighing is written down", "failed"),
                        tuple("the total of a crop is the sum of its weighings Strawberries: 6.3 kg", "failed"),
                        tuple("a year can be looked up 2024", "failed"),
                        tuple("a plot is as the contract says", "failed"),
                        tuple("swapping two days swaps their neighbours", "failed"),
                        tuple("a neighbour borrows a sachet of basil", "errored"),
                        tuple("elsa takes the key", "errored"),
                        tuple("a wrong code opens nothing", "errored"),
                        tuple("the curve has all twelve days", "errored"),
                        tuple("the plan looks as it did", "failed"));
        assertThat(run.counts().of(Outcome.SKIPPED)).isEqualTo(1);
        assertThat(run.counts().of(Outcome.ABORTED)).isEqualTo(1);
        assertThat(run.counts().of(Outcome.EXPECTED_FAILURE)).isEqualTo(1);
        assertThat(run.problems()).isEmpty();
        assertThat(run.facts()).containsKeys("browser", "garden", "host", "java");
    }

    @Test
    void failing_browser_tests_have_their_screenshot_and_source_under_their_own_name() throws Exception {
        TestResult swap = test("swapping two days swaps their neighbours");

        List<Entry.AttachmentEntry> attachments = attachments(swap.entries());

        assertThat(attachments)
                .extracting(Entry.AttachmentEntry::kind)
                .containsExactly(
                        AttachmentKind.ATTACHMENT,
                        AttachmentKind.SCREENSHOT,
                        AttachmentKind.PAGE_SOURCE,
                        AttachmentKind.NETWORK,
                        AttachmentKind.VIDEO);
        assertThat(attachments)
                .extracting(entry -> entry.stored().path())
                .allMatch(name -> name.startsWith("tests/RotaPageTest/swapping-two-days-swaps-their-neighbours/0"));
        Path source = attachments.get(2).file();
        assertThat(source).isNotNull();
        assertThat(Files.readString(source)).contains("Watering rota").contains("data-day=\"Thursday\"");
    }

    @Test
    void every_failing_browser_test_has_its_video() {
        List<TestResult> inBrowser = run.needingAttention().stream()
                .filter(test -> test.tags().contains("browser"))
                .toList();

        assertThat(inBrowser)
                .hasSize(6)
                .allSatisfy(test -> assertThat(attachments(test.entries())).anySatisfy(attachment -> {
                    assertThat(attachment.kind()).isEqualTo(AttachmentKind.VIDEO);
                    assertThat(attachment.stored().mediaType()).isEqualTo("video/webm");
                    assertThat(attachment.file()).isNotEmptyFile();
                }));
        assertThat(run.folder().resolve("spool")).as("nothing is left over").doesNotExist();
    }

    @Test
    void a_password_that_was_typed_is_nowhere_and_a_script_error_is_told() throws Exception {
        TestResult key = test("elsa takes the key");
        Entry.AttachmentEntry console = attachments(key.entries()).stream()
                .filter(attachment -> attachment.kind().equals(AttachmentKind.CONSOLE))
                .findFirst()
                .orElseThrow();

        assertThat(Files.readString(console.file())).contains("TypeError", "is not a function");
        assertThat(key.entries().toString()).contains("type [masked] into *Code of the box*");
        try (Stream<Path> files = Files.walk(run.folder())) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                assertThat(Files.readString(file, StandardCharsets.ISO_8859_1))
                        .as(file.toString())
                        .doesNotContain("kohlrabi-1897");
        }
    }

    @Test
    void a_visual_difference_is_shown() {
        assertThat(attachments(test("the plan looks as it did").entries()))
                .extracting(Entry.AttachmentEntry::name)
                .contains("plan of the plots: expected", "plan of the plots: shown", "plan of the plots: difference");
    }

    @Test
    void the_failing_fixture_is_a_step_of_its_test() {
        Entry first = test("nobody takes it a second time").entries().get(0);

        assertThat(((Entry.StepEntry) first).name()).isEqualTo("bruno takes the key");
        assertThat(((Entry.StepEntry) first).outcome()).isEqualTo(Outcome.FAILED);
    }

    @Test
    void each_thing_that_can_be_recorded_is_shown_once() throws Exception {
        List<Entry> plot = test("a plot tells plot 3 grows Tomatoes").entries();
        assertThat(plot.stream().filter(entry -> entry instanceof Entry.CheckEntry))
                .hasSize(2);
        List<Entry> reading = test("a reading is kept").entries();
        assertThat(reading.stream()
                        .filter(entry -> entry instanceof Entry.StepEntry step && step.outcome() == Outcome.SKIPPED))
                .hasSize(1);
        var together = (Entry.StepEntry)
                test("many neighbours may ask at once").entries().get(1);
        assertThat(together.entries().stream().filter(Entry.LogEntry.class::isInstance))
                .as("carried to the pool")
                .hasSize(3);
        assertThat(together.entries().stream().filter(Entry.ExchangeEntry.class::isInstance))
                .as("and its exchanges with it, without their token")
                .hasSize(3)
                .allSatisfy(exchange -> assertThat(((Entry.ExchangeEntry) exchange)
                                .made()
                                .request()
                                .headers())
                        .contains(new ExchangeMade.Header("Authorization", "[masked]")));
        TestResult swap = test("swapping two days swaps their neighbours");
        assertThat(swap.about().owner()).isEqualTo("Chiara");
        assertThat(swap.about().links().get(0).address()).isEqualTo("https://orto.example/to-do/GARDEN-12");
        for (Path journal : new RunFolder(run.folder()).journalFiles())
            assertThat(Files.readString(journal))
                    .contains("turns the lock to [masked]")
                    .doesNotContain("beetroot");
        assertThat(run.overhead()).as("a share, however busy the machine is").isBetween(0.0, 1.0);
    }

    @Test
    void exchanges_tell_what_an_api_did_and_what_was_checked_of_it() throws Exception {
        TestResult year = test("a year can be looked up 2024");
        ExchangeMade broken = exchanges(year.entries()).get(0);
        assertThat(broken.status()).isEqualTo(500);
        assertThat(broken.response().body().text()).contains("/ by zero", "the rain gauge of that year");
        assertThat(broken.trace().address())
                .isEqualTo("https://traces.orto.example/trace/" + broken.trace().id());
        assertThat(ExchangeChecks.of(year).get(broken.id()))
                .extracting(Entry.CheckEntry::name, check -> check.outcome().word())
                .containsExactly(tuple("status code: 200", "failed"));
        assertThat(exchanges(test("the scale is asked again until it is awake").entries()))
                .extracting(ExchangeMade::status)
                .containsExactly(503, 200);
        assertThat(exchanges(test("a photo of the basket is kept").entries())
                        .get(0)
                        .request()
                        .body()
                        .parts())
                .extracting(ExchangeMade.Part::name)
                .containsExactly("photo", "crop");
        assertThat(test("a plot is as the contract says").entries().toString())
                .contains("contract of GET /api/plots/{number} 200 at /squareMetres");
    }

    @Test
    void no_token_is_anywhere_and_the_tablets_archive_has_lost_its_own() throws Exception {
        Entry.AttachmentEntry tablet = attachments(test("what the tablet at the scale asked yesterday is kept beside")
                        .entries())
                .get(0);
        assertThat(tablet.stored().mediaType()).isEqualTo("application/har+json");
        assertThat(Files.readString(tablet.file())).contains("\"X-Scale-Token\",\"value\":\"[masked]\"");
        try (Stream<Path> files = Files.walk(run.folder())) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                assertThat(Files.readString(file, StandardCharsets.ISO_8859_1))
                        .as(file.toString())
                        .doesNotContain("turnip")
                        .doesNotContain("garden-gate-7");
        }
    }

    private static List<ExchangeMade> exchanges(List<Entry> entries) {
        List<ExchangeMade> exchanges = new ArrayList<>();
        for (Entry entry : entries) {
            if (entry instanceof Entry.ExchangeEntry exchange) exchanges.add(exchange.made());
            else if (entry instanceof Entry.StepEntry step) exchanges.addAll(exchanges(step.entries()));
        }
        return exchanges;
    }

    @Test
    void every_line_of_its_journals_is_valid_by_the_published_schema() throws Exception {
        Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(Path.of("..", "docs", "journal.schema.json")));

        int lines = 0;
        for (Path journal : new RunFolder(run.folder()).journalFiles()) {
            for (String line : Files.readAllLines(journal)) {
                assertThat(schema.validate(line, InputFormat.JSON)).as(line).isEmpty();
                lines++;
            }
        }
        assertThat(lines).isGreaterThan(400);
    }

    @Test
    @ByNight
    void without_a_browser_the_api_half_runs_and_the_other_says_why_it_does_not(@TempDir Path elsewhere)
            throws Exception {
        Jvm suite = suite(Map.of("PATH", "/nowhere"), elsewhere, "none");

        Run half = RunReader.read(elsewhere);
        assertThat(suite.code()).as(suite.output()).isZero();
        assertThat(half.needingAttention()).isEmpty();
        assertThat(half.counts().of(Outcome.PASSED)).isGreaterThan(30);
        assertThat(half.tests().stream().filter(test -> test.tags().contains("browser")))
                .isNotEmpty()
                .allSatisfy(test -> {
                    assertThat(test.outcome()).isEqualTo(Outcome.SKIPPED);
                    assertThat(test.reason()).contains("no Chromium or Chrome on the PATH");
                });
    }

    private static TestResult test(String name) {
        return run.tests().stream()
                .filter(test -> test.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static List<Entry.AttachmentEntry> attachments(List<Entry> entries) {
        List<Entry.AttachmentEntry> attachments = new ArrayList<>();
        for (Entry entry : entries) {
            if (entry instanceof Entry.AttachmentEntry attachment) attachments.add(attachment);
            else if (entry instanceof Entry.StepEntry step) attachments.addAll(attachments(step.entries()));
        }
        return attachments;
    }
}
