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
    @Nullable
    ChecksFailed all(Foreign foreign) {
        List<String> namesNow;
        List<Throwable> failuresNow;
        synchronized (this) {
            namesNow = List.copyOf(names);
            failuresNow = List.copyOf(failures);
        }
        if (namesNow.isEmpty()) return null;
        // It asks the failures for their messages, which may do anything.
        return foreign.<@Nullable ChecksFailed>asked(() -> new ChecksFailed(namesNow, failuresNow), broken -> null);
    }
}
