package dev.verbale.report;

import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.rules.Triage;
import dev.verbale.rules.TriageRule;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * What a team's rules say of a run's failures. Whether a day is over is told where the page is read: the same run has the same page
 * tomorrow.
 */
final class RulesOfTests {

    private final List<TriageRule> used = new ArrayList<>();
    private final Map<String, Integer> byTest = new HashMap<>();

    RulesOfTests(Run run, List<TriageRule> rules) {
        if (rules.isEmpty()) return;
        for (Triage.Labelled one : Triage.of(run, rules, LocalDate.MIN).failures()) {
            TriageRule rule = one.rule().orElse(null);
            if (rule == null) continue;
            if (!used.contains(rule)) used.add(rule);
            byTest.put(one.test().id(), used.indexOf(rule));
        }
    }

    /** Its position among those that are {@linkplain #write written}; null where no rule knows the test. */
    @Nullable
    Integer of(String id) {
        return byTest.get(id);
    }

    void write(JsonGenerator json) {
        if (used.isEmpty()) return;
        json.writeArrayPropertyStart("rules");
        for (TriageRule rule : used) {
            json.writeStartObject();
            json.writeStringProperty("label", rule.label());
            if (rule.owner() != null) json.writeStringProperty("owner", rule.owner());
            if (rule.link() != null) json.writeStringProperty("link", rule.link());
            if (rule.comment() != null) json.writeStringProperty("comment", rule.comment());
            if (rule.knownUntil() != null)
                json.writeStringProperty("knownUntil", rule.knownUntil().toString());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    /** Those of the tests of a reason. */
    void write(JsonGenerator json, FailureReason reason) {
        List<Integer> its = reason.tests().stream()
                .map(TestResult::id)
                .map(this::of)
                .filter(java.util.Objects::nonNull)
                .distinct()
                .toList();
        if (its.isEmpty()) return;
        json.writeArrayPropertyStart("rules");
        its.forEach(json::writeNumber);
        json.writeEndArray();
    }
}
