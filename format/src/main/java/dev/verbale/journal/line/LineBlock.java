package dev.verbale.journal.line;

import dev.verbale.json.JsonIn;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Lines that lie one after the other in memory. To make a parser for each takes longer than to read it, so one goes through all of
 * them. Where it finds anything else than one object in a line, that line is read alone, and says what is wrong with it.
 */
public final class LineBlock {

    private final byte[] bytes;
    private final int end;
    private final KnownPieces known;
    private @Nullable JsonParser parser;
    private int parsedFrom;

    /**
     * @param end behind the last line
     * @param known what the lines before have, and these will have
     */
    public LineBlock(byte[] bytes, int end, KnownPieces known) {
        this.bytes = bytes;
        this.known = known;
        this.end = end;
    }

    /**
     * The event in the line from index {@code from} to before index {@code to}. Lines are asked for in their order.
     *
     * @throws MalformedLine where there is none
     */
    public EventDecoder.Decoded decode(int from, int to) {
        Fields fields = fields(from, to);
        if (fields != null) return EventDecoder.decode(fields, bytes, from, to - from);
        leave();
        return EventDecoder.decode(bytes, from, to - from, known);
    }

    /** Null where the line is not just one object. */
    private @Nullable Fields fields(int from, int to) {
        try {
            if (parser == null) parser = parserFrom(from);
            if (parser.nextToken() != JsonToken.START_OBJECT) return null;
            if (parsedFrom + parser.currentTokenLocation().getByteOffset() < from) return null;
            Fields fields = Fields.read(parser, known);
            long behind = parsedFrom + parser.currentLocation().getByteOffset();
            return behind <= to && isBlank((int) behind, to) ? fields : null;
        } catch (JacksonException broken) {
            return null;
        } catch (RuntimeException odd) { // of the parser, over bytes of strangers
            return null;
        }
    }

    private JsonParser parserFrom(int from) {
        parsedFrom = from;
        return JsonIn.parser(bytes, from, end - from);
    }

    private boolean isBlank(int from, int to) {
        for (int i = from; i < to; i++) if (bytes[i] != ' ' && bytes[i] != '\t' && bytes[i] != '\r') return false;
        return true;
    }

    /** The parser is somewhere else by now, or no longer knows where. */
    private void leave() {
        if (parser != null) parser.close();
        parser = null;
    }

    /** No more lines are asked for. */
    public void close() {
        leave();
    }
}
