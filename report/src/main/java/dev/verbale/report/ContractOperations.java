package dev.verbale.report;

import dev.verbale.folder.MediaTypes;
import dev.verbale.history.compare.JsonValues;
import dev.verbale.journal.PlainFile;
import dev.verbale.results.Entry;
import dev.verbale.results.Entry.AttachmentEntry;
import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.core.JsonGenerator;

/**
 * The operations of the OpenAPI documents that a run has among its own attachments, so that the page can say which of them nobody
 * called.
 *
 * @see <a href="https://spec.openapis.org/oas/v3.1.0#path-item-object">OpenAPI, Path Item Object</a>
 */
final class ContractOperations {

    private static final String OPENAPI = "application/openapi+json";
    private static final int LONGEST_DOCUMENT = 16 << 20;
    private static final int MAX_DOCUMENTS = 20;
    private static final int MAX_OPERATIONS = 5_000;
    private static final int LONGEST = 200;

    /** The beginning of a path in the document, as {@link JsonValues} has it. */
    private static final Pattern OPERATION = Pattern.compile(
            "\\$\\.paths\\['((?:[^'\\\\]|\\\\.)*)']\\.(get|put|post|delete|options|head|patch|trace)\\b.*");

    private ContractOperations() {}

    /** As an array with an object for each document; nothing where there is none. */
    static void write(JsonGenerator json, Run run) {
        Set<String> seen = new HashSet<>();
        boolean isOpen = false;
        for (Entry entry : run.entries()) {
            if (!(entry instanceof AttachmentEntry one) || seen.size() == MAX_DOCUMENTS) continue;
            boolean isNew = MediaTypes.plain(one.stored().mediaType()).equals(OPENAPI)
                    && seen.add(String.valueOf(one.stored().sha256()));
            Set<List<String>> operations = isNew ? operations(one) : Set.of();
            if (operations.isEmpty()) continue;
            if (!isOpen) json.writeArrayPropertyStart("contracts");
            isOpen = true;
            write(json, one.name(), operations);
        }
        if (isOpen) json.writeEndArray();
    }

    private static void write(JsonGenerator json, String name, Set<List<String>> operations) {
        json.writeStartObject();
        json.writeStringProperty("name", Texts.cut(name, LONGEST));
        json.writeArrayPropertyStart("operations");
        for (List<String> operation : operations) {
            json.writeStartArray();
            for (String part : operation) json.writeString(part);
            json.writeEndArray();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    /** Methods and paths; none where it cannot be read: it is shown as an attachment all the same. */
    private static Set<List<String>> operations(AttachmentEntry document) {
        Map<String, String> values = null;
        try {
            if (document.file() != null)
                values = JsonValues.of(
                        new String(PlainFile.bytes(document.file(), LONGEST_DOCUMENT), StandardCharsets.UTF_8));
        } catch (IOException unreadable) {
            // as good as none
        }
        if (values == null) return Set.of();
        Set<List<String>> operations = new LinkedHashSet<>();
        for (String at : values.keySet()) {
            Matcher operation = OPERATION.matcher(at);
            if (operation.matches() && operations.size() < MAX_OPERATIONS)
                operations.add(List.of(
                        operation.group(2).toUpperCase(Locale.ROOT),
                        Texts.cut(operation.group(1).replaceAll("\\\\(.)", "$1"), LONGEST)));
        }
        return operations;
    }
}
