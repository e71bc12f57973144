package dev.verbale.journal.line;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/** The pieces of texts that the lines of one journal have had so far, to whoever reads it from its beginning. For one thread. */
public final class KnownPieces {

    /** No recorder writes such a text; a few lines of a stranger could mean one of terabytes. */
    private static final int LONGEST = 64 << 20;

    private final Map<Integer, String> texts = new HashMap<>();
    private final TreeSet<Integer> missing = new TreeSet<>();

    /** Numbers that the lines since the last call mean and that no line has had. */
    public List<Integer> takeMissing() {
        if (missing.isEmpty()) return List.of(); // as of nearly every line
        List<Integer> now = List.copyOf(missing);
        missing.clear();
        return now;
    }

    /** The text of which those are the pieces. */
    String whole(List<TextPiece> pieces) {
        var whole = new StringBuilder();
        for (TextPiece piece : pieces) {
            String text = piece.text();
            if (text != null && piece.id() != 0) texts.put(piece.id(), text);
            else if (text == null) text = texts.get(piece.id());
            if (text == null) missing.add(piece.id());
            String part = text == null ? "\t(the line that has this part is missing)\n" : text;
            if (whole.length() + part.length() > LONGEST)
                throw new MalformedLine("has a text of pieces that is longer than any recorder writes");
            whole.append(part);
        }
        return whole.toString();
    }
}
