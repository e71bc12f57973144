package dev.verbale.selenium;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** What the locator throws that it stands for is thrown on. */
    @Override
    protected Set<String> saysSo() {
        return Set.of("NamedLocator.findElement", "NamedLocator.findElements");
    }
}
