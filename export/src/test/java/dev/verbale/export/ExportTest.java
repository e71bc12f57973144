package dev.verbale.export;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.rules.Rules;
import dev.verbale.rules.RulesReader;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.Triage;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.StringReader;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.validation.SchemaFactory;
import javax.xml.validation.Validator;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.apache.maven.plugin.surefire.log.api.NullConsoleLogger;
import org.apache.maven.plugins.surefire.report.ReportTestSuite;
import org.apache.maven.plugins.surefire.report.SurefireReportParser;
import org.jsoup.Jsoup;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.w3c.dom.NodeList;

/** A run with all that can happen, and texts that mean something elsewhere, through every door. */
class ExportTest {

    private static final String HOSTILE =
            "=1+1 | <script>*_[x](javascript:1)_*</script> ]]> & \"q\" \u0000\u001B[31m \uD800 \uD83C\uDF31";

    @TempDir
    Path folder;

    private Run run;

    @BeforeEach
    void record() throws Exception {
        SampleRun sample = SampleRun.in(folder, "tonight");
        sample.test("passes", Outcome.PASSED, null);
        sample.test("fails", Outcome.FAILED, SampleRun.failure("E", HOSTILE));
        sample.test("errs", Outcome.ERRORED, SampleRun.failure("E", "no shed"));
        sample.test("skipped", Outcome.SKIPPED, null);
        sample.test("flaky", Outcome.ERRORED, SampleRun.failure("E", "cold cache"));
        sample.test("flaky", Outcome.PASSED, null);
        sample.test("twice", Outcome.FAILED, SampleRun.failure("E", "first"));
        sample.test("twice", Outcome.FAILED, SampleRun.failure("E", "second"));
        Files.writeString(sample.path().resolve("shot.txt"), "x");
        var stored = new AttachmentStored.StoredFile("shot.txt", "text/plain", 1, null);
        sample.write(
                TestStarted.of(900_000, 900, "k|" + HOSTILE, HOSTILE)
                        .thread("main")
                        .tags(List.of("seeds", HOSTILE))
                        .build(),
                StepStarted.of(900_100, 901, StepKind.ACTION, HOSTILE).in(900).build(),
                LogWritten.of(900_200, 901, HOSTILE).build(),
                AttachmentStored.of(900_300, 901, "shot", "attachment", stored).build(),
                StepEnded.of(900_400, 901, Outcome.PASSED).build(),
                TestEnded.of(901_000, 900, Outcome.PASSED).build(),
                ContainerStarted.of(910_000, 910, "sample.Shed", "Shed")
                        .className("sample.Shed")
                        .build(),
                ContainerEnded.of(910_100, 910, Outcome.ERRORED)
                        .failure(SampleRun.failure("E", "no key"))
                        .notRun(2)
                        .build());
        run = sample.read();
    }

    @Test
    void junit_xml_is_read_by_surefires_own_reader_with_the_same_counts() throws Exception {
        var bytes = new ByteArrayOutputStream();
        JUnitXml.write(run, bytes);
        Path reports = Files.createDirectories(folder.resolve("reports"));
        Files.write(reports.resolve("TEST-tonight.xml"), bytes.toByteArray());

        List<ReportTestSuite> suites =
                new SurefireReportParser(List.of(reports.toFile()), new NullConsoleLogger()).parseXMLReportFiles();

        assertThat(suites).extracting(ReportTestSuite::getFullClassName).contains("sample.T", "sample.Shed");
        ReportTestSuite classes = suites.stream()
                .filter(one -> one.getFullClassName().equals("sample.T"))
                .findFirst()
                .orElseThrow();
        assertThat(classes.getNumberOfTests()).isEqualTo(6);
        assertThat(classes.getNumberOfFailures()).isEqualTo(2);
        assertThat(classes.getNumberOfErrors()).isEqualTo(1);
        assertThat(classes.getNumberOfSkipped()).isEqualTo(1);
        assertThat(classes.getNumberOfFlakes()).isEqualTo(1);
    }

