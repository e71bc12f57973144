package dev.verbale.report;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** {@code data/earlier/0.js}: tests over the runs before, loaded when somebody looks at them. Its shape is {@code Marks[]}. */
final class EarlierFile {

    private EarlierFile() {}

    static void write(EarlierRuns earlier, List<Row> rows, Path data) throws IOException {
        Map<String, Row> byKey = new HashMap<>();
        for (Row row : rows) if (row.isTest() && !row.superseded()) byKey.put(row.key(), row);
        Path folder = Files.createDirectories(data.resolve("earlier"));
        ScriptFile.write(folder.resolve("0.js"), "earlier", "0", json -> {
            json.writeStartArray();
            for (EarlierRuns.Marks marks : earlier.marks()) {
                Row row = byKey.get(marks.key());
                json.writeStartObject();
                json.writeStringProperty("name", row == null ? marks.name() : row.name());
                if (row != null) {
                    json.writeStringProperty("id", row.id());
                    json.writeStringProperty("outcome", row.outcome().word());
                    if (row.recovered()) json.writeBooleanProperty("recovered", true);
                    if (!row.path().isEmpty())
                        json.writeStringProperty("in", row.path().get(0));
                }
                json.writeStringProperty("why", marks.why());
                json.writeStringProperty("letters", marks.letters());
                if (marks.step() != null) {
                    json.writeNumberProperty(
                            "usually", RunFile.micros(marks.step().before()));
                    json.writeNumberProperty("now", RunFile.micros(marks.step().after()));
                }
                json.writeEndObject();
            }
            json.writeEndArray();
        });
    }
}
