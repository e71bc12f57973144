package dev.verbale.acceptance;

import dev.verbale.RecorderOptions;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.file.Path;
import java.util.List;

/** Stands for Maven in the recipes: records what a shard of a suite would, in this environment. The second of two has the test that fails. */
final class RecordedShard {

    private RecordedShard() {}

    public static void main(String[] arguments) {
        String shard = "";
        boolean isFixed = List.of(arguments).contains("-Pfixed");
        for (String one : arguments) {
            if (one.startsWith("-Pshard-")) shard = one.substring("-Pshard-".length());
            if (one.startsWith("-Dverbale.fact.")) {
                String[] fact = one.substring(2).split("=", 2);
                System.setProperty(fact[0], fact[1]);
            }
        }
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(Path.of("target/verbale")).withSummaryLine(false));
        if (!shard.equals("2")) test(recorder, "sows", TestEnd.passed());
        if (!shard.equals("1")) {
            var failure = new AssertionError("no seeds");
            failure.setStackTrace(
                    new StackTraceElement[] {new StackTraceElement("sample.SwapTest", "swaps", "SwapTest.java", 4)});
            test(recorder, "swaps", isFixed ? TestEnd.passed() : TestEnd.threw(failure));
        }
    }

    private static void test(AdapterRecorder recorder, String method, TestEnd end) {
        recorder.endTest(
                recorder.startTest(
                        recorder.run(),
                        TestDescriptor.of("sample.SwapTest." + method, method)
                                .className("sample.SwapTest")
                                .methodName(method)
                                .build()),
                end);
    }
}
