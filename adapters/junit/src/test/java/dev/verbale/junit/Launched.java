package dev.verbale.junit;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A JVM of its own that ran samples with the listener on its class path, and what it left behind.
 *
 * @param counts what the platform counted: found, succeeded, failed, aborted, skipped
 */
record Launched(Run run, List<Integer> counts, String output) {

    private static final Map<Class<?>, Launched> ONCE = new ConcurrentHashMap<>();

    static Launched jvm(Path root, List<String> jvmArguments, String... launched) throws Exception {
        List<String> options = new ArrayList<>(List.of("-Dverbale.root=" + root, "-Dverbale.module=."));
        options.addAll(jvmArguments);
        Jvm jvm = Jvm.run(Map.of(), Path.of(""), Jvm.command(options, classPath(), Launch.class, launched));
        String output = jvm.output();
        assertThat(jvm.code()).as(output).isZero();
        String counts = output.lines()
                .filter(line -> line.startsWith(Launch.COUNTS))
                .findFirst()
                .orElseThrow();
        return new Launched(
                RunReader.read(root),
                Stream.of(counts.substring(Launch.COUNTS.length()).split(" "))
                        .map(Integer::valueOf)
                        .toList(),
                output);
    }

    /** That of this JVM, with another version of JUnit where the build says one: a folder of its jars. */
    private static String classPath() throws IOException {
        String own = System.getProperty("java.class.path");
        String version = System.getProperty("other.junit.jars");
        if (version == null) return own;
        try (Stream<Path> jars = Files.list(Path.of(version))) {
            return Stream.concat(
                            jars.map(Path::toString),
                            Stream.of(own.split(File.pathSeparator))
                                    .filter(entry -> !entry.matches(".*junit-(jupiter|platform)[\\w-]*-\\d.*")))
                    .collect(Collectors.joining(File.pathSeparator));
        }
    }

    static Launched jvm(Path root, Class<?>... samples) throws Exception {
        String detect = "junit.jupiter.extensions.autodetection.enabled=true";
        return jvm(
                root,
                List.of(),
                Stream.concat(Stream.of(detect), Stream.of(samples).map(Class::getName))
                        .toArray(String[]::new));
    }

    /** The same for all tests of this JVM that look at what {@code sample} left behind: it is launched for the first of them. */
    static Launched once(Class<?> sample) throws Exception {
        Launched known = ONCE.get(sample);
        if (known != null) return known;
        Path root = Files.createDirectories(Path.of("target", "launched"));
        Launched fresh = jvm(Files.createTempDirectory(root.toAbsolutePath(), sample.getSimpleName()), sample);
        ONCE.put(sample, fresh);
        return fresh;
    }

    /** The same five numbers out of what was recorded. */
    List<Integer> recordedCounts() {
        return List.of(
                run.counts().all(),
                run.counts().of(Outcome.PASSED),
                run.counts().of(Outcome.FAILED) + run.counts().of(Outcome.ERRORED),
                run.counts().of(Outcome.ABORTED),
                run.counts().of(Outcome.SKIPPED));
    }

    TestResult test(String name) {
        return run.tests().stream()
                .filter(test -> test.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no test '" + name + "' in "
                        + run.tests().stream().map(TestResult::name).toList()));
    }
}
