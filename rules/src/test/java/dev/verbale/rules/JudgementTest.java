package dev.verbale.rules;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.SampleRun;
import dev.verbale.rules.Triage.Labelled;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Labels and verdicts. */
class JudgementTest {

    private static final LocalDate TODAY = LocalDate.parse("2026-11-26");

    @TempDir
    Path folder;

    @Test
    void the_first_rule_that_matches_counts_and_the_unknown_come_first() throws Exception {
        Run run = SampleRun.in(folder, "run")
                .test("old", Outcome.ERRORED, SampleRun.failure("java.net.ConnectException", "refused"))
                .test("both", Outcome.FAILED, SampleRun.failure("E", "seeds are gone"))
                .test("unknown", Outcome.FAILED, SampleRun.failure("E", "the lamp is off"))
                .test("passes", Outcome.PASSED, null)
                .read();

        Triage triage = triage(run, """
                triage:
                  - {when: {type: ConnectException}, label: environment, known-until: 2026-11-25}
                  - {when: {message: seeds}, label: product, owner: Ada}
                  - {when: {message: gone}, label: test}
                """);

        assertThat(triage.failures())
                .extracting(JudgementTest::sentence)
                .containsExactly("unknown: none", "old: environment, over", "both: product");
        assertThat(triage.unlabelled()).isEqualTo(1);
        assertThat(triage.expired()).isEqualTo(1);
        assertThat(triage(run, "triage: [{when: {type: Connect}, label: test, known-until: 2026-11-26}]\n")
                        .expired())
                .isZero();
    }

    @Test
    void a_rule_may_ask_for_whatever_was_recorded() throws Exception {
        SampleRun sample = SampleRun.in(folder, "run");
        Failure failure =
                SampleRun.failure("dev.orto.ShedException", "the shed is locked", "dev.orto.Shed.open(Shed.java:3)");
        sample.write(
                TestStarted.of(1, 1, "dev.orto.ShedTest.opens()", "opens")
                        .className("dev.orto.ShedTest")
                        .methodName("opens")
                        .thread("main")
                        .tags(List.of("shed", "slow"))
                        .build(),
                new DataNamed(2, 1, "plot", "7"),
                StepStarted.of(3, 2, StepKind.ACTION, "Turn the key").in(1).build(),
                StepEnded.of(4, 2, Outcome.ERRORED).failure(failure).build(),
                TestEnded.of(5, 1, Outcome.ERRORED).failure(failure).build());
        Run run = sample.read();

        for (String matches : List.of(
                "outcome: errored",
                "message: shed is locked",
                "type: ShedException",
                "frame: dev.orto.Shed.open",
                "test: ShedTest.opens",
                "tag: slow",
                "step: /Turn the k.y/",
                "attempt: 1",
                "data: plot=7",
                "test: [other, opens]",
                "tag: shed, outcome: errored"))
            assertThat(triage(run, "triage: [{when: {" + matches + "}, label: test}]\n")
                            .unlabelled())
                    .as(matches)
                    .isZero();
        for (String other : List.of(
                "outcome: failed",
                "message: open",
                "tag: fast",
                "console: a",
                "exchange: POST",
                "tag: shed, data: plot=8"))
            assertThat(triage(run, "triage: [{when: {" + other + "}, label: test}]\n")
                            .unlabelled())
                    .as(other)
                    .isEqualTo(1);
    }

    @Test
    void a_gate_opens_only_on_what_is_known() throws Exception {
        Run killed =
                SampleRun.in(folder, "killed").test("a", Outcome.PASSED, null).readOpen();
        SampleRun full = SampleRun.in(folder, "full").test("a", Outcome.PASSED, null);
        full.write(new JournalEnded(9_000, 12, Map.of("log", 12L), 0));
        Run missing = full.read();
        Run torn = SampleRun.in(folder, "torn").test("a", Outcome.PASSED, null).read();
        Path journal = torn.folder().resolve("journals/worker-1.jsonl");
        String whole = Files.readString(journal);
        Files.writeString(journal, whole.substring(0, whole.lastIndexOf("{\"event\":\"journal-ended") + 20));
        Run none = SampleRun.in(folder, "none").read();

        for (String rules : List.of("", "gate: {new-failures: 0}\n", "gate: {failures: 5, flaky: 9}\n")) {
            assertThat(verdict(rules, killed))
                    .as(rules)
                    .singleElement()
                    .asString()
                    .startsWith("1 journal has no end: what came after is not known.");
            assertThat(verdict(rules, missing))
                    .singleElement()
                    .asString()
                    .contains("Something is missing", "12 events could not be recorded (12 log)");
            assertThat(verdict(rules, RunReader.read(torn.folder()))).hasSize(1);
            assertThat(verdict(rules, none)).contains("0 tests ran, and at least 1 must.");
        }
        assertThat(verdict("gate: {unclosed: 1}\n", killed)).isEmpty();
        Run more = SampleRun.in(folder, "more")
                .test("a", Outcome.PASSED, null)
                .test("b", Outcome.PASSED, null)
                .read();
        Comparison fewer = Comparison.of(RunDigest.of(more), RunDigest.of(missing), null);
        var asked = new GateRules(null, null, null, null, null, null, 1, null, 0, 0, 0, 12);
        assertThat(Verdict.of(asked, missing, Triage.of(missing, List.of(), TODAY), fewer)
                        .reasons())
                .containsExactly("1 test of the baseline is not there.");
        assertThat(verdict("gate: {missing: 12}\n", missing)).isEmpty();
        assertThat(verdict("gate: {min-tests: 0, unclosed: 1}\n", none)).isEmpty();
    }

