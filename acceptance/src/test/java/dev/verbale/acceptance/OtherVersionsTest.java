package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.as;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;
import static org.assertj.core.api.InstanceOfAssertFactories.STRING;

import dev.verbale.Verbale;
import dev.verbale.hostile.ByNight;
import dev.verbale.logback.VerbaleAppender;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.testing.Jvm;
import java.io.File;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.slf4j.LoggerFactory;

/**
 * A recorder and an adapter of different versions, as builds bring about that name one of them themselves. The older ones are built
 * from this project's own history, which a checkout without history has not: there these tests are aborted.
 */
@ByNight
class OtherVersionsTest {

    /** Before a line of a logger was built by name: an adapter of then calls a constructor that is gone. */
    private static final String UNFIT = "fc3eca5588ecd6e4e1115ca8c9bfe357f31f8571";

    /** Since then what an adapter calls only grows. */
    private static final String FIT = "093bd732184b83715358ee92ed4ad78c6a9d8b58";

    private static final Path PROJECT = Path.of("..").toAbsolutePath().normalize();
    private static final String NUMBER = "0.1.0";

    @TempDir
    static Path folder;

    private static Older unfit;
    private static Older fit;

    /** The jars of an earlier state. */
    private record Older(List<Path> recorder, Path adapter) {}

    @BeforeAll
    static void build_the_older_ones() throws Exception {
        unfit = built(UNFIT, List.of("format", "recorder"));
        fit = built(FIT, List.of("format", "secrets", "recorder"));
    }

    /** What runs in the other JVM. */
    public static void main(String[] arguments) {
        VerbaleAppender.install((ch.qos.logback.classic.LoggerContext) LoggerFactory.getILoggerFactory());
        Verbale.step("Water bed 3", () -> {
            for (int i = 0; i < 3; i++) LoggerFactory.getLogger("dev.orto.Pump").warn("the pump stands still");
        });
        System.out.println("the suite went on");
    }

    @Test
    void an_adapter_that_does_not_fit_a_newer_recorder_is_named_and_the_suite_goes_on() throws Exception {
        Run run = recorded(List.of(unfit.adapter()), withoutOurs("logback"));

        assertThat(run.problems().get(0).what())
                .contains("dev.verbale.logback.LogbackAdapter", NUMBER, "Take all of them from one version");
        assertThat(run.problems())
                .extracting(Problem::what)
                .filteredOn(what -> what.startsWith("The lines of a logger are lost"))
                .as("said once, of three lines")
                .singleElement(as(STRING))
                .contains("NoSuchMethodError", "Take all of them from one version");
        assertThat(lines(run)).hasSize(3).allMatch(line -> line.startsWith("(a line could not be made: "));
    }

    @Test
    void an_adapter_that_does_not_fit_an_older_recorder_costs_its_lines_and_not_the_suite() throws Exception {
        Run run = recorded(unfit.recorder(), withoutOurs("format", "secrets", "recorder"));

        assertThat(lines(run)).hasSize(3).allMatch(line -> line.startsWith("(a line could not be made: "));
    }

    @Test
    void an_adapter_that_fits_is_named_where_it_is_of_another_version_and_loses_nothing() throws Exception {
        Run newerRecorder = recorded(List.of(fit.adapter()), withoutOurs("logback"));
        Run olderRecorder = recorded(fit.recorder(), withoutOurs("format", "secrets", "recorder"));

        assertThat(newerRecorder.problems())
                .extracting(Problem::what)
                .singleElement(as(STRING))
                .contains("dev.verbale.logback.LogbackAdapter", NUMBER, "Take all of them from one version");
        assertThat(lines(newerRecorder)).hasSize(3).containsOnly("the pump stands still");
        assertThat(lines(olderRecorder)).hasSize(3).containsOnly("the pump stands still");
    }

