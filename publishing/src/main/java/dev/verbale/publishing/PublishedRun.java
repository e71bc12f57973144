package dev.verbale.publishing;

import dev.verbale.viewer.RunRow;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;

/**
 * A run of a site.
 *
 * @param folder where this version of its page is, below {@link Site#PAGES}
 * @param row how it went
 */
record PublishedRun(String folder, RunRow row) {

    void write(JsonGenerator json) {
        json.writeStartObject();
        json.writeStringProperty("folder", folder);
        json.writeName("run");
        row.write(json);
        json.writeEndObject();
    }

    /** Null where something is missing that has to be there. */
    static @Nullable PublishedRun read(JsonParser json) {
        String folder = "";
        RunRow row = null;
        for (String field = json.nextName(); field != null; field = json.nextName()) {
            json.nextToken();
            switch (field) {
                case "folder" -> folder = String.valueOf(json.getString());
                case "run" -> row = RunRow.read(json);
                default -> json.skipChildren();
            }
        }
        return row == null || !folder.matches("[\\p{L}\\p{N}][\\p{L}\\p{N}._-]{0,120}")
                ? null
                : new PublishedRun(folder, row);
    }

    /** The name of the run as an address and a folder can have it: by it the site tells runs from each other. */
    String name() {
        return SitePages.plain(row.summary().name());
    }

    String branch() {
        return row.summary().branch();
    }
}
