package dev.verbale.junit;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import dev.verbale.spi.TestEnd;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.UniqueId;

/**
 * The scopes of what runs now, by the platform's unique id. The listener and the extension are made by different hands,
 * and the extension may be called on a thread that the listener never saw; the id is all that they share.
 */
final class OpenScopes {

    private static final Map<UniqueId, Open> OPEN = new ConcurrentHashMap<>();

    /** Containers that have ended: some engines start a test after its container's end, and it still belongs there. */
    private static final Map<UniqueId, Open> ENDED = new ConcurrentHashMap<>();

    private OpenScopes() {}

    /**
     * Something that runs.
     *
     * @param outer what lies around it and runs too
     */
    record Open(
            UniqueId id,
            boolean isTest,
            Scope scope,
            Position position,
            @Nullable Open outer) {}

    static void opened(Open open) {
        OPEN.put(open.id(), open);
    }

    static @Nullable Open close(UniqueId uniqueId) {
        Open open = OPEN.remove(uniqueId);
        if (open != null && !open.isTest()) ENDED.put(uniqueId, open);
        return open;
    }

    /** What runs under that id. */
    static @Nullable Open find(UniqueId uniqueId) {
        return OPEN.get(uniqueId);
    }

    /** What runs, or is a container that ran, under that id. */
    static @Nullable Open findAround(UniqueId uniqueId) {
        Open open = OPEN.get(uniqueId);
        return open == null ? ENDED.get(uniqueId) : open;
    }

    /** The launch is over. */
    static void forget() {
        ENDED.clear();
    }

    /**
     * Memory is at its end, and the platform gives up without telling anybody: the test, or the container, under that id and
     * all around it end here.
     */
    static void endAll(AdapterRecorder recorder, String uniqueId, OutOfMemoryError failure) {
        for (Open open = find(UniqueId.parse(uniqueId)); open != null; open = open.outer()) {
            if (OPEN.remove(open.id()) == null) continue;
            if (open.isTest()) recorder.endTest(open.scope(), TestEnd.threw(failure));
            else recorder.endContainer(open.scope(), TestEnd.threw(failure), 0);
        }
        Launches.abandoned();
    }

    /**
     * Brings this thread into the scope of that id, where it is in none: a timeout may run a test's body on a thread that
     * the listener never saw. Where the id is unknown, the thread stays where it is.
     */
    static Entered enter(AdapterRecorder recorder, String uniqueId) {
        Scope here = recorder.currentScope();
        if (here.id() != recorder.run().id()) return recorder.enter(here);
        Open open = find(UniqueId.parse(uniqueId));
        return recorder.enter(open == null ? here : open.scope());
    }
}
