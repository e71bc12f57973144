package dev.verbale.imports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.export.JUnitXml;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Runs of what other tools wrote. */
class RunImporterTest {

    private static final String XML = """
            <?xml version="1.0" encoding="UTF-8"?>
            <testsuite name="sample.ShedTest" tests="4" timestamp="2026-11-24T10:31:07" hostname="alpha" time="1.5">
              <properties><property name="java.version" value="17"/></properties>
              <testcase name="opens" classname="sample.ShedTest" time="0.250"><system-out><![CDATA[the hinge creaks]]></system-out></testcase>
              <testcase name="locks" classname="sample.ShedTest" time="1,000.5">
                <properties><property name="plot" value="7"/></properties>
                <failure message="still open" type="java.lang.AssertionError">java.lang.AssertionError: still open
            	at sample.ShedTest.locks(ShedTest.java:9)</failure>
              </testcase>
              <testcase name="rusts" classname="sample.ShedTest"><skipped message="in winter"/></testcase>
              <testcase name="flickers" classname="sample.ShedTest" time="0.1">
                <flakyError message="cold" type="java.io.IOException"><stackTrace>java.io.IOException: cold</stackTrace></flakyError>
              </testcase>
              <system-out>shed is closed</system-out>
            </testsuite>
            """;

    private static final String TAP = """
            TAP version 14
            1..6
            ok 1 - roses grow
            not ok 2 - seeds sprout
              ---
              message: 'nothing came up'
              duration_ms: 12.5
              ...
            ok 3 - snow falls # SKIP in summer
            not ok 4 - bananas ripen # TODO wrong climate
            # Subtest: compost
                1..2
                ok 1 - is warm
                not ok 2 - smells
            not ok 5 - compost
            Bail out! the gardener left
            """;

    @TempDir
    Path folder;

