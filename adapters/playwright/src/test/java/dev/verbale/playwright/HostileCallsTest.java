package dev.verbale.playwright;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** Playwright's own assertions take its own objects only. */
    @Override
    protected Set<String> saysSo() {
        return Set.of("VerbalePlaywright.assertThat");
    }
}
