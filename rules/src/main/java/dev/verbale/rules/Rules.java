package dev.verbale.rules;

import java.util.ArrayList;
import java.util.List;

/**
 * What a file of rules says.
 *
 * @param triage in their order: the first that matches counts
 * @param gate when a build is to fail
 * @since 0.2.0
 */
public record Rules(List<TriageRule> triage, GateRules gate) {

    /** Where they stand when nobody says otherwise. */
    public static final String DEFAULT = "verbale-rules.yaml";

    /** Of a team that has none. */
    public static final Rules NONE = new Rules(List.of(), GateRules.STRICT);

    /** With {@code known} above these: what a person said of one reason stands above what a rule says of many failures. */
    public Rules under(List<TriageRule> known) {
        List<TriageRule> all = new ArrayList<>(known);
        all.addAll(triage);
        return new Rules(all, gate);
    }

    public Rules {
        triage = List.copyOf(triage);
    }
}
