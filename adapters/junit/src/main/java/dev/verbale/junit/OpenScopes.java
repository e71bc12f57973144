package dev.verbale.junit;

import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/**
 * The scopes of what runs now, by the platform's unique id. The listener and the extension are made by different hands,
 * and the extension may be called on a thread that the listener never saw; the id is all that they share.
 */
final class OpenScopes {

    private static final Map<String, Open> OPEN = new ConcurrentHashMap<>();

    private OpenScopes() {}

    /**
     * Something that runs.
     *
     * @param testsStarted below it, so that a container can tell how many of its tests never ran
     * @param expected the failure that was announced and came; the platform is told that the test passed
     */
    record Open(Scope scope, AtomicInteger testsStarted, AtomicReference<@Nullable Throwable> expected) {}

    static void opened(String uniqueId, Scope scope) {
        OPEN.put(uniqueId, new Open(scope, new AtomicInteger(), new AtomicReference<>()));
    }

    static @Nullable Open close(String uniqueId) {
        return OPEN.remove(uniqueId);
    }

    static @Nullable Open find(String uniqueId) {
        return OPEN.get(uniqueId);
    }

    /** Brings this thread into the scope of that id; where it is unknown, the thread stays where it is. */
    static Recorder.Stay enter(Recorder recorder, String uniqueId) {
        Open open = OPEN.get(uniqueId);
        return recorder.enter(open == null ? recorder.here() : open.scope());
    }
}
