package dev.verbale.results.reason;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.Failure;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.json.JsonIn;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Failures that the common libraries really threw, each labelled with its reason by a person. Of all pairs of failures: how
 * many that share a reason by the rules share their label, and how many that share their label share a reason.
 */
class LabelledFailuresTest {

    @TempDir
    Path root;

    private final List<String> apart = new ArrayList<>();
    private final List<String> together = new ArrayList<>();

    /** Of the last one the rules have seen nothing; each of the others showed what they lacked. */
    @ParameterizedTest
    @ValueSource(strings = {"", "-later", "-unseen", "-fair", "-mill", "-bakery", "-apiary", "-garage"})
    void the_rules_agree_with_people(String name) throws Exception {
        String file = "labelled" + name + ".jsonl";
        List<Map<String, String>> failures = read(file);
        SampleRun run = SampleRun.in(root, "run");
        int id = 0;
        for (Map<String, String> failure : failures) {
            String key = failure.get("label") + "." + ++id;
            run.write(
                    TestStarted.of(id * 10L, id, key, key)
                            .className(failure.get("class"))
                            .methodName(failure.get("method"))
                            .thread("main")
                            .build(),
                    TestEnded.of(
                                    id * 10L + 5,
                                    id,
                                    failure.get("outcome").equals("failed") ? Outcome.FAILED : Outcome.ERRORED)
                            .failure(Failure.of(failure.get("type"), failure.get("stack"))
                                    .message(failure.get("message"))
                                    .build())
                            .build());
        }

        List<FailureReason> reasons = FailureReason.of(run.read());

        Map<String, String> reasonOf = new HashMap<>();
        for (FailureReason reason : reasons)
            for (TestResult test : reason.tests()) reasonOf.put(test.key(), reason.id());
        double[] both = agreement(List.copyOf(reasonOf.keySet()), reasonOf);
        System.out.printf(
                "%s: %d failures, %d reasons: precision %.3f, recall %.3f; wrongly apart %s%n",
                file, failures.size(), reasons.size(), both[0], both[1], apart);
        assertThat(reasonOf).hasSameSizeAs(failures);
        assertThat(both[0]).as("precision; wrongly together: %s", together).isGreaterThanOrEqualTo(0.97);
        assertThat(both[1]).as("recall; wrongly apart: %s", apart).isGreaterThanOrEqualTo(0.9);
    }

    private double[] agreement(List<String> keys, Map<String, String> reasonOf) {
        int agreed = 0;
        int sameReason = 0;
        int sameLabel = 0;
        for (int a = 0; a < keys.size(); a++)
            for (int b = a + 1; b < keys.size(); b++) {
                boolean reason = reasonOf.get(keys.get(a)).equals(reasonOf.get(keys.get(b)));
                boolean label = label(keys.get(a)).equals(label(keys.get(b)));
                if (reason) sameReason++;
                if (label) sameLabel++;
                if (reason && label) agreed++;
                if (reason && !label) together.add(keys.get(a) + " + " + keys.get(b));
                if (label && !reason) apart.add(keys.get(a) + " - " + keys.get(b));
            }
        return new double[] {(double) agreed / sameReason, (double) agreed / sameLabel};
    }

    private static String label(String key) {
        return key.substring(0, key.lastIndexOf('.'));
    }

    private static List<Map<String, String>> read(String file) throws Exception {
        List<Map<String, String>> rows = new ArrayList<>();
        try (InputStream in = LabelledFailuresTest.class.getResourceAsStream("/failures/" + file)) {
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            for (String line : text.lines().toList()) {
                Map<String, String> row = new HashMap<>();
                JsonParser json = JsonIn.parser(line.getBytes(StandardCharsets.UTF_8));
                String name = null;
                for (JsonToken token = json.nextToken(); token != null; token = json.nextToken()) {
                    if (token == JsonToken.PROPERTY_NAME) name = json.currentName();
                    else if (token == JsonToken.VALUE_STRING) row.put(name, json.getString());
                }
                rows.add(row);
            }
        }
        return rows;
    }
}
