package dev.verbale.contract;

import java.util.List;

/**
 * A response is not what its contract says.
 *
 * @since 0.2.0
 */
public final class ContractViolated extends AssertionError {

    private static final long serialVersionUID = 1;

    @SuppressWarnings("serial") // what List.copyOf makes is
    private final List<String> violations;

    ContractViolated(String subject, List<String> violations) {
        super(subject + " is not what the contract says:\n  " + String.join("\n  ", violations));
        this.violations = List.copyOf(violations);
    }

    /** One violation of many; {@code all} ties them together, so that evidence is taken once. */
    ContractViolated(String violation, ContractViolated all) {
        super(violation, all);
        this.violations = List.of(violation);
    }

    /** Each with the path it is at, such as {@code /crop: integer found, string expected}. */
    public List<String> violations() {
        return violations;
    }
}
