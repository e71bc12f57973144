package dev.verbale.rules;

import dev.verbale.rules.TriageRule.Subject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.snakeyaml.engine.v2.api.Dump;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;

/**
 * Writes rules as {@link RulesReader} reads them, in YAML.
 *
 * @since 0.2.0
 */
public final class RulesWriter {

    private RulesWriter() {}

    /** A file of those rules, in their order, and without a gate. It lists the labels that need it. */
    public static String write(List<TriageRule> triage) {
        Set<String> labels = new LinkedHashSet<>();
        List<Map<String, Object>> rules = new ArrayList<>();
        for (TriageRule rule : triage) {
            if (!RulesReader.GIVEN.contains(rule.label())) labels.add(rule.label());
            rules.add(parts(rule));
        }
        Map<String, Object> file = new LinkedHashMap<>();
        if (!labels.isEmpty()) file.put("labels", List.copyOf(labels));
        file.put("triage", rules);
        DumpSettings settings = DumpSettings.builder()
                .setDefaultFlowStyle(FlowStyle.BLOCK)
                .setSplitLines(false)
                .build();
        return new Dump(settings).dumpToString(file);
    }

    private static Map<String, Object> parts(TriageRule rule) {
        Map<String, Object> when = new LinkedHashMap<>();
        for (Subject subject : Subject.values()) {
            List<String> patterns = rule.when().getOrDefault(subject, List.of()).stream()
                    .map(TextPattern::written)
                    .toList();
            if (patterns.size() == 1) when.put(subject.word(), patterns.get(0));
            else if (!patterns.isEmpty()) when.put(subject.word(), patterns);
        }
        Map<String, Object> parts = new LinkedHashMap<>();
        parts.put("when", when);
        parts.put("label", rule.label());
        if (rule.owner() != null) parts.put("owner", rule.owner());
        if (rule.link() != null) parts.put("link", rule.link());
        if (rule.comment() != null) parts.put("comment", rule.comment());
        if (rule.knownUntil() != null)
            parts.put("known-until", rule.knownUntil().toString());
        return parts;
    }
}