    /**
     * The one schema of this format in the registries is of 2010. What came after it is taken out first: {@code skipped},
     * properties of a case, Surefire's elements for attempts, the sums of the root.
     */
    @Test
    void junit_xml_is_valid_by_the_schema_that_a_ci_system_publishes() throws Exception {
        var bytes = new ByteArrayOutputStream();
        JUnitXml.write(run, bytes);
        DocumentBuilderFactory documents = DocumentBuilderFactory.newInstance();
        documents.setNamespaceAware(true);
        Document xml = documents.newDocumentBuilder().parse(new ByteArrayInputStream(bytes.toByteArray()));
        for (String later :
                List.of("skipped", "properties", "flakyError", "flakyFailure", "rerunError", "rerunFailure"))
            for (Node element : elements(xml, later)) element.getParentNode().removeChild(element);
        Element root = xml.getDocumentElement();
        while (root.getAttributes().getLength() > 0)
            root.removeAttribute(root.getAttributes().item(0).getNodeName());
        URL schema = getClass().getClassLoader().getResource("com/thalesgroup/dtkit/junit/model/xsd/junit-1.0.xsd");
        Validator validator =
                SchemaFactory.newDefaultInstance().newSchema(schema).newValidator();

        validator.validate(new DOMSource(xml));

        assertThat(elements(xml, "testcase")).hasSize(8);
        ((Element) elements(xml, "testcase").get(0)).removeAttribute("name");
        assertThatThrownBy(() -> validator.validate(new DOMSource(xml))).hasMessageContaining("'name' must appear");
    }

    private static List<Node> elements(Document xml, String name) {
        NodeList found = xml.getElementsByTagName(name);
        return IntStream.range(0, found.getLength()).mapToObj(found::item).toList();
    }

    @Test
    void junit_xml_is_well_formed_whatever_was_recorded_and_names_attachments() throws Exception {
        var bytes = new ByteArrayOutputStream();
        JUnitXml.write(run, bytes);

        Document xml = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(bytes.toByteArray()));

