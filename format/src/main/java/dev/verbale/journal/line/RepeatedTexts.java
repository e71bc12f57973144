package dev.verbale.journal.line;

import dev.verbale.json.TextCuts;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReferenceArray;
import org.jspecify.annotations.Nullable;

/**
 * What long texts of one journal repeat: where ten thousand tests fail in one place, their stacks differ in a line. A piece of a text
 * that comes a second time gets an id and is kept; from the third time on that id is all that is written of it.
 *
 * <p>Bounded, without locks, and whole after a stack overflow at whatever call. Safe from any thread.
 */
public final class RepeatedTexts {

    private static final int KEPT = 1 << 12;
    private static final int SEEN = 1 << 14;

    private final AtomicInteger last = new AtomicInteger();

    /** What has an id, where its sum leads; a later one replaces an earlier one. */
    private final AtomicReferenceArray<@Nullable TextPiece> kept = new AtomicReferenceArray<>(KEPT);

    /** The sums of what came once, made when a long text comes. Two threads at once may forget one. */
    private int @Nullable [] seen;

    /**
     * {@code text} in pieces; empty where nothing in it was there before.
     *
     * @param fresh takes what gets its id here; nobody may refer to it before it is written
     */
    List<TextPiece> pieces(String text, List<TextPiece> fresh) {
        if (text.length() < TextCuts.SHORTEST_TEXT) return List.of();
        List<TextPiece> pieces = new ArrayList<>();
        int own = 0; // what is said as it stands begins here
        for (int from = 0; from < text.length(); ) {
            int end = TextCuts.end(text, from);
            TextPiece piece = end - from < TextCuts.SHORTEST_PIECE ? null : known(text.substring(from, end), fresh);
            if (piece != null) {
                if (own < from) pieces.add(new TextPiece(0, text.substring(own, from)));
                pieces.add(piece);
                own = end;
            }
            from = end;
        }
        if (pieces.isEmpty()) return List.of();
        if (own < text.length()) pieces.add(new TextPiece(0, text.substring(own)));
        return pieces;
    }

    /** It stands in the journal: others may refer to it. */
    void written(List<TextPiece> fresh) {
        for (TextPiece piece : fresh) {
            String text = piece.text();
            if (text != null) kept.set(TextCuts.sum(text) & (KEPT - 1), piece);
        }
    }

    /** Null where it comes for the first time. */
    private @Nullable TextPiece known(String text, List<TextPiece> fresh) {
        int sum = TextCuts.sum(text);
        TextPiece known = kept.get(sum & (KEPT - 1));
        if (known != null && text.equals(known.text())) return new TextPiece(known.id(), null);
        int[] before = seen;
        if (before == null) {
            before = new int[SEEN];
            seen = before;
        }
        int slot = sum & (SEEN - 1);
        if (before[slot] != sum) {
            before[slot] = sum;
            return null;
        }
        for (TextPiece one : fresh) if (text.equals(one.text())) return null; // twice in one line
        var piece = new TextPiece(last.incrementAndGet(), text);
        fresh.add(piece);
        return piece;
    }
}
