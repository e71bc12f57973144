package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.Outcome;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Promise 1: what returned is kept, whenever the JVM is killed. */
class KillTest {

    @TempDir
    Path root;

    @ParameterizedTest(name = "{0} threads, killed after {1} acknowledgements")
    @CsvSource({"1, 1", "1, 500", "1, 7000", "4, 50", "4, 3000", "8, 9000"})
    void every_acknowledged_event_is_there_after_the_kill(int threads, int acknowledgements) throws Exception {
        Process victim = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Dverbale.root=" + root,
                        "-cp",
                        System.getProperty("java.class.path"),
                        Victim.class.getName(),
                        String.valueOf(threads))
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        Set<String> acknowledged = new HashSet<>();
        try (var out = new BufferedReader(new InputStreamReader(victim.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = out.readLine(); line != null; line = out.readLine()) {
                acknowledged.add(line);
                if (acknowledged.size() == acknowledgements)
                    victim.toHandle().destroyForcibly(); // leaves the pipe open
            }
        }
        assertThat(victim.waitFor()).as("killed, not ended").isNotZero();
        acknowledged.removeIf(line -> !line.matches("\\d+:\\d+;")); // the pipe may hold half of the last one

        Run run = RunReader.read(root);

        Set<String> kept = new HashSet<>();
        for (TestResult test : run.tests()) collect(test.entries(), kept);
        assertThat(acknowledged).hasSizeGreaterThanOrEqualTo(acknowledgements - threads);
        assertThat(kept).containsAll(acknowledged);
        assertThat(run.tests()).allSatisfy(test -> assertThat(test.outcome()).isEqualTo(Outcome.UNFINISHED));
        assertThat(run.workers()).singleElement().satisfies(worker -> assertThat(worker.ended())
                .isFalse());
        assertThat(run.problems()).as("at most a torn tail").hasSizeLessThanOrEqualTo(1);
    }

    private static void collect(List<Entry> entries, Set<String> notes) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.NoteEntry note) notes.add(note.text());
            else if (entry instanceof Entry.StepEntry step) collect(step.entries(), notes);
        }
    }
}
