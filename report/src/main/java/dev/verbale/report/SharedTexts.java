package dev.verbale.report;

import dev.verbale.json.TextCuts;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicIntegerArray;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * What long texts of a page share, so that it stands once: where ten thousand tests fail in one place, each has its stack for its step
 * and for itself. A piece that comes a second time gets a number, and stands in {@code data/pieces/N.js}, {@value #PIECES_A_FILE} a
 * file; from then on a text has that number in its place. For many threads.
 */
final class SharedTexts {

    static final int PIECES_A_FILE = 400;

    /** What is kept until the page is written; what comes later stands as it is. */
    private static final int MAX_CHARACTERS = 32_000_000;

    private static final int SEEN = 1 << 16;

    /** How the names of its files begin: a page that is replaced while it is read has others each time. */
    private final String prefix;

    private final AtomicIntegerArray seen = new AtomicIntegerArray(SEEN);
    private final Map<String, Integer> numbers = new HashMap<>();
    private final List<String> pieces = new ArrayList<>();
    private int characters;

    SharedTexts(PageOptions options) {
        prefix = options.progress() == null ? "" : UUID.randomUUID().toString().substring(0, 8) + "-";
    }

    /** What stands in one text, and which pieces it has in common with others: strings and numbers. */
    List<Object> of(String text) {
        List<Object> parts = new ArrayList<>();
        int own = 0; // what no other has begins here
        for (int from = 0; from < text.length(); ) {
            int end = TextCuts.end(text, from);
            Integer number = end - from < TextCuts.SHORTEST_PIECE ? null : number(text.substring(from, end));
            if (number != null) {
                if (own < from) parts.add(text.substring(own, from));
                parts.add(number);
                own = end;
            }
            from = end;
        }
        if (own < text.length()) parts.add(text.substring(own));
        return parts;
    }

    /** A property with that text, or with its parts. */
    void write(JsonGenerator json, String name, String text) {
        List<Object> parts = text.length() < TextCuts.SHORTEST_TEXT ? List.of(text) : of(text);
        if (parts.size() == 1 && parts.get(0) instanceof String whole) {
            json.writeStringProperty(name, whole);
            return;
        }
        json.writeObjectPropertyStart(name);
        if (!prefix.isEmpty()) json.writeStringProperty("from", prefix);
        json.writeArrayPropertyStart("parts");
        for (Object part : parts) {
            if (part instanceof Integer number) json.writeNumber(number);
            else json.writeString((String) part);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    /** Null where it comes for the first time. */
    private @Nullable Integer number(String piece) {
        int sum = TextCuts.sum(piece);
        if (seen.getAndSet(sum & (SEEN - 1), sum) != sum) return known(piece);
        return numbered(piece);
    }

    private synchronized @Nullable Integer known(String piece) {
        return numbers.get(piece);
    }

    private synchronized @Nullable Integer numbered(String piece) {
        Integer known = numbers.get(piece);
        if (known != null) return known;
        if (characters + piece.length() > MAX_CHARACTERS) return null;
        characters += piece.length();
        pieces.add(piece);
        numbers.put(piece, pieces.size() - 1);
        return pieces.size() - 1;
    }

    /** How the names of the files begin that hold the pieces, and how many there are; when no more texts come. */
    synchronized void writeFiles(JsonGenerator json) {
        json.writeStringProperty("from", prefix);
        json.writeNumberProperty("files", (pieces.size() + PIECES_A_FILE - 1) / PIECES_A_FILE);
    }

    /** All pieces, when no more texts come. */
    synchronized void write(Path data) throws IOException {
        if (pieces.isEmpty()) return;
        Path folder = Files.createDirectories(data.resolve("pieces"));
        for (int from = 0; from < pieces.size(); from += PIECES_A_FILE) {
            List<String> some = pieces.subList(from, Math.min(pieces.size(), from + PIECES_A_FILE));
            String name = prefix + from / PIECES_A_FILE;
            ScriptFile.write(folder.resolve(name + ".js"), "pieces", name, json -> {
                json.writeStartArray();
                for (String piece : some) json.writeString(piece);
                json.writeEndArray();
            });
        }
    }
}
