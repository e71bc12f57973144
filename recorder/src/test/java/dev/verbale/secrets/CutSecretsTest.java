package dev.verbale.secrets;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.LogLine;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.About;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Long texts are cut; a secret that the cut goes through must not leave its beginning. */
class CutSecretsTest {

    private static final String SECRET = "Salbei-4711-Kraut-und-Rosmarin";

    @TempDir
    Path root;

    private AdapterRecorder recorder;
    private Scope test;

    @BeforeEach
    void open_a_recorder() {
        recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        recorder.secret(SECRET);
        test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("sample.Cut", "cut")
                        .className("sample.Cut")
                        .methodName("cut")
                        .build());
    }

    /** All lengths at which something is cut, each a little before and after. */
    @ParameterizedTest
    @ValueSource(ints = {980, 995, 999, 1_975, 1_990, 1_999, 3_980, 3_995, 7_980, 7_995, 15_990, 19_990, 99_990})
    void no_part_of_one_stays_where_a_text_is_cut(int before) throws Exception {
        record("x".repeat(before) + SECRET + " y".repeat(60_000));

        assertThat(everything())
                .doesNotContain("Salbei")
                .doesNotContain("Rosmarin")
                .contains("xxxx");
    }

    /** What adapters keep to show later, such as the lines of a browser's console. */
    @ParameterizedTest
    @ValueSource(ints = {0, 180, 199, 3_980, 3_999})
    void no_part_of_one_stays_in_what_an_adapter_has_shortened(int before) {
        for (int limit : new int[] {200, 4_000})
            assertThat(recorder.shortened("x".repeat(before) + SECRET + " y".repeat(9_000), limit))
                    .doesNotContain("Salbei")
                    .doesNotContain("Rosmarin")
                    .contains("more characters");
        assertThat(recorder.shortened("beds", 4)).isEqualTo("beds");
        assertThat(recorder.shortened(null, -7)).isNotNull();
    }

    /** What is masked takes less room than it took: what comes behind the cut must not move up before it. */
    @Test
    void no_part_of_one_moves_up_before_the_cut_when_others_are_masked() throws Exception {
        for (int before = 1_400; before < 1_560; before += 3)
            recorder.log("sent password=" + "p".repeat(2_500) + " " + "x".repeat(before) + SECRET + " y".repeat(9_000));
        recorder.endTest(test, TestEnd.passed());

        assertThat(everything()).doesNotContain("Salb").contains("[masked]");
    }

    @Test
    void one_that_is_longer_than_what_is_kept_is_known_at_the_cut() throws Exception {
        String longer = "Rosmarin ".repeat(700) + "Ende";
        recorder.secret(longer);
        record("x".repeat(1_500) + longer + " y".repeat(60_000));

        assertThat(everything()).doesNotContain("Rosmarin").contains("x".repeat(1_000) + "[masked]");
    }

    private void record(String text) {
        recorder.log(text);
        recorder.log(LogLine.of(text)
                .level("info")
                .logger(text)
                .thread(text)
                .context(Map.of("context", text))
                .thrown(new IOException(text))
                .build());
        recorder.about(
                About.of().text(text).severity(text).owner(text).link(text).build());
        recorder.fact(text, text);
        Step step = recorder.startStep(text);
        step.skipped(text);
        recorder.startStep("fails").failed(new IllegalStateException(text, new IOException(text)));
        recorder.attach(text, text.getBytes(StandardCharsets.UTF_8), MediaType.TEXT);
        Scope other = recorder.startTest(
                recorder.run(),
                TestDescriptor.of(text, text)
                        .className(text)
                        .methodName(text)
                        .tags(List.of(text))
                        .build());
        recorder.endTest(other, TestEnd.threw(new AssertionError(text)));
        recorder.endTest(test, TestEnd.passed());
    }

    /** Names and contents of all files. */
    private String everything() throws IOException {
        var everything = new StringBuilder();
        try (Stream<Path> files = Files.walk(root)) {
            for (Path file : files.toList()) {
                everything.append(file).append('\n');
                if (Files.isRegularFile(file))
                    everything.append(Files.readString(file)).append('\n');
            }
        }
        return everything.toString();
    }
}
