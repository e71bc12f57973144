package dev.verbale.browser;

import dev.verbale.evidence.Evidence;
import java.util.ArrayList;
import java.util.List;

/** What was seen of a browser at one moment, in memory: to be written down, or forgotten where nobody needs it. */
public final class Look {

    private record Paper(String name, String kind, byte[] content, String mediaType) {}

    private final List<Object> pieces = new ArrayList<>();
    private boolean closed;

    /** A line. */
    public void note(String text) {
        add(text);
    }

    /** A paper; {@code kind} is one of those in {@link dev.verbale.event.PaperKept}. */
    public void paper(String name, String kind, byte[] content, String mediaType) {
        add(new Paper(name, kind, content, mediaType));
    }

    private synchronized void add(Object piece) {
        if (!closed) pieces.add(piece);
    }

    /** Nothing is added any more: whoever gathered took too long, and may still be gathering. */
    public synchronized void close() {
        closed = true;
    }

    /** Writes it all down. */
    public void writeTo(Evidence evidence) {
        List<Object> all;
        synchronized (this) {
            all = List.copyOf(pieces);
        }
        for (Object piece : all) {
            if (piece instanceof Paper paper)
                evidence.paper(paper.name(), paper.kind(), paper.content(), paper.mediaType());
            else evidence.note(piece.toString());
        }
    }
}
