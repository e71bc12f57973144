package dev.verbale.engine.attachment;

import dev.verbale.json.JsonIn;
import dev.verbale.json.JsonOut;
import dev.verbale.secrets.Redactor;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.TokenStreamLocation;

/**
 * Copies an HTTP archive and masks its secrets: in there a secret's name stands in one field and its value in another, and a
 * body is a text whose kind another field says, which no look at lines would find. One that breaks off is kept up to there.
 */
final class MaskedArchive {

    /** The lists of what has a name and a value. */
    private static final Set<String> PAIRS = Set.of("headers", "cookies", "queryString", "params");
    /** What has a body as its text. */
    private static final Set<String> BODIES = Set.of("postData", "content");

    private final JsonParser in;
    private final JsonGenerator out;
    private final Redactor redactor;
    /** The names of the fields that hold the lists and objects we are in; empty for those in a list. */
    private final Deque<String> inside = new ArrayDeque<>();

    private MaskedArchive(JsonParser in, JsonGenerator out, Redactor redactor) {
        this.in = in;
        this.out = out;
        this.redactor = redactor;
    }

    /** Gives what is wrong with it, or null. */
    public static @Nullable String copy(InputStream content, OutputStream kept, Redactor redactor) throws IOException {
        try (JsonGenerator out = JsonOut.generator(kept);
                JsonParser in = JsonIn.parser(content)) {
            try {
                new MaskedArchive(in, out, redactor).copy();
                return null;
            } catch (JacksonException broken) {
                if (broken.getCause() instanceof IOException unread) throw unread;
                // what was read until then is kept: the generator closes what is open
                TokenStreamLocation at = in.currentLocation();
                return "is no whole JSON: what stands before line " + at.getLineNr() + ", column " + at.getColumnNr()
                        + " was kept, and the rest left out, since it could not be masked";
            }
        }
    }

    private void copy() {
        String field = "";
        for (JsonToken token = in.nextToken(); token != null; token = in.nextToken()) {
            if (token == JsonToken.PROPERTY_NAME) {
                field = in.currentName();
                out.writeName(field);
                continue;
            }
            if (token == JsonToken.START_OBJECT && PAIRS.contains(inside.isEmpty() ? "" : inside.peek())) {
                pair(inside.element());
                continue;
            }
            if (token == JsonToken.START_OBJECT && BODIES.contains(field)) {
                body();
                field = "";
                continue;
            }
            value(token, field);
            field = "";
        }
    }

    private void value(JsonToken token, String field) {
        switch (token) {
            case START_OBJECT, START_ARRAY -> {
                inside.push(field);
                out.copyCurrentEvent(in);
            }
            case END_OBJECT, END_ARRAY -> {
                inside.pop();
                out.copyCurrentEvent(in);
            }
            case VALUE_STRING -> out.writeString(masked(field, in.getString()));
            default -> out.copyCurrentEvent(in);
        }
    }

    private String masked(String field, String text) {
        return redactor.isSecretName(field) ? Redactor.MASK : redactor.redacted(text);
    }

    /** Its fields may come in any order, so all of them are read before one is written. What is nested in it is left out. */
    private void pair(String list) {
        Map<String, String> texts = new LinkedHashMap<>();
        String field = "";
        for (JsonToken token = in.nextToken(); token != null && token != JsonToken.END_OBJECT; token = in.nextToken()) {
            if (token == JsonToken.PROPERTY_NAME) field = in.currentName();
            else if (token == JsonToken.VALUE_STRING) texts.put(field, in.getString());
            else if (token.isStructStart()) in.skipChildren();
        }
        boolean secret = list.equals("cookies") || redactor.isSecretName(texts.getOrDefault("name", ""));
        out.writeStartObject();
        texts.forEach((name, text) -> out.writeStringProperty(
                name, secret && name.equals("value") ? Redactor.MASK : redactor.redacted(text)));
        out.writeEndObject();
    }

    /** Its text is held back until its type and its encoding are known; everything else goes on as it comes. */
    private void body() {
        out.writeStartObject();
        inside.push("");
        Map<String, String> held = new LinkedHashMap<>();
        int depth = inside.size();
        String field = "";
        while (inside.size() >= depth) {
            JsonToken token = in.nextToken();
            if (token == null) break;
            if (token == JsonToken.PROPERTY_NAME) {
                field = in.currentName();
                if (inside.size() > depth || !isHeld(field)) out.writeName(field);
                continue;
            }
            boolean here = inside.size() == depth;
            if (here && token == JsonToken.END_OBJECT) break;
            if (here && isHeld(field)) {
                if (token == JsonToken.VALUE_STRING) held.put(field, in.getString());
                else if (token.isStructStart()) in.skipChildren();
            } else if (token == JsonToken.START_OBJECT && PAIRS.contains(inside.peek())) {
                pair(inside.element());
            } else {
                value(token, field);
            }
            field = "";
        }
        if (inside.size() == depth) inside.pop();
        String type = held.getOrDefault("mimeType", "");
        String encoding = held.getOrDefault("encoding", held.getOrDefault("_encoding", ""));
        held.computeIfPresent("text", (name, text) -> new ArchivedBody(redactor, type).masked(text, encoding));
        held.forEach(
                (name, text) -> out.writeStringProperty(name, name.equals("text") ? text : redactor.redacted(text)));
        out.writeEndObject();
    }

    private static boolean isHeld(String field) {
        return field.equals("text")
                || field.equals("mimeType")
                || field.equals("encoding")
                || field.equals("_encoding");
    }
}
