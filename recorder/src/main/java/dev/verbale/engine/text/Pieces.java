package dev.verbale.engine.text;

import dev.verbale.content.TextStream;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** A text in pieces, which are not put together: of one of fifty megabytes no second copy is made. */
public final class Pieces {

    private final List<String> pieces = new ArrayList<>();
    private long length;

    public Pieces add(String piece) {
        if (piece.isEmpty()) return this;
        pieces.add(piece);
        length += piece.length();
        return this;
    }

    /** In characters. */
    public long length() {
        return length;
    }

    /** The first {@code most} characters, or all where there are no more. */
    public String beginning(int limit) {
        if (pieces.size() == 1 && length <= limit) return pieces.get(0);
        var beginning = new StringBuilder((int) Math.min(length, limit));
        for (String piece : pieces) {
            int room = limit - beginning.length();
            if (room == 0) break;
            beginning.append(piece, 0, Math.min(room, piece.length()));
        }
        return beginning.toString();
    }

    /** All of it in UTF-8. */
    public InputStream utf8() {
        List<InputStream> streams = new ArrayList<>();
        for (String piece : pieces) streams.add(new TextStream(piece));
        return new SequenceInputStream(Collections.enumeration(streams));
    }
}
