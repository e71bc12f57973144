package dev.verbale.assertj;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.file.Path;
import java.util.List;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Test;

/** Each collected failure is in the journal where it happened. */
class VerbaleAssertJTest {

    @Test
    void failures_are_recorded_at_their_moment_and_thrown_once_at_the_end() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("soft", "soft").build());
        recorder.gatherChecks();
        SoftAssertions softly = VerbaleAssertJ.watch(new SoftAssertions());
        softly.assertThat("Ada").isEqualTo("Dario");
        Verbale.log("went on");
        softly.assertThat(1).isEqualTo(1);
        softly.assertThat(2).isEqualTo(3);
        assertThatThrownBy(softly::assertAll).hasMessageContaining("Dario");
        assertThat(recorder.failedChecks())
                .as("AssertJ throws them; nobody else does")
                .isNull();
        recorder.endTest(test, TestEnd.passed());

        List<Entry> entries = RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals("soft"))
                .findFirst()
                .orElseThrow()
                .entries();

        assertThat(entries).hasSize(3);
        var first = (Entry.CheckEntry) entries.get(0);
        assertThat(first.outcome().word()).isEqualTo("failed");
        assertThat(first.failure().message()).contains("Dario");
        assertThat(entries.get(1)).isInstanceOf(Entry.LogEntry.class);
        assertThat(((Entry.CheckEntry) entries.get(2)).failure().message()).contains("3");
    }
}
