package dev.verbale.packing;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.folder.RunFolder;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Random;

/** Runs that were recorded, with something of everything. */
public final class RecordedRun {

    private static final Random RANDOM = new Random(11);

    private final AdapterRecorder recorder;

    public RecordedRun(Path root, String name) {
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(name).withSummaryLine(false));
    }

    /** Two tests that pass and two that do not, over in order. */
    public static RunFolder whole(Path root, String name) throws Exception {
        var run = new RecordedRun(root, name);
        run.test("waters", null);
        run.test("digs", new AssertionError("a stone"));
        run.test("sows", null);
        run.test("reaps", new IllegalStateException("rain"));
        return run.end();
    }

    public RunFolder folder() {
        return new RunFolder(recorder.folder());
    }

    public void test(String name, Throwable failure) {
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("sample.BedTest." + name + "()", name)
                        .className("sample.BedTest")
                        .methodName(name)
                        .build());
        try (Step step = recorder.startStep("digging in " + name)) {
            recorder.log("a worm in " + name);
            step.passed();
        }
        recorder.exchange("POST", "https://orto.example/beds")
                .requestBody(bytes("{\"bed\":\"" + name + "\"}"), "application/json")
                .status(201)
                .responseBody(bytes("{\"soil\":\"" + "loam ".repeat(30_000) + name + "\"}"), "application/json")
                .ended();
        recorder.attach("plan <" + name + ">.csv", bytes((name + ";3\n").repeat(900)), MediaType.CSV);
        byte[] noise = new byte[20_000];
        RANDOM.nextBytes(noise);
        recorder.attach("photo", noise, MediaType.of("application/zip"));
        recorder.endTest(test, failure == null ? TestEnd.passed() : TestEnd.threw(failure));
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** As a JVM ends its journal. */
    public RunFolder end() throws Exception {
        Files.writeString(
                folder().journalFiles().get(0),
                "{\"event\":\"journal-ended\",\"at\":" + recorder.now() + ",\"missing\":0}\n",
                StandardOpenOption.APPEND);
        return folder();
    }
}
