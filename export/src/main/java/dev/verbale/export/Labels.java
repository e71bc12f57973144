package dev.verbale.export;

import dev.verbale.results.TestResult;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a team says of failures: label, owner, until when they are known, in one line each.
 *
 * @param byTest by the ids of the tests
 * @since 0.2.0
 */
public record Labels(Map<String, String> byTest) {

    /** Of a team that says nothing. */
    public static final Labels NONE = new Labels(Map.of());

    public Labels {
        byTest = Map.copyOf(byTest);
    }

    @Nullable
    String of(TestResult test) {
        return byTest.get(test.id());
    }
}
