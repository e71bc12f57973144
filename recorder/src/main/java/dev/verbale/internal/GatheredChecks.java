package dev.verbale.internal;

import dev.verbale.ChecksFailed;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The checks of a test that failed so far. */
final class GatheredChecks {

    private final List<String> names = new ArrayList<>();
    private final List<Throwable> failures = new ArrayList<>();

    synchronized void add(String name, Throwable failure) {
        names.add(name);
        failures.add(failure);
    }

    /** All of them in one, or null where there is none. */
    synchronized @Nullable ChecksFailed all() {
        return names.isEmpty() ? null : new ChecksFailed(names, failures);
    }
}
