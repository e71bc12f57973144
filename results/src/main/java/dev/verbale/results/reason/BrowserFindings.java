package dev.verbale.results.reason;

import dev.verbale.json.JsonIn;
import dev.verbale.results.Entry;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * What a browser's console and network said while a test ran, of what went wrong.
 *
 * @param scriptErrors in their order
 * @param failed requests without an answer, or answered by an error, in their order
 * @param writes requests that change something, as method, host and path
 * @since 0.2.0
 */
public record BrowserFindings(List<String> scriptErrors, List<Request> failed, Set<String> writes) {

    /** The lists that the adapters write are shorter. */
    private static final long LARGEST = 4_000_000;

    private static final Set<String> WRITING = Set.of("POST", "PUT", "PATCH", "DELETE");

    private static final Pattern SCRIPT_ERROR = Pattern.compile(
            "(?s).*(?:Uncaught|\\w*(?:Error|Exception)\\b:|is not defined|is not a function|Cannot read propert).*");

    /**
     * One request.
     *
     * @param status 0 where there was no answer
     */
    public record Request(String method, String url, int status) {}

    /** Of a test without a browser. */
    static final BrowserFindings NONE = new BrowserFindings(List.of(), List.of(), Set.of());

    public BrowserFindings {
        scriptErrors = List.copyOf(scriptErrors);
        failed = List.copyOf(failed);
        writes = Set.copyOf(writes);
    }

    /** Of the lists that were attached among {@code entries}, and in their steps. Reads their files. */
    public static BrowserFindings in(List<Entry> entries) {
        var gathered = new Gathered();
        gathered.gather(entries);
        return new BrowserFindings(gathered.scriptErrors, gathered.failed, gathered.writes);
    }

    /** What is found until now. */
    private static final class Gathered {
        private final List<String> scriptErrors = new ArrayList<>();
        private final List<Request> failed = new ArrayList<>();
        private final Set<String> writes = new HashSet<>();

        private void gather(List<Entry> entries) {
            for (Entry entry : entries) {
                if (entry instanceof Entry.AttachmentEntry attachment && attachment.file() != null) {
                    if (attachment.kind().equals(AttachmentKind.CONSOLE)) console(attachment.file());
                    if (attachment.kind().equals(AttachmentKind.NETWORK)) network(attachment.file());
                } else gather(Entry.inside(entry));
            }
        }

        private void console(Path file) {
            for (Map<String, String> line : objects(file)) {
                String text = line.getOrDefault("text", "");
                if (line.getOrDefault("level", "").equals("error")
                        && !text.startsWith("Failed to load resource")
                        && SCRIPT_ERROR.matcher(text).matches()) scriptErrors.add(text);
            }
        }

        private void network(Path file) {
            for (Map<String, String> line : objects(file)) {
                String method = line.getOrDefault("method", "GET");
                String url = line.getOrDefault("url", "");
                if (WRITING.contains(method)) writes.add(method + " " + ExchangeBehind.where(url));
                int status = number(line.getOrDefault("status", "0"));
                String failure = line.getOrDefault("failure", "");
                boolean dropped = failure.contains("ERR_ABORTED"); // the page itself went away
                if (status >= 500 || (!failure.isEmpty() && !dropped)) failed.add(new Request(method, url, status));
            }
        }
    }

    private static int number(String digits) {
        return digits.matches("\\d{1,3}") ? Integer.parseInt(digits) : 0;
    }

    /** The objects in a list, with their plain fields. A file that is no such list has none: it may come from anywhere. */
    private static List<Map<String, String>> objects(Path file) {
        List<Map<String, String>> objects = new ArrayList<>();
        try {
            if (Files.size(file) > LARGEST) return objects;
            try (JsonParser json = JsonIn.parser(Files.readAllBytes(file))) {
                int depth = 0;
                String name = "";
                Map<String, String> object = new HashMap<>();
                for (JsonToken token = json.nextToken(); token != null; token = json.nextToken()) {
                    if (token.isStructStart()) {
                        if (++depth == 2) object = new HashMap<>();
                    } else if (token.isStructEnd()) {
                        if (depth-- == 2) objects.add(object);
                    } else if (token == JsonToken.PROPERTY_NAME) name = json.currentName();
                    else if (depth == 2) object.put(name, json.getString());
                }
            }
        } catch (IOException | JacksonException unreadable) {
            // what was read until there counts
        }
        return objects;
    }
}
