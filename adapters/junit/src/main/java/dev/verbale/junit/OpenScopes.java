package dev.verbale.junit;

import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.UniqueId;

/**
 * The scopes of what runs now, by the platform's unique id. The listener and the extension are made by different hands,
 * and the extension may be called on a thread that the listener never saw; the id is all that they share.
 */
final class OpenScopes {

    private static final Map<UniqueId, Open> OPEN = new ConcurrentHashMap<>();

    private OpenScopes() {}

    /**
     * Something that runs.
     *
     * @param outer what lies around it and runs too
     * @param testsStarted below it, so that a container can tell how many of its tests never ran
     * @param expected the failure that was announced and came; the platform is told that the test passed
     */
    record Open(
            UniqueId id,
            Scope scope,
            Place place,
            @Nullable Open outer,
            AtomicInteger testsStarted,
            AtomicReference<@Nullable Throwable> expected) {

        Open(UniqueId id, Scope scope, Place place, @Nullable Open outer) {
            this(id, scope, place, outer, new AtomicInteger(), new AtomicReference<>());
        }
    }

    static void opened(Open open) {
        OPEN.put(open.id(), open);
    }

    static @Nullable Open close(UniqueId uniqueId) {
        return OPEN.remove(uniqueId);
    }

    static @Nullable Open find(UniqueId uniqueId) {
        return OPEN.get(uniqueId);
    }

    /**
     * Brings this thread into the scope of that id, where it is in none: a timeout may run a test's body on a thread that
     * the listener never saw. Where the id is unknown, the thread stays where it is.
     */
    static Recorder.Stay enter(Recorder recorder, String uniqueId) {
        Scope here = recorder.here();
        if (here.id() != recorder.run().id()) return recorder.enter(here);
        Open open = find(UniqueId.parse(uniqueId));
        return recorder.enter(open == null ? here : open.scope());
    }
}
