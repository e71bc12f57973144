package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.results.Entry;
import dev.verbale.results.ModuleKey;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** The calls that a test's author types. */
@Tag("newer-jdk")
class FacadeTest {

    private Scope test;
    private String key;

    @BeforeEach
    void begin(TestInfo info) {
        key = "facade." + info.getDisplayName();
        AdapterRecorder recorder = AdapterRecorder.current();
        test = recorder.startTest(
                recorder.run(), TestDescriptor.of(key, info.getDisplayName()).build());
    }

    @AfterEach
    void end() {
        AdapterRecorder.current().endTest(test, TestEnd.passed());
    }

    @Test
    void a_step_gives_its_value_back() throws Exception {
        int harvest = Verbale.step("Weigh", () -> 12);
        Verbale.step("Carry", () -> Verbale.log("{} kilos, {}", harvest, new int[0].length));

        assertThat(harvest).isEqualTo(12);
        assertThat(entries()).hasSize(2);
        var carry = (Entry.StepEntry) entries().get(1);
        assertThat(((Entry.LogEntry) carry.entries().get(0)).text()).isEqualTo("12 kilos, 0");
    }

    @Test
    void a_step_throws_what_its_body_threw_and_nothing_else() throws Exception {
        var failure = new IOException("no rain");

        assertThatThrownBy(() -> Verbale.step("Water", () -> {
                    throw failure;
                }))
                .isSameAs(failure);

        assertThat(((Entry.StepEntry) entries().get(0)).outcome()).isEqualTo(Outcome.ERRORED);
    }

    /** Compiles only because the exception of a body is inferred: callers declare no more than they did before. */
    @Test
    void a_step_asks_its_caller_for_no_more_than_its_body_does() throws IOException {
        String read = Verbale.step("Read", this::mayFailToRead);
        Verbale.step("Read again", () -> {
            mayFailToRead();
        });
        Verbale.step("Say nothing", () -> {});

        assertThat(read).isEqualTo("read");
    }

    private String mayFailToRead() throws IOException {
        return "read";
    }

    @Test
    void odd_values_are_written_and_never_thrown() throws Exception {
        Object broken = new Object() {
            @Override
            public String toString() {
                throw new IllegalStateException("not today");
            }
        };
        Verbale.log("{} and {}", (Object) null, broken);
        Verbale.log("no place", 1, 2);
        Verbale.data(null, broken);
        Verbale.attach("empty", "", MediaType.TEXT);
        Verbale.step(null, () -> {});

        assertThat(entries()).hasSize(5);
        assertThat(((Entry.LogEntry) entries().get(0)).text())
                .startsWith("null and (IllegalStateException in toString");
        assertThat(((Entry.LogEntry) entries().get(1)).text()).isEqualTo("no place 1 2");
    }

    @Test
    void a_checked_value_is_recorded_where_it_passed_and_where_it_failed() throws Exception {
        Object broken = new Object() {
            @Override
            public boolean equals(Object other) {
                throw new IllegalStateException("not today");
            }

            @Override
            public int hashCode() {
                return 1;
            }

            @Override
            public String toString() {
                return "broken";
            }
        };
        Verbale.check("kilos", 6.3, 6.3);
        Verbale.check("crops", new int[] {1, 2}, new int[] {1, 2});
        Verbale.check("none", null, null);
        Verbale.check("gate password", "turnip-4711", "turnip-4711");
        assertThatThrownBy(() -> Verbale.check("kilos", 6.3, 6.0))
                .isInstanceOf(ValuesDiffer.class)
                .hasMessage("expected 6.3, but was 6.0");
        assertThatThrownBy(() -> Verbale.check("days", 7, 7L))
                .hasMessage("expected 7 (java.lang.Integer), but was 7 (java.lang.Long)");
        assertThatThrownBy(() -> Verbale.check("days", null, new int[] {7})).hasMessage("expected null, but was [7]");
        assertThatThrownBy(() -> Verbale.check("own", broken, "x")).hasMessage("not today");

        assertThat(entries())
                .filteredOn(Entry.CheckEntry.class::isInstance)
                .extracting(entry -> (Entry.CheckEntry) entry)
                .extracting(check -> check.name() + " " + check.outcome() + " " + check.actual())
                .containsExactly(
                        "kilos passed 6.3",
                        "crops passed [1, 2]",
                        "none passed null",
                        "gate password passed [masked]",
                        "kilos failed 6.0",
                        "days failed 7",
                        "days failed [7]",
                        "own errored null");
    }

    @Test
    void a_fact_is_of_the_run_and_its_last_value_stays() throws Exception {
        Verbale.fact("season", "spring");
        Verbale.fact("season", "summer");
        Verbale.fact("season", "summer");

        assertThat(run().facts()).containsEntry("season", "summer").containsKeys("host", "os", "java");
    }

    private Run run() throws IOException {
        return RunReader.read(Path.of(System.getProperty("verbale.root")));
    }

    private List<Entry> entries() throws IOException {
        return run().tests().stream()
                .filter(result -> ModuleKey.withoutModule(result.key()).equals(key))
                .map(TestResult::entries)
                .findFirst()
                .orElseThrow();
    }
}
