package dev.verbale.viewer;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is new, as it comes, on the thread of who asked.
 *
 * @see <a href="https://html.spec.whatwg.org/multipage/server-sent-events.html">HTML, Server-sent events</a>
 */
final class EventStream {

    /** Somebody who is gone is noticed when something is written. */
    private static final long SIGN_OF_LIFE_MILLIS = 10_000;

    private EventStream() {}

    /** @param run whose changes are told; null for those of all, as lines of the list */
    static void send(WebExchange exchange, ViewedRuns runs, @Nullable ViewedRun run) throws IOException {
        exchange.set("Content-Type", "text/event-stream");
        if (exchange.method().equals("HEAD")) {
            exchange.answer(200);
            return;
        }
        OutputStream out = exchange.answer(200, WebExchange.UNKNOWN);
        long known = 0; // all that is known now comes first: somebody may come back after a pause
        write(out, "retry: 1000\n\n");
        try {
            while (!runs.isClosed()) {
                List<ViewedRun> news = runs.await(known, SIGN_OF_LIFE_MILLIS);
                StringBuilder events = new StringBuilder();
                for (ViewedRun one : news) {
                    known = Math.max(known, one.changed());
                    if (run == null)
                        events.append("event: run\ndata: ")
                                .append(ListPage.event(one))
                                .append("\n\n");
                    else if (one.equals(run)) {
                        runs.page(run, true); // who hears of it finds it
                        events.append("event: changed\ndata: ")
                                .append(one.changed())
                                .append("\n\n");
                    }
                }
                write(out, events.length() == 0 ? ": here\n\n" : events.toString());
            }
        } catch (InterruptedException closed) {
            Thread.currentThread().interrupt();
        }
    }

    private static void write(OutputStream out, String text) throws IOException {
        out.write(text.getBytes(StandardCharsets.UTF_8));
        out.flush();
    }
}
