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
    final List<Failure> earlier = new ArrayList<>();

    final List<String> output = new ArrayList<>();
    final Map<String, String> properties = new LinkedHashMap<>();

    ForeignTest(String suite, String name) {
        this.suite = suite;
        this.name = name;
    }
}
