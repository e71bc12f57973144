package dev.verbale.cli;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.opentest4j.TestAbortedException;

/** Records suites that chance makes up, in a JVM that ends in order, and prints beside the recorder's own lines what they came to. */
final class RecordedSuites {

    private final AdapterRecorder recorder;
    private final Random random;
    private final Map<String, Integer> outcomes = new TreeMap<>();
    private int flaky;
    private int broken;

    private RecordedSuites(AdapterRecorder recorder, Random random) {
        this.recorder = recorder;
        this.random = random;
    }

    /** Arguments: the folder for the runs, and how many. */
    public static void main(String[] arguments) {
        for (int number = 0; number < Integer.parseInt(arguments[1]); number++) {
            String name = "suite-" + number;
            AdapterRecorder recorder = AdapterRecorder.open(RecorderOptions.defaults()
                    .withRoot(Path.of(arguments[0]))
                    .withRun(name)
                    .withSettings(Map.of("verbale.module", number % 3 == 0 ? "beds" : ".")));
            var suite = new RecordedSuites(recorder, new Random(number));
            suite.record(number == 0 ? 0 : 1 + number % 5);
            System.out.println(
                    "truth " + name + " " + suite.outcomes + " flaky=" + suite.flaky + " broken=" + suite.broken);
        }
    }

    private void record(int classes) {
        for (int number = 0; number < classes; number++) recordClass("garden.C" + number + "Test");
        if (classes == 0) recordClass("garden.BrokenTest", true, 0); // nothing but a set-up that failed
    }

    private void recordClass(String name) {
        recordClass(name, random.nextInt(4) == 0, random.nextInt(6));
    }

    private void recordClass(String name, boolean breaks, int tests) {
        Scope container = recorder.startContainer(
                recorder.run(), TestDescriptor.of(name, name).className(name).build());
        List<String> left = new ArrayList<>();
        for (int test = 0; test < tests; test++) if (recordTest(container, name, "t" + test)) left.add("t" + test);
        recorder.endContainer(
                container, breaks ? TestEnd.threw(failure("the shed is locked")) : TestEnd.passed(), breaks ? 2 : 0);
        if (breaks) broken++;
        count("unfinished", left.size());
    }

    /** @return whether it never ended */
    private boolean recordTest(Scope container, String type, String name) {
        boolean failedBefore = false;
        for (int attempt = 0; ; attempt++) {
            Scope test = recorder.startTest(
                    container,
                    TestDescriptor.of(type + "." + name + "()", name)
                            .className(type)
                            .methodName(name)
                            .build());
            int how = random.nextInt(12);
            if (how == 0) return true;
            String outcome = end(test, how);
            boolean fails = outcome.equals("failed") || outcome.equals("errored");
            if (fails && attempt < 2 && random.nextBoolean()) {
                failedBefore = true;
                continue; // run again
            }
            if (!fails && attempt == 1 && failedBefore && random.nextInt(3) == 0)
                continue; // and again, though it passed
            count(outcome, 1);
            if (outcome.equals("passed") && failedBefore) flaky++;
            return false;
        }
    }

    private String end(Scope test, int how) {
        TestEnd end = switch (how) {
            case 1 -> TestEnd.threw(new AssertionError("the bed is dry"));
            case 2, 3 -> TestEnd.threw(failure("no water"));
            case 4 -> TestEnd.skipped("winter");
            case 5 -> TestEnd.aborted(new TestAbortedException("no seeds"));
            case 6 -> TestEnd.expectedFailure("known", new AssertionError("slugs"));
            default -> TestEnd.passed();
        };
        recorder.endTest(test, end);
        return how == 1
                ? "failed"
                : how < 4
                        ? "errored"
                        : how == 4 ? "skipped" : how == 5 ? "aborted" : how == 6 ? "expected-failure" : "passed";
    }

    private static RuntimeException failure(String message) {
        return new IllegalStateException(message);
    }

    private void count(String outcome, int tests) {
        if (tests > 0) outcomes.merge(outcome, tests, Integer::sum);
    }
}
