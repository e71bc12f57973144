package dev.verbale.browser;

import dev.verbale.Evidence;
import dev.verbale.MediaType;
import java.util.ArrayList;
import java.util.List;

/**
 * What was seen of a browser at one moment, in memory: to be attached, or forgotten where nobody needs it. Immutable.
 *
 * @since 0.2.0
 */
public final class BrowserSnapshot {

    private record Attached(String name, String kind, byte[] content, MediaType type) {}

    private final List<Object> pieces;

    private BrowserSnapshot(List<Object> pieces) {
        this.pieces = List.copyOf(pieces);
    }

    /** Logs and attaches it all. */
    public void writeTo(Evidence evidence) {
        for (Object piece : pieces) {
            if (piece instanceof Attached one) evidence.attach(one.name(), one.kind(), one.content(), one.type());
            else evidence.log(piece.toString());
        }
    }

    /** A snapshot while it is taken. From any thread: whoever gathers may take too long, and still be gathering. */
    public static final class Builder {

        private final List<Object> pieces = new ArrayList<>();

        /** An empty one. */
        public Builder() {}

        /** A line. */
        public void log(String text) {
            add(String.valueOf(text));
        }

        /** An attachment; {@code kind} is one of those in {@link dev.verbale.vocabulary.AttachmentKind}. */
        public void attach(String name, String kind, byte[] content, MediaType type) {
            add(new Attached(name, kind, content, type));
        }

        private synchronized void add(Object piece) {
            pieces.add(piece);
        }

        /** What there is until now. */
        public synchronized BrowserSnapshot build() {
            return new BrowserSnapshot(pieces);
        }
    }
}
