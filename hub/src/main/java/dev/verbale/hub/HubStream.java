package dev.verbale.hub;

import dev.verbale.viewer.EventFeed;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jspecify.annotations.Nullable;

/** Somebody who looks at something live. Who is slow is written to again when he has taken what there was: nothing piles up. */
final class HubStream {

    private final Response response;
    private final EventFeed feed;
    private @Nullable Callback callback;
    private Runnable taken = () -> {};
    private boolean isWriting;
    private boolean hasMissed;
    private boolean isOver;

    HubStream(Response response, EventFeed feed) {
        this.response = response;
        this.feed = feed;
    }

    /** @param taken is run when there is room for more */
    synchronized void begin(Callback callback, Runnable taken) {
        this.callback = callback;
        this.taken = taken;
        response.setStatus(200);
        send(EventFeed.BEGINNING);
    }

    /**
     * Writes what is new, where there is room.
     *
     * @return whether it goes on
     */
    synchronized boolean write(boolean withSignOfLife) {
        if (isOver) return false;
        if (isWriting) {
            hasMissed = true;
            return true;
        }
        try {
            if (feed.isOver()) {
                end();
                return false;
            }
            String events = feed.next();
            if (!events.isEmpty()) send(events);
            else if (withSignOfLife) send(EventFeed.SIGN_OF_LIFE);
        } catch (IOException | RuntimeException unreadable) {
            // its page says why; the next change is looked at again
        }
        return !isOver;
    }

    private void send(String text) {
        isWriting = true;
        ByteBuffer bytes = ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8));
        response.write(false, bytes, Callback.from(this::wrote, this::failed));
    }

    private void wrote() {
        boolean isMore;
        synchronized (this) {
            isWriting = false;
            isMore = hasMissed;
            hasMissed = false;
        }
        if (isMore) taken.run();
    }

    private synchronized void failed(Throwable gone) {
        isWriting = false;
        if (isOver) return;
        isOver = true;
        Objects.requireNonNull(callback).failed(gone);
    }

    /** Ends it, for the browser too, which comes back by itself. */
    synchronized void end() {
        if (isOver || callback == null) return;
        isOver = true;
        callback.succeeded();
    }
}
