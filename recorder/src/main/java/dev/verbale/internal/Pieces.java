package dev.verbale.internal;

import java.io.InputStream;
import java.io.SequenceInputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** A text in pieces, which are not put together: of one of fifty megabytes no second copy is made. */
final class Pieces {

    private final List<String> pieces = new ArrayList<>();
    private long length;

    Pieces add(String piece) {
        if (piece.isEmpty()) return this;
        pieces.add(piece);
        length += piece.length();
        return this;
    }

    /** In characters. */
    long length() {
        return length;
    }

    /** The first {@code most} characters, or all where there are no more. */
    String beginning(int most) {
        if (pieces.size() == 1 && length <= most) return pieces.get(0);
        var beginning = new StringBuilder((int) Math.min(length, most));
        for (String piece : pieces) {
            int room = most - beginning.length();
            if (room == 0) break;
            beginning.append(piece, 0, Math.min(room, piece.length()));
        }
        return beginning.toString();
    }

    /** All of it in UTF-8. */
    InputStream utf8() {
        List<InputStream> streams = new ArrayList<>();
        for (String piece : pieces) streams.add(new TextStream(piece));
        return new SequenceInputStream(Collections.enumeration(streams));
    }
}
