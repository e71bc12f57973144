package dev.verbale.browser;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** Whoever makes sessions has a driver and a way to make one, and an exchange is the recorder's own. */
    @Override
    protected Set<String> saysSo() {
        return Set.of("BrowserSessions.of", "BrowserExchanges.endedWithout");
    }
}
