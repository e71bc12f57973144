package dev.verbale.engine;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.RecorderOptions;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import java.nio.file.Path;
import java.util.ArrayList;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a shutdown hook records after the recorder's own has said goodbye. */
@Tag("newer-jdk")
class LateEventTest {

    @Test
    void an_event_behind_the_journals_last_word_is_kept_and_read(@TempDir Path root) throws Exception {
        var recorder = new FileRecorder(
                RecorderOptions.defaults().withRoot(root).withSummaryLine(false),
                InstalledAdapters.NONE,
                new ArrayList<>());

        recorder.end();
        recorder.log("the gate was locked last");

        Run run = RunReader.read(root);
        assertThat(run.entries().toString()).contains("the gate was locked last");
        assertThat(run.workers())
                .singleElement()
                .satisfies(worker -> assertThat(worker.ended()).isTrue());
        assertThat(run.problems()).isEmpty();
    }
}
