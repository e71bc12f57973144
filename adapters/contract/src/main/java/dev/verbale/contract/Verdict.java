package dev.verbale.contract;

import dev.verbale.Recorder;
import java.util.List;

/** Records what came of a comparison with a contract, and makes the test fail where it did not hold. */
final class Verdict {

    private static final int MAX_SHOWN = 25;

    private Verdict() {}

    /**
     * @param subject what was looked at, such as {@code GET /api/plots/{id} 200}
     * @param violations none where the contract holds
     */
    static void of(String subject, List<Violation> violations) {
        Recorder recorder = Recorder.current();
        String name = "contract of " + subject;
        if (violations.isEmpty()) {
            recorder.checked(name, null);
            return;
        }
        var all = new ContractViolated(
                subject, violations.stream().map(Violation::toString).toList());
        boolean gathered = false;
        for (Violation one : violations.subList(0, Math.min(MAX_SHOWN, violations.size())))
            gathered = recorder.checked(
                    one.at().isEmpty() ? name : name + " at " + one.at(), new ContractViolated(one.toString(), all));
        int more = violations.size() - MAX_SHOWN;
        if (more > 0) gathered = recorder.checked(name, new ContractViolated("and " + more + " violations more", all));
        if (!gathered) throw all;
    }
}
