package dev.verbale.junit;

import dev.verbale.hostile.AdapterCallsContract;
import java.util.Set;

class HostileCallsTest extends AdapterCallsContract {

    /** What a test throws is thrown on. */
    @Override
    protected Set<String> saysSo() {
        return Set.of(
                "VerbaleExtension.interceptTestMethod",
                "VerbaleExtension.interceptDynamicTest",
                "VerbaleExtension.interceptAfterEachMethod",
                "VerbaleExtension.interceptBeforeEachMethod",
                "VerbaleExtension.interceptAfterAllMethod",
                "VerbaleExtension.interceptBeforeAllMethod",
                "VerbaleExtension.interceptTestTemplateMethod");
    }
}
