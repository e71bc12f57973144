package dev.verbale.testing;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.ContainerResult;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A JVM of its own that ran samples with an adapter on its class path, and what it left behind. For the tests of the adapters of
 * test frameworks.
 *
 * @param counts what the framework counted itself: passed, failed, skipped
 */
public record Launched(Run run, List<Integer> counts, String output) {

    private static final Map<List<Object>, Launched> ONCE = new ConcurrentHashMap<>();

    /** Before the three numbers, in the line of the output that has them. */
    public static final String COUNTS = "own counts: ";

    /** The class path of this JVM. */
    public static List<String> classPath() {
        return List.of(System.getProperty("java.class.path").split(File.pathSeparator));
    }

    /**
     * {@code main} as {@link #jvm(Path, Class, String...)} runs it, for the first test of this JVM that looks at what these arguments
     * leave behind: the others look at the same. Nobody may change what lies there.
     */
    public static Launched once(List<String> classPath, Class<?> main, String... arguments) throws Exception {
        List<Object> what = List.of(classPath, main, List.of(arguments));
        Launched known = ONCE.get(what);
        if (known != null) return known;
        Path root = Files.createDirectories(Path.of("target", "launched").toAbsolutePath());
        Launched fresh =
                jvm(Files.createTempDirectory(root, main.getSimpleName()), classPath, List.of(), main, arguments);
        ONCE.put(what, fresh);
        return fresh;
    }

    /** {@code main} with the class path of this JVM. */
    public static Launched jvm(Path root, Class<?> main, String... arguments) throws Exception {
        return jvm(root, classPath(), List.of(), main, arguments);
    }

    /** {@code main}, which says what its framework counted. */
    public static Launched jvm(
            Path root, List<String> classPath, List<String> jvmArguments, Class<?> main, String... arguments)
            throws Exception {
        List<String> options = new ArrayList<>(List.of("-Dverbale.root=" + root, "-Dverbale.module=."));
        options.addAll(jvmArguments);
        String output = Jvm.run(
                        Map.of(),
                        Path.of(""),
                        Jvm.command(options, String.join(File.pathSeparator, classPath), main, arguments))
                .output();
        String counts = output.lines()
                .filter(line -> line.startsWith(COUNTS))
                .findFirst()
                .orElseThrow(() -> new AssertionError(output));
        return new Launched(
                RunReader.read(root),
                Stream.of(counts.substring(COUNTS.length()).split(" "))
                        .map(Integer::valueOf)
                        .toList(),
                output);
    }

    /** The same three numbers out of what was recorded. */
    public List<Integer> recordedCounts() {
        return List.of(
                run.counts().of(Outcome.PASSED) + run.counts().of(Outcome.EXPECTED_FAILURE),
                run.counts().of(Outcome.FAILED) + run.counts().of(Outcome.ERRORED),
                run.counts().of(Outcome.SKIPPED) + run.counts().of(Outcome.ABORTED));
    }

    /** The first attempt of the test with that name. */
    public TestResult test(String name) {
        return attempts(name).get(0);
    }

    /** All attempts of the test with that name. */
    public List<TestResult> attempts(String name) {
        List<TestResult> all =
                run.tests().stream().filter(test -> test.name().equals(name)).toList();
        assertThat(all).as(() -> "'" + name + "' among " + names()).isNotEmpty();
        return all;
    }

    private String names() {
        return run.tests().stream().map(TestResult::name).collect(Collectors.joining(", "));
    }

    /** The container with that name. */
    public ContainerResult container(String name) {
        return run.containers().stream()
                .filter(container -> container.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no container '" + name + "' in "
                        + run.containers().stream().map(ContainerResult::name).toList()));
    }

    /** All tests as they can be compared with those of another run: a line each, with what happened in them. */
    public List<String> record() {
        return run.tests().stream()
                .map(test -> test.id() + " | " + test.name() + " | " + test.path() + " | " + test.tags() + " | "
                        + test.outcome().word() + " | " + test.reason() + " | " + Outline.of(test.entries()))
                .sorted()
                .toList();
    }
}
