package dev.verbale.steps;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** What the method throws is thrown on. */
    @Override
    protected Set<String> saysSo() {
        return Set.of("StepMethodRecorder.call");
    }
}
