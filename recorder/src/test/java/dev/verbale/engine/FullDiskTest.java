package dev.verbale.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.summary.Headline;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystem;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import org.junit.jupiter.api.Test;

/** A disk that fills up and has room again: the suite goes on, and the run says how much of what is missing. */
class FullDiskTest {

    private static final int BLOCK = 512;
    private static final Configuration SMALL = Configuration.unix().toBuilder()
            .setBlockSize(BLOCK)
            .setMaxSize(200 * BLOCK)
            .build();

    @Test
    void the_suite_goes_on_and_the_run_counts_what_is_missing() throws Exception {
        try (FileSystem disk = Jimfs.newFileSystem(SMALL)) {
            Path root = disk.getPath("/runs");
            FileRecorder recorder = new FileRecorder(
                    RecorderOptions.defaults().withRoot(root).withSummaryLine(false),
                    InstalledAdapters.NONE,
                    new ArrayList<>());
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "waters").build());

            Path ballast = fill(disk);
            assertThatCode(() -> {
                        for (int i = 0; i < 40; i++) recorder.log("a line that finds no room " + "x".repeat(200));
                        recorder.attach("video", new byte[5_000], MediaType.of("video/webm"));
                        recorder.startStep("goes on").passed();
                    })
                    .doesNotThrowAnyException();
            Files.delete(ballast);
            recorder.log("there is room again");
            recorder.endTest(test, TestEnd.passed());
            recorder.end();

            Run run = RunReader.read(root);
            assertThat(run.tests()).singleElement().satisfies(read -> {
                assertThat(read.outcome()).isEqualTo(Outcome.PASSED);
                assertThat(read.entries().toString()).contains("there is room again");
            });
            assertThat(run.workers().get(0).missing()).isGreaterThan(20);
            assertThat(run.problems())
                    .extracting(Problem::what)
                    .anySatisfy(what -> assertThat(what)
                            .contains(
                                    "events could not be recorded",
                                    "log=",
                                    "attachment=1",
                                    "step-started=1",
                                    "step-ended=1"));
        }
    }

    @Test
    void a_disk_that_stays_full_is_said_at_the_end_and_by_whoever_reads() throws Exception {
        PrintStream out = System.out;
        var output = new ByteArrayOutputStream();
        try (FileSystem disk = Jimfs.newFileSystem(SMALL)) {
            Path root = disk.getPath("/runs");
            FileRecorder recorder = new FileRecorder(
                    RecorderOptions.defaults().withRoot(root), InstalledAdapters.NONE, new ArrayList<>());
            fill(disk);
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "waters").build());
            for (int i = 0; i < 40; i++) recorder.log("a line that finds no room " + "x".repeat(200));
            recorder.endTest(test, TestEnd.passed());
            System.setOut(new PrintStream(output, true, StandardCharsets.UTF_8));
            recorder.end();

            Run run = RunReader.read(root);
            assertThat(Headline.of(run)).contains("The run is incomplete", "worker-1 was never closed");
        } finally {
            System.setOut(out);
        }
        assertThat(output.toString(StandardCharsets.UTF_8))
                .contains("1 test: 1 passed")
                .containsPattern("The run is incomplete: \\d+ log, 1 test-ended.* could not be recorded");
    }

    /** The test began while there was no room, and there is room when it ends: its beginning is made up for. */
    @Test
    void what_began_without_room_has_its_place_once_there_is() throws Exception {
        try (FileSystem disk = Jimfs.newFileSystem(SMALL)) {
            Path root = disk.getPath("/runs");
            FileRecorder recorder = new FileRecorder(
                    RecorderOptions.defaults().withRoot(root).withSummaryLine(false),
                    InstalledAdapters.NONE,
                    new ArrayList<>());
            Path ballast = fill(disk);
            for (int i = 0; i < 20; i++) recorder.log("until the last block is full " + "x".repeat(200));
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "waters").build());
            Step outer = recorder.startStep("outer");
            recorder.startStep("inner");
            Files.delete(ballast);
            recorder.log("in the inner step");
            outer.passed();
            recorder.endTest(test, TestEnd.passed());
            recorder.end();

            Run run = RunReader.read(root);
            assertThat(run.tests()).singleElement().satisfies(read -> {
                assertThat(read.outcome()).isEqualTo(Outcome.PASSED);
                var step = (Entry.StepEntry) read.entries().get(0);
                assertThat(step.name()).isEqualTo("outer");
                assertThat(((Entry.StepEntry) step.entries().get(0)).name()).isEqualTo("inner");
            });
            assertThat(run.incomplete().byKind()).containsKey("log").doesNotContainKeys("test-started", "step-started");
        }
    }

    /** Until not one byte fits. */
    private static Path fill(FileSystem disk) throws Exception {
        Path ballast = disk.getPath("/ballast");
        byte[] block = "b".repeat(BLOCK).getBytes(StandardCharsets.UTF_8);
        try (var out = Files.newOutputStream(ballast)) {
            while (true) out.write(block);
        } catch (IOException full) {
            return ballast;
        }
    }
}