    private Run recorded(List<Path> first, List<Path> then) throws Exception {
        Path root = Files.createTempDirectory(folder, "run");
        String classPath = Stream.concat(first.stream(), then.stream())
                .map(Path::toString)
                .collect(Collectors.joining(File.pathSeparator));
        Jvm suite = Jvm.bareJava(
                Map.of(),
                root,
                "-cp",
                classPath,
                "-Dverbale.root=" + root.resolve("runs"),
                OtherVersionsTest.class.getName());
        assertThat(suite.code()).as(suite.output()).isZero();
        assertThat(suite.output()).contains("the suite went on");
        return RunReader.read(root.resolve("runs"));
    }

    private static List<String> lines(Run run) {
        return run.entries().stream()
                .flatMap(entry -> Entry.inside(entry).stream())
                .filter(Entry.LogEntry.class::isInstance)
                .map(entry -> ((Entry.LogEntry) entry).text())
                .toList();
    }

    /** This JVM's class path but for those modules of ours. */
    private static List<Path> withoutOurs(String... modules) {
        return Jvm.classPathEntries().stream()
                .filter(entry -> Stream.of(modules).noneMatch(module -> isOf(entry, module)))
                .toList();
    }

    /** Its jar, or its classes where the build makes no jars. */
    private static boolean isOf(Path entry, String module) {
        return entry.getFileName().toString().startsWith("verbale-" + module + "-")
                || entry.endsWith(Path.of(module, "target", "classes"));
    }

    private static Older built(String commit, List<String> modules) throws Exception {
        List<String> paths = new ArrayList<>();
        for (String module : modules) paths.add(module + "/src/main");
        String adapter = "adapters/logback/src/main";
        Path sources = Files.createDirectories(folder.resolve(commit));
        List<String> command = new ArrayList<>(List.of("sh", "-c"));
        command.add("git -C '" + PROJECT + "' archive " + commit + " " + String.join(" ", paths) + " " + adapter
                + " | tar x -C '" + sources + "'");
        Jvm.run(Map.of(), folder, command);
        assumeThat(sources.resolve(adapter))
                .as("the history of this checkout has " + commit)
                .exists();
        List<Path> recorder = new ArrayList<>();
        for (String path : paths) recorder.add(jar(sources.resolve(path), recorder));
        return new Older(recorder, jar(sources.resolve(adapter), recorder));
    }

    private static Path jar(Path sources, List<Path> others) throws Exception {
        Path classes = Files.createTempDirectory(folder, "classes");
        String classPath = Stream.concat(
                        others.stream(), withoutOurs("format", "secrets", "recorder", "logback").stream())
                .map(Path::toString)
                .collect(Collectors.joining(File.pathSeparator));
        List<String> arguments =
                new ArrayList<>(List.of("-cp", classPath, "-proc:none", "-nowarn", "-d", classes.toString()));
        try (Stream<Path> files = Files.walk(sources.resolve("java"))) {
            files.map(Path::toString)
                    .filter(file -> file.endsWith(".java") && !file.endsWith("module-info.java"))
                    .forEach(arguments::add);
        }
        Compiled.with(arguments);
        if (Files.exists(sources.resolve("resources"))) copy(sources.resolve("resources"), classes);
        var manifest = new Manifest();
        manifest.getMainAttributes().put(Attributes.Name.MANIFEST_VERSION, "1.0");
        manifest.getMainAttributes().put(Attributes.Name.IMPLEMENTATION_VERSION, NUMBER);
        Path jar = classes.resolveSibling(classes.getFileName() + ".jar");
        try (OutputStream out = Files.newOutputStream(jar);
                var packed = new JarOutputStream(out, manifest);
                Stream<Path> files = Files.walk(classes)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                packed.putNextEntry(
                        new JarEntry(classes.relativize(file).toString().replace(File.separatorChar, '/')));
                Files.copy(file, packed);
            }
        }
        return jar;
    }

    /** With the number that Maven would have put there. */
    private static void copy(Path from, Path to) throws Exception {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Path copy = to.resolve(from.relativize(file).toString());
                Files.createDirectories(copy.getParent());
                if (file.toString().endsWith(".properties"))
                    Files.writeString(copy, Files.readString(file).replace("${project.version}", NUMBER));
                else Files.copy(file, copy);
            }
        }
    }
}
