package dev.verbale.imports;

import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** One test as another tool wrote it down, while it is read. */
final class ForeignTest {

    final String suite;
    final String name;
    long micros;
    Outcome outcome = Outcome.PASSED;

    @Nullable
    String reason;

    @Nullable
    Failure failure;

    /** Whether the file ends within it. */
    boolean isCut;

    /** Of attempts before this one. */
    final List<Attempt> earlier = new ArrayList<>();

    /** What our own export says of it beside what such a file says of any; see {@link dev.verbale.export.JUnitXml}. */
    @Nullable
    String key;

    @Nullable
    String methodName;

    /** Of its build, where that has several. */
    String module = "";

    /** Whether it is a class that broke outside its tests. */
    boolean isContainer;

    private @Nullable Outcome exactly;

    /** An attempt that did not pass. */
    record Attempt(Outcome outcome, Failure failure) {}

    final List<String> output = new ArrayList<>();
    final Map<String, String> properties = new LinkedHashMap<>();

    void property(String property, String value) {
        switch (property) {
            case OwnProperties.KEY -> key = value;
            case OwnProperties.MODULE -> module = value;
            case OwnProperties.METHOD -> methodName = value;
            case OwnProperties.CONTAINER -> isContainer = true;
            case OwnProperties.OUTCOME -> exactly = Outcome.ofWord(value);
            default -> properties.put(property, value);
        }
    }

    /** What the file says; more exactly where our own export does. A failure stays one, whatever a property says. */
    Outcome ended() {
        Outcome exact = exactly;
        return exact != null && exact.needsAttention() == outcome.needsAttention() ? exact : outcome;
    }

    ForeignTest(String suite, String name) {
        this.suite = suite;
        this.name = name;
    }
}
