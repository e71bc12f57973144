package dev.verbale.restassured;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** What the filters behind it throw is thrown on. */
    @Override
    protected Set<String> saysSo() {
        return Set.of("VerbaleFilter.filter");
    }
}