    /** The same keys, outcomes, attempts and names: nothing is new, vanished or fixed. */
    @Test
    void a_run_that_is_exported_and_imported_is_the_same_run_to_a_history() throws Exception {
        SampleRun sample = SampleRun.in(folder, "own");
        sample.test("passes", Outcome.PASSED, null)
                .test("fails", Outcome.FAILED, SampleRun.failure("E", "dry"))
                .test("waits", Outcome.SKIPPED, null)
                .test("gives up", Outcome.ABORTED, null)
                .test("is known", Outcome.EXPECTED_FAILURE, null)
                .test("flaky", Outcome.ERRORED, SampleRun.failure("E", "cold"))
                .test("flaky", Outcome.PASSED, null);
        sample.write(
                TestStarted.of(500_000, 1, "features/shed.feature/Elsa takes the key", "Elsa takes the key")
                        .source("features/shed.feature:4")
                        .build(),
                TestEnded.of(600_000, 1, Outcome.PASSED).build(),
                TestStarted.of(600_000, 2, "[beds] sample.T.grows(int)#2", "grows [2] Kale")
                        .className("sample.T")
                        .methodName("grows")
                        .build(),
                TestEnded.of(700_000, 2, Outcome.PASSED).build(),
                new ContainerStarted(700_000, 3, 0, "sample.ShedTest", "ShedTest", "sample.ShedTest", null),
                ContainerEnded.of(800_000, 3, Outcome.ERRORED)
                        .failure(SampleRun.failure("E", "locked"))
                        .build());
        for (String module : List.of("beds", "shed"))
            sample.worker(module, module, SampleRun.WALL.plusSeconds(1))
                    .test("opens", module.equals("shed") ? Outcome.FAILED : Outcome.PASSED, null);
        Run own = sample.read();
        var xml = new ByteArrayOutputStream();
        JUnitXml.write(own, xml);
        Files.write(folder.resolve("own.xml"), xml.toByteArray());
        RunImporter.importAll(List.of(folder.resolve("own.xml")), folder.resolve("back"));
        Run back = RunReader.read(folder.resolve("back"));

        RunDigest before = RunDigest.of(own);
        RunDigest after = RunDigest.of(back);
        assertThat(back.counts()).isEqualTo(own.counts());
        assertThat(after.tests())
                .extracting(
                        TestDigest::key,
                        TestDigest::outcome,
                        TestDigest::attempts,
                        TestDigest::recovered,
                        TestDigest::millis)
                .containsExactlyInAnyOrderElementsOf(before.tests().stream()
                        .map(test ->
                                tuple(test.key(), test.outcome(), test.attempts(), test.recovered(), test.millis()))
                        .toList());
        assertThat(after.broken()).isEqualTo(before.broken());
        assertThat(Comparison.of(before, after, null).sentence()).isEqualTo("2 still failing.");
        assertThat(back.tests().stream()
                        .map(test -> test.module() + " has " + test.key())
                        .toList())
                .contains("beds has [beds] sample.opens()", "shed has [shed] sample.opens()")
                .as("a key that only looks like one with a module")
                .contains(" has [] [beds] sample.T.grows(int)#2");
        assertThat(back.tests())
                .filteredOn(TestResult::superseded)
                .extracting(TestResult::outcome)
                .containsExactly(Outcome.ERRORED);
        assertThat(back.duration().toMillis())
                .isLessThanOrEqualTo(own.duration().toMillis());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "+999999999-12-31T23:59:59Z",
                "-999999999-01-01T00:00:00Z",
                "9999-12-31T23:59:59Z",
                "1601-01-01T00:00:00Z"
            })
    void a_time_that_no_clock_shows_costs_the_time_and_nothing_else(String time) throws Exception {
        Files.writeString(folder.resolve("odd.xml"), XML.replace("2026-11-24T10:31:07", time));
        Files.writeString(
                folder.resolve("odd.har"),
                "{\"log\":{\"entries\":[{\"startedDateTime\":\"" + time
                        + "\",\"time\":1e300,\"request\":{\"method\":\"GET\",\"url\":\"http://orto/\"},"
                        + "\"response\":{\"status\":200}}]}}");
        RunImporter.importAll(List.of(folder), folder.resolve("out"));

        Run run = RunReader.read(folder.resolve("out"));

        assertThat(run.counts().all()).isEqualTo(4);
        assertThat(run.entries()).isNotEmpty();
        assertThat(run.started()).isAfter(Instant.parse("2020-01-01T00:00:00Z"));
    }

    @Test
    void junit_xml_becomes_a_run_that_everything_works_on() throws Exception {
        Files.writeString(folder.resolve("TEST-shed.xml"), XML);

        Run run = imported("TEST-shed.xml");

        assertThat(run.counts().all()).isEqualTo(4);
        assertThat(run.counts().of(Outcome.FAILED)).isEqualTo(1);
        assertThat(run.counts().of(Outcome.SKIPPED)).isEqualTo(1);
        assertThat(run.flaky()).extracting(TestResult::methodName).containsExactly("flickers");
        assertThat(run.started()).isEqualTo(Instant.parse("2026-11-24T10:31:07Z"));
        assertThat(run.facts()).containsEntry("host", "alpha").containsEntry("imported from", "1 file");
        TestResult locks = run.needingAttention().get(0);
        assertThat(locks.duration()).isEqualTo(Duration.ofMillis(1_000_500));
        assertThat(locks.failure().message()).isEqualTo("still open");
        assertThat(run.ownFrames().nearest(locks.failure().stack()))
                .isEqualTo("sample.ShedTest.locks(ShedTest.java:9)");
        assertThat(locks.entries())
                .first()
                .isInstanceOfSatisfying(
                        Entry.DataEntry.class, data -> assertThat(data.value()).isEqualTo("7"));
        assertThat(run.tests().get(0).entries())
                .first()
                .isInstanceOfSatisfying(
                        Entry.LogEntry.class, log -> assertThat(log.text()).isEqualTo("the hinge creaks"));
        assertThat(run.problems()).isEmpty();
    }

    @Test
    void an_archive_gives_its_exchanges_to_the_run_and_no_credentials() throws Exception {
        Files.writeString(folder.resolve("browser.har"), """
                {"log": {"version": "1.2", "entries": [
                  {"startedDateTime": "2026-11-24T10:31:08.500+01:00", "time": 40,
                   "request": {"method": "GET", "url": "http://orto/seeds", "headers": [
                     {"name": "Authorization", "value": "Bearer hunter2"}, {"name": "Cookie", "value": "bed=hunter2"}, {"name": "Accept", "value": "*/*"}]},
                   "response": {"status": 503, "headers": [{"name": "set-cookie", "value": "bed=hunter2"}],
                     "content": {"mimeType": "application/json", "size": 2000000, "text": "%s"}}},
                  {"startedDateTime": "2026-11-24T10:31:07+01:00", "time": 5, "request": {"method": "POST", "url": "http://orto/?token=hunter2", "postData": {"mimeType": "application/json", "text": "{\\"password\\":\\"hunter2\\"}"}}, "response": {}}
                ]}}""".formatted("x".repeat(2_000_000)));

        Run run = imported("browser.har");

        assertThat(run.started()).isEqualTo(Instant.parse("2026-11-24T09:31:07Z"));
        assertThat(run.tests()).isEmpty();
        assertThat(run.problems()).isEmpty();
        List<Entry.ExchangeEntry> exchanges = Entry.ExchangeEntry.in(run.entries());
        assertThat(exchanges).extracting(one -> one.made().status()).containsExactlyInAnyOrder(503, 0);
        Entry.ExchangeEntry failed = exchanges.stream()
                .filter(one -> one.made().status() == 503)
                .findFirst()
                .orElseThrow();
        assertThat(failed.at()).isEqualTo(Instant.parse("2026-11-24T09:31:08.500Z"));
        assertThat(failed.duration()).isEqualTo(Duration.ofMillis(40));
        assertThat(failed.made().response().body().isCut()).isTrue();
        assertThat(Files.readString(run.folder().resolve("journals/import-1.jsonl")))
                .contains("Accept")
                .doesNotContain("hunter2");
    }

    @Test
    void what_we_export_comes_back_with_the_same_counts() throws Exception {
        Run run = SampleRun.in(folder, "run")
                .test("passes", Outcome.PASSED, null)
                .test("fails", Outcome.FAILED, SampleRun.failure("E", "x \u0000 ]]> <b>"))
                .test("errs", Outcome.ERRORED, SampleRun.failure("E", "y"))
                .test("flaky", Outcome.ERRORED, SampleRun.failure("E", "z"))
                .test("flaky", Outcome.PASSED, null)
                .test("skipped", Outcome.SKIPPED, null)
                .read();
        var xml = new ByteArrayOutputStream();
        JUnitXml.write(run, xml);
        Files.write(folder.resolve("all.xml"), xml.toByteArray());

        Run back = imported("all.xml");

        assertThat(back.counts()).isEqualTo(run.counts());
        assertThat(back.flaky()).hasSize(1);
    }

    @Test
    void tap_has_subtests_directives_and_diagnostics() throws Exception {
        Files.writeString(folder.resolve("garden.tap"), TAP);

        Run run = imported("garden.tap");

        assertThat(run.tests())
                .extracting(test -> test.name() + ": " + test.outcome().word())
                .containsExactly(
                        "garden › roses grow: passed",
                        "garden › seeds sprout: failed",
                        "garden › snow falls: skipped",
                        "garden › bananas ripen: expected-failure",
                        "garden › compost › is warm: passed",
                        "garden › compost › smells: failed");
        assertThat(run.tests().get(1).failure().message()).isEqualTo("nothing came up");
        assertThat(run.tests().get(1).duration()).isEqualTo(Duration.ofNanos(12_500_000));
        assertThat(run.tests().get(2).reason()).isEqualTo("in summer");
        assertThat(run.problems())
                .extracting(Problem::what)
                .containsExactly(
                        "garden.tap, line 16: the run was given up: the gardener left",
                        "garden.tap, line 16: 'garden' planned 6 tests and has 5; the others never came");
    }

    @Test
    void a_folder_is_searched_and_rows_of_one_name_are_tests_of_their_own() throws Exception {
        Path reports = Files.createDirectories(folder.resolve("reports/deep"));
        Files.writeString(
                reports.resolve("a.xml"),
                "<testsuite name='s.T'><testcase name='row'/><testcase name='row'/></testsuite>");
        Files.writeString(reports.resolve("b.tap"), "1..1\nok 1\n");
        Files.writeString(reports.resolve("c.txt"), "nothing of ours");

        Run run = imported("reports");

        assertThat(run.tests())
                .extracting(TestResult::key)
                .containsExactlyInAnyOrder("s.T.row", "s.T.row#2", "b.test 1");
        assertThat(run.facts()).containsEntry("imported from", "2 files");
        assertThatThrownBy(() -> imported("reports")).isInstanceOf(FileAlreadyExistsException.class);
        assertThatThrownBy(() -> RunImporter.importAll(
                        List.of(reports.resolve("c.txt").getParent().resolve("none")), folder.resolve("x")))
                .isInstanceOf(ResultsFormatException.class);
        assertThatThrownBy(() -> RunImporter.importAll(
                        List.of(Files.createDirectory(folder.resolve("empty"))), folder.resolve("x")))
                .hasMessageContaining("there is no file to import");
    }

    @Test
    void of_a_broken_file_what_stands_before_the_break_counts_and_no_file_opens_others() throws Exception {
        Path secret = Files.writeString(folder.resolve("secret.txt"), "hunter2");
        Files.writeString(
                folder.resolve("entity.xml"),
                "<!DOCTYPE t [<!ENTITY s SYSTEM '" + secret.toUri()
                        + "'>]><testsuite name='s.T'><testcase name='a'/><testcase name='b'><system-out>&s;</system-out></testcase></testsuite>");
        Files.writeString(folder.resolve("cut.xml"), XML.substring(0, XML.indexOf("<testcase name=\"rusts\"") + 9));
        Files.writeString(folder.resolve("other.xml"), "<project><testcase name='a'/></project>");

        Run cut = imported("cut.xml");
        assertThat(cut.tests()).hasSize(2);
        assertThat(cut.problems()).singleElement().asString().contains("cut.xml, line 10: is no XML from here on");
        Run other = imported("other.xml");
        assertThat(other.tests()).isEmpty();
        assertThat(other.problems()).extracting(Problem::what).anyMatch(what -> what.contains("begins with <project>"));
        imported("entity.xml");
        assertThat(Files.readString(folder.resolve("runs/entity.xml/journals/import-1.jsonl")))
                .doesNotContain("hunter2");
    }

    /** What was not read to its end is no evidence of anything. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "<testcase name='b'><failure message=\"boom\">cut he",
                "<testcase name='b'><failure message=\"boom\">an escape \u001b[31m</failure></testcase></testsuite>",
                "<testcase name='b'><failure message=\"boom\">an entity &never;</failure></testcase></testsuite>",
                "<testcase name='b'><failure message=\"bo",
                "<testcase name='b'>",
                ""
            })
    void of_a_torn_file_no_test_passes_that_may_have_failed(String tail) throws Exception {
        Files.writeString(folder.resolve("torn.xml"), "<testsuite name='s.T'><testcase name='a'/>" + tail);

        Run run = imported("torn.xml");

        assertThat(run.problems()).extracting(Problem::what).anyMatch(what -> what.contains("is no XML from here on"));
        assertThat(run.incomplete().notClosed()).as("so that no gate opens").isNotEmpty();
        for (TestResult test : run.tests())
            assertThat(test.outcome())
                    .as(test.name())
                    .isEqualTo(test.name().equals("a") ? Outcome.PASSED : Outcome.UNFINISHED);
    }

    @Test
    void of_a_tap_file_that_planned_more_nobody_knows_the_rest() throws Exception {
        Files.writeString(folder.resolve("more.tap"), "TAP version 14\n1..3\nok 1 - a\nok 2 - b\n");
        Files.writeString(folder.resolve("bail.tap"), "TAP version 14\nok 1 - a\nBail out! no water\n");

        assertThat(imported("more.tap").incomplete().notClosed()).isNotEmpty();
        assertThat(imported("bail.tap").incomplete().notClosed()).isNotEmpty();
    }

    @Test
    void whatever_a_file_holds_it_is_read_or_named() throws Exception {
        Random random = new Random(8);
        for (int i = 0; i < (Boolean.getBoolean("verbale.night") ? 2_000 : 120); i++) {
            boolean isXml = i % 2 == 0;
            byte[] mutated = (isXml ? XML : TAP).getBytes(StandardCharsets.UTF_8);
            for (int changes = random.nextInt(4) + 1; changes > 0; changes--)
                mutated[random.nextInt(mutated.length)] =
                        (byte) "<>/&;\"'=# \n-0159ok.\u00FF".charAt(random.nextInt(20));
            String name = i + (isXml ? ".xml" : ".tap");
            Files.write(folder.resolve(name), mutated);

            assertThatCode(() -> imported(name))
                    .as(new String(mutated, StandardCharsets.UTF_8))
                    .doesNotThrowAnyException();
        }
    }

    private Run imported(String source) throws Exception {
        Path output = folder.resolve("runs").resolve(source);
        return RunReader.read(
                RunImporter.importAll(List.of(folder.resolve(source)), output).path());
    }
}
