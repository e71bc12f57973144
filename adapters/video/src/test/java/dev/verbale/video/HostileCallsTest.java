package dev.verbale.video;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** A check that fails outside a test that gathers them is thrown. */
    @Override
    protected Set<String> saysSo() {
        return Set.of("VisualCheck.holds");
    }
}