    /** Only a set-up failed: each test that is there passed, and none that was there before fails. */
    @Test
    void a_class_that_broke_is_a_new_failure_and_a_shard_that_is_not_there_closes() throws Exception {
        Run before =
                SampleRun.in(folder, "before").test("a", Outcome.PASSED, null).read();
        SampleRun now = SampleRun.in(folder, "now").test("a", Outcome.PASSED, null);
        now.write(new ContainerStarted(1, 1, 0, "sample.ShedTest", "ShedTest", "sample.ShedTest", null));
        now.write(ContainerEnded.of(2, 1, Outcome.ERRORED)
                .failure(SampleRun.failure("E", "locked"))
                .build());
        Run broken = now.read();
        Comparison comparison = Comparison.of(RunDigest.of(before), RunDigest.of(broken), null);

        assertThat(comparison.sentence()).isEqualTo("1 class newly broken.");
        assertThat(verdict("", broken)).containsExactly("1 class needs attention.");
        var asked = new GateRules(null, 0, null, null, null, null, 1, null, null, 0, 0, 0);
        assertThat(Verdict.of(asked, broken, Triage.of(broken, List.of(), TODAY), comparison)
                        .reasons())
                .containsExactly("1 class fails and did not before.");

        SampleRun shard = SampleRun.in(folder, "joined").test("a", Outcome.PASSED, null);
        shard.write(new FactStated(1, FactStated.ABSENT_SHARDS, "2 of 2"));
        assertThat(verdict("gate: {failures: 9}\n", shard.read()))
                .containsExactly("A part is not there. The run is incomplete: shard 2 of 2 is not there.");
        assertThat(verdict("gate: {shards: 1}\n", shard.read())).isEmpty();
    }

    /** Beside tests that are recorded, too; what a JVM took back, for it recorded them later, is none. */
    @Test
    void tests_that_no_adapter_reports_close_a_gate() throws Exception {
        SampleRun sample = SampleRun.in(folder, "half").test("a", Outcome.PASSED, null);
        sample.write(new FactStated(1, FactStated.NOT_RECORDED, "tests of JUnit 4: its adapter is not there"));
        SampleRun back = SampleRun.in(folder, "back").test("a", Outcome.PASSED, null);
        back.write(
                new FactStated(1, FactStated.NOT_RECORDED, "tests of JUnit 4: its adapter is not there"),
                new FactStated(2, FactStated.NOT_RECORDED, ""));
        Run half = sample.read();

        for (String rules : List.of("", "gate: {new-failures: 9}\n"))
            assertThat(verdict(rules, half))
                    .singleElement()
                    .asString()
                    .endsWith("not in it are tests of JUnit 4: its adapter is not there.");
        assertThat(verdict("gate: {missing: 1}\n", half)).isEmpty();
        assertThat(verdict("", back.read())).isEmpty();
    }

    private List<String> verdict(String rules, Run run) throws Exception {
        GateRules gate = rules.isEmpty()
                ? GateRules.STRICT
                : RulesReader.read(Files.writeString(folder.resolve("gate.yaml"), rules))
                        .gate();
        return Verdict.of(gate, run, Triage.of(run, List.of(), TODAY), null).reasons();
    }

    @Test
    void a_gate_says_why_it_is_closed() throws Exception {
        Run before = SampleRun.in(folder, "before")
                .test("a", Outcome.FAILED, SampleRun.failure("E", "x"))
                .test("b", Outcome.PASSED, null)
                .read();
        Run after = SampleRun.in(folder, "after")
                .test("a", Outcome.FAILED, SampleRun.failure("E", "x"))
                .test("b", Outcome.FAILED, SampleRun.failure("E", "y"))
                .read();
        Comparison comparison = Comparison.of(RunDigest.of(before), RunDigest.of(after), null);
        Triage none = Triage.of(after, List.of(), TODAY);

        assertThat(Verdict.of(GateRules.STRICT, before, none, null).reasons())
                .containsExactly("1 test needs attention.");
        assertThat(Verdict.of(new GateRules(2, 1, null, 2, 0, 0, 2, 0, null, 0, 0, 0), after, none, comparison)
                        .passes())
                .isTrue();
        assertThat(Verdict.of(new GateRules(1, 0, null, 1, 0, 0, 3, 0, null, 0, 0, 0), after, none, comparison)
                        .reasons())
                .containsExactly(
                        "2 tests need attention, and 1 is allowed.",
                        "1 test fails and did not before.",
                        "2 tests fail and have no label, and 1 is allowed.",
                        "2 tests ran, and at least 3 must.");
        assertThat(Verdict.of(new GateRules(null, 0, null, null, null, null, null, 0, null, 0, 0, 0), after, none, null)
                        .reasons())
                .containsExactly("2 tests fail, and there is no baseline.");
        assertThat(Verdict.of(new GateRules(2, null, null, null, null, null, null, null, 0, 0, 0, 0), after, none, null)
                        .reasons())
                .containsExactly("Which tests vanished is not known: there is no baseline. The next run has this one.");
    }

    private static String sentence(Labelled one) {
        return one.test().name() + ": " + one.rule().map(TriageRule::label).orElse("none")
                + (one.isExpired() ? ", over" : "");
    }

    private Triage triage(Run run, String rules) throws Exception {
        return Triage.of(
                run,
                RulesReader.read(Files.writeString(folder.resolve("r.yaml"), rules))
                        .triage(),
                TODAY);
    }
}
