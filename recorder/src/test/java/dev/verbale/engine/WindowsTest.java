package dev.verbale.engine;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystem;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A run on a file system of Windows: with drives, with shares of the network, and with all the names that it does not like. */
class WindowsTest {

    private static final int LONGEST_PATH = 260;
    private static final List<String> NAMES = List.of(
            "CON",
            "con.txt",
            "nul",
            "LPT1.log",
            "a:b|c*d?e<f>g\"h",
            "ends with a dot.",
            "ends with a space ",
            "..\\..\\outside",
            "C:\\outside",
            "\\\\server\\share\\outside",
            "Größe und 大きさ",
            "x".repeat(400));

    @ParameterizedTest
    @ValueSource(strings = {"C:\\work\\target\\verbale", "\\\\build-server\\runs\\verbale"})
    void whatever_a_test_is_called_its_folder_is_one_that_windows_can_have(String where) throws Exception {
        try (FileSystem windows = Jimfs.newFileSystem(Configuration.windows().toBuilder()
                .setRoots("C:\\", "\\\\build-server\\runs\\")
                .build())) {
            Path root = windows.getPath(where);

            record(root);

            Run run = RunReader.read(root);
            assertThat(run.problems()).isEmpty();
            assertThat(run.tests())
                    .hasSize(NAMES.size())
                    .allSatisfy(test -> assertThat(test.entries()).isNotEmpty());
            assertThat(files(root)).hasSizeGreaterThan(NAMES.size()).allSatisfy(file -> {
                assertThat(file.toString()).hasSizeLessThan(LONGEST_PATH);
                for (Path part : root.relativize(file))
                    assertThat(part.toString())
                            .doesNotMatch("(?i)(con|prn|aux|nul|com\\d|lpt\\d)(\\..*)?")
                            .doesNotMatch(".*[<>:\"|?*\\\\/].*|.*[. ]");
            });
            try (Stream<Path> besides = Files.list(root.getRoot())) {
                assertThat(besides.map(Path::toString)).noneMatch(path -> path.contains("outside"));
            }
        }
    }

    private static void record(Path root) throws IOException {
        var recorder = new FileRecorder(
                RecorderOptions.defaults().withRoot(root).withSummaryLine(false),
                InstalledAdapters.NONE,
                new ArrayList<>());
        for (String name : NAMES) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("k " + name, name)
                            .className("sample." + name)
                            .methodName(name)
                            .build());
            recorder.attach(name, name.getBytes(StandardCharsets.UTF_8), MediaType.TEXT);
            recorder.endTest(test, TestEnd.passed());
        }
        recorder.end();
    }

    private static List<Path> files(Path root) throws IOException {
        try (Stream<Path> all = Files.walk(root)) {
            return all.filter(Files::isRegularFile).toList();
        }
    }
}
