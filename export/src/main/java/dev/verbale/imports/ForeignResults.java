package dev.verbale.imports;

import dev.verbale.results.Entry.ExchangeEntry;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What one file holds, while it is read. */
final class ForeignResults {

    @Nullable
    Instant started;

    final List<ForeignTest> tests = new ArrayList<>();
    final List<ExchangeEntry> exchanges = new ArrayList<>();
    final Map<String, String> facts = new LinkedHashMap<>();
    final List<String> output = new ArrayList<>();
    final List<String> problems = new ArrayList<>();

    /** Whether the file ends before what it tells of: of what came after nobody knows. */
    boolean isTorn;

    void problem(int line, String what) {
        problems.add("line " + line + ": " + what);
    }
}
