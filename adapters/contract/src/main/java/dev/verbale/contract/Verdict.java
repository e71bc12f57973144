package dev.verbale.contract;

import dev.verbale.recorder.Recorder;
import java.util.List;

/** Records what came of a comparison with a contract, and makes the test fail where it did not hold. */
final class Verdict {

    private static final int MOST_TOLD = 25;

    private Verdict() {}

    /**
     * @param subject what was looked at, such as {@code GET /api/plots/{id} 200}
     * @param violations each with the path it is at; none where the contract holds
     */
    static void of(String subject, List<String> violations) {
        Recorder recorder = Recorder.current();
        if (violations.isEmpty()) {
            recorder.checked("contract of " + subject, null);
            return;
        }
        var all = new ContractViolated(subject, violations);
        boolean gathered = false;
        for (String violation : violations.subList(0, Math.min(MOST_TOLD, violations.size())))
            gathered =
                    recorder.checked("contract of " + subject + ": " + violation, new ContractViolated(violation, all));
        if (!gathered) throw all;
    }
}