        Element root = xml.getDocumentElement();
        assertThat(root.getAttribute("tests")).isEqualTo("8");
        assertThat(root.getAttribute("failures")).isEqualTo("2");
        assertThat(root.getAttribute("errors")).isEqualTo("2");
        assertThat(root.getAttribute("skipped")).isEqualTo("1");
        assertThat(xml.getElementsByTagName("rerunFailure").getLength()).isEqualTo(1);
        assertThat(xml.getElementsByTagName("flakyError").getLength()).isEqualTo(1);
        assertThat(xml.getElementsByTagName("system-out").item(0).getTextContent())
                .contains("<script>", "]]>", "\uD83C\uDF31", "[[ATTACHMENT|shot.txt]]")
                .doesNotContain("\u001B");
    }

    @Test
    void a_mail_has_no_script_no_link_and_its_images_inside_and_its_twin_says_the_same() throws Exception {
        SampleRun sample = SampleRun.in(folder, "mail");
        var image = new BufferedImage(1_000, 500, BufferedImage.TYPE_INT_ARGB);
        ImageIO.write(image, "png", sample.path().resolve("shot.png").toFile());
        Files.writeString(sample.path().resolve("broken.png"), "no image");
        sample.write(
                TestStarted.of(0, 1, "k", HOSTILE).thread("main").build(),
                AttachmentStored.of(
                                1,
                                1,
                                "shot",
                                AttachmentKind.SCREENSHOT,
                                new AttachmentStored.StoredFile("shot.png", "image/png", 1, null))
                        .build(),
                TestEnded.of(2, 1, Outcome.FAILED)
                        .failure(SampleRun.failure("E", HOSTILE))
                        .build(),
                TestStarted.of(10, 2, "l", "lost").thread("main").build(),
                AttachmentStored.of(
                                11,
                                2,
                                "shot",
                                AttachmentKind.SCREENSHOT,
                                new AttachmentStored.StoredFile("broken.png", "image/png", 1, null))
                        .build(),
                TestEnded.of(12, 2, Outcome.FAILED)
                        .failure(SampleRun.failure("E", "the gate is lost"))
                        .build());
        Run read = sample.read();

        String html = MailSummary.html(today(read, null, Rules.NONE));
        String text = MailSummary.text(today(read, null, Rules.NONE));

        var mail = Jsoup.parse(html);
        assertThat(mail.select("script, link, a, form, iframe")).isEmpty();
        assertThat(mail.select("style").html())
                .startsWith("@media (prefers-color-scheme: dark)")
                .doesNotContain("url", "@import");
        assertThat(mail.select("[class], [onclick]")).isEmpty();
        assertThat(mail.select("img").eachAttr("src"))
                .singleElement()
                .asString()
                .startsWith("data:image/jpeg;base64,");
        assertThat(mail.select("h1").text()).startsWith("2 of 2 tests did not pass");
        assertThat(mail.select("h2").eachText()).containsExactly("Failures (2)");
        assertThat(mail.select("h3")).hasSize(2);
        assertThat(text)
                .startsWith("2 of 2 tests did not pass")
                .contains("No run is known to compare it with.", "Failures (2)", "* the gate is lost\n  - lost")
                .doesNotContain("\u001B");
        assertThat(mail.select("li").eachText())
                .allSatisfy(test -> assertThat(text).contains("  - " + test.substring(0, 4)));
    }

    private static TodayParts today(Run run, @Nullable Comparison comparison, Rules rules) {
        LocalDate day = LocalDate.of(2026, 11, 30);
        Triage triage = Triage.of(run, rules.triage(), day);
        return TodayParts.of(Today.of(run, triage, rules, comparison, null), day, ZoneOffset.UTC);
    }

    @Test
    void markdown_says_what_is_new_and_why_and_nothing_recorded_is_read_as_markup() {
        Comparison comparison = Comparison.of(RunDigest.of(run), RunDigest.of(run), null);

        TodayParts today = today(run, comparison, Rules.NONE);
        String text = MarkdownSummary.of(run, today, MarkdownSummary.USUAL_LIMIT);

        assertThat(text)
                .startsWith("## 3 of 7 tests did not pass")
                .contains("| passed | 3 |", "| of them flaky | 1 |", "### Still failing (4)", "**no shed**")
                .contains("### Passed only on a later attempt (1)\n\n**cold cache**\n\n- flaky")
                .doesNotContain("<script>", "[x](", " *_", "### New");
        assertThat(text.lines()).allMatch(line -> line.chars().noneMatch(Character::isISOControl));
        for (int limit = 500; limit < 1_200; limit += 7) {
            String cut = MarkdownSummary.of(run, today, limit);
            assertThat(cut.getBytes(StandardCharsets.UTF_8).length).isLessThanOrEqualTo(limit);
            if (!cut.equals(text)) assertThat(cut).endsWith(" lines more\n");
        }
    }

    @Test
    void what_a_team_says_of_failures_is_in_xml_markdown_and_mail() throws Exception {
        TestResult failed = run.needingAttention().get(0);
        var labels = new Labels(Map.of(failed.id(), "the <well> team, owner Ada, known until 2099-12-31"));
        Path file = Files.writeString(folder.resolve("rules.yaml"), """
                labels: [the <well> team]
                triage:
                  - when: {type: E, outcome: failed}
                    label: the <well> team
                    owner: Ada
                    known-until: 2099-12-31
                """);
        TodayParts today = today(run, null, RulesReader.read(file));
        var xml = new ByteArrayOutputStream();

        JUnitXml.write(run, labels, xml);

        assertThat(xml.toString(StandardCharsets.UTF_8))
                .containsOnlyOnce("name=\"label\" value=\"the &lt;well&gt; team, owner Ada, known until 2099-12-31\"");
        assertThat(MarkdownSummary.of(run, today, MarkdownSummary.USUAL_LIMIT))
                .contains("### Known (2)", "\n*the \\<well\\> team, owner Ada, known until 2099\\-12\\-31*\n");
        assertThat(MailSummary.html(today)).contains(">the &lt;well&gt; team, owner Ada");
        assertThat(MailSummary.text(today)).contains("\n  the <well> team, owner Ada");
    }

    @Test
    void tables_come_back_as_they_were_and_hold_no_formula() throws Exception {
        var tests = new StringBuilder();
        var steps = new StringBuilder();
        CsvTables.tests(run, tests);
        CsvTables.steps(run, steps);

        List<CSVRecord> rows = rows(tests);
        assertThat(rows).hasSize(9);
        assertThat(rows).filteredOn(row -> row.get("counts").equals("true")).hasSize(7);
        assertThat(rows.get(1).get("message")).startsWith("'=1+1");
        assertThat(rows.get(1).get("reason")).hasSize(12);
        assertThat(rows.get(8).get("name")).startsWith("'=1+1 | <script>").endsWith("\uD83C\uDF31");
        assertThat(rows(steps))
                .singleElement()
                .satisfies(row -> assertThat(row.get("outcome")).isEqualTo("passed"));
    }

    private static List<CSVRecord> rows(CharSequence csv) throws Exception {
        try (var parser = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(csv.toString()))) {
            return parser.getRecords();
        }
    }

    @Test
    void the_summary_is_as_its_schema_says() throws Exception {
        var bytes = new ByteArrayOutputStream();
        JsonSummary.write(run, bytes);
        String json = bytes.toString(StandardCharsets.UTF_8);

        assertThat(json).contains("\"tests\":7", "\"needingAttention\":4", "\"broken\":1", "\"flaky\":1");
        Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(Path.of("../docs/summary.schema.json")));
        assertThat(schema.validate(json, InputFormat.JSON)).isEmpty();
        assertThat(schema.validate(json.replace("\"flaky\":1", "\"flaky\":-1"), InputFormat.JSON))
                .isNotEmpty();
    }
}
