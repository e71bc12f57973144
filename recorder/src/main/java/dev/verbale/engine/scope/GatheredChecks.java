package dev.verbale.engine.scope;

import dev.verbale.ChecksFailed;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The checks of a test that failed so far. */
public final class GatheredChecks {

    private final List<String> names = new ArrayList<>();
    private final List<Throwable> failures = new ArrayList<>();

    public synchronized void add(String name, Throwable failure) {
        names.add(name);
        failures.add(failure);
    }

    /** All of them in one, or null where there is none. It asks the failures for their messages, which may do anything. */
    public @Nullable ChecksFailed all() {
        List<String> namesNow;
        List<Throwable> failuresNow;
        synchronized (this) {
            namesNow = List.copyOf(names);
            failuresNow = List.copyOf(failures);
        }
        return namesNow.isEmpty() ? null : new ChecksFailed(namesNow, failuresNow);
    }
}
