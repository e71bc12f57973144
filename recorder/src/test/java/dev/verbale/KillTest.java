package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Promise 1: what returned is kept, whenever the JVM is killed. A third of the victims have virtual threads, on a newer JDK. */
class KillTest {

    private static final int MAX_THREADS = 8;

    @TempDir
    Path root;

    static Stream<Arguments> moments() {
        var random = new Random(20261124); // the same moments in every build, spread over the first 9,000 lines
        List<Arguments> moments = new ArrayList<>();
        for (String threads : List.of("1", "8", "virtual"))
            for (int i = 0; i < (Boolean.getBoolean("verbale.night") ? 10 : 2); i++)
                moments.add(Arguments.of(threads, 1 + random.nextInt(9_000)));
        return moments.stream();
    }

    @ParameterizedTest(name = "{0} threads, killed after {1} acknowledgements")
    @MethodSource("moments")
    void every_acknowledged_event_is_there_after_the_kill(String threads, int acknowledgements) throws Exception {
        Optional<Path> java = java(threads.equals("virtual"));
        assumeTrue(java.isPresent(), "no JDK with virtual threads beside this one");
        List<String> command = Jvm.command(List.of("-Dverbale.root=" + root), Jvm.classPath(), Victim.class, threads);
        command.set(0, java.get().toString());
        Process victim = new ProcessBuilder(command)
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
        assertThat(acknowledged).hasSizeGreaterThanOrEqualTo(acknowledgements - MAX_THREADS);
        acknowledged.removeAll(kept); // which AssertJ would do line by line
        assertThat(acknowledged).as("lost").isEmpty();
        assertThat(run.tests()).allSatisfy(test -> assertThat(test.outcome()).isEqualTo(Outcome.UNFINISHED));
        assertThat(run.workers())
                .singleElement()
                .satisfies(worker -> assertThat(worker.ended()).isFalse());
        assertThat(run.problems()).as("at most a torn tail").hasSizeLessThanOrEqualTo(1);
    }

    /** This JVM's own, or one beside it that has virtual threads. */
    private static Optional<Path> java(boolean virtual) throws IOException {
        Path own = Path.of(System.getProperty("java.home"));
        if (!virtual || Runtime.version().feature() >= 21) return Optional.of(own.resolve("bin/java"));
        try (Stream<Path> others = Files.list(own.toRealPath().getParent())) {
            return others.filter(jdk -> jdk.getFileName().toString().matches(".*\\b(2[1-9]|[3-9]\\d)\\b.*"))
                    .map(jdk -> jdk.resolve("bin/java"))
                    .filter(Files::isExecutable)
                    .findFirst();
        }
    }

    private static void collect(List<Entry> entries, Set<String> texts) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.LogEntry log) texts.add(log.text());
            else if (entry instanceof Entry.StepEntry step) collect(step.entries(), texts);
        }
    }
}
