package dev.verbale.viewer;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is new of a run, or of all runs of a site, as events for one browser. At first all that is known now is new: somebody may come back
 * after a pause. For one thread at a time.
 *
 * @see <a href="https://html.spec.whatwg.org/multipage/server-sent-events.html">HTML, Server-sent events</a>
 * @since 0.2.0
 */
public final class EventFeed {

    /** Its type of content. */
    public static final String TYPE = "text/event-stream";

    /** What it begins with. */
    public static final String BEGINNING = "retry: 1000\n\n";

    /** Somebody who is gone is noticed when something is written: so often at the least. */
    public static final long SIGN_OF_LIFE_MILLIS = 10_000;

    /** What is written where nothing is new. */
    public static final String SIGN_OF_LIFE = ": here\n\n";

    private final ViewedRuns runs;
    private final @Nullable ViewedRun run;
    private long known;

    /** @param run whose changes are told; null for those of all, as lines of the list */
    EventFeed(ViewedRuns runs, @Nullable ViewedRun run) {
        this.runs = runs;
        this.run = run;
    }

    /** Waits until something is new; for no longer than a sign of life lets one wait. */
    void await() throws InterruptedException {
        runs.await(known, SIGN_OF_LIFE_MILLIS);
    }

    /** The events since it was asked last; empty for none. It does not wait. */
    public String next() throws IOException {
        StringBuilder events = new StringBuilder();
        for (ViewedRun one : run == null ? runs.changedSince(known) : List.of(run)) {
            long changed = one.changed();
            if (changed <= known) continue;
            known = changed;
            if (run == null)
                events.append("event: run\ndata: ").append(ListPage.event(one)).append("\n\n");
            else {
                runs.page(run, true); // who hears of it finds it
                events.append("event: changed\ndata: ").append(changed).append("\n\n");
            }
        }
        return events.toString();
    }

    /** Whether nothing more comes, as its site is closed. */
    public boolean isOver() {
        return runs.isClosed();
    }
}
