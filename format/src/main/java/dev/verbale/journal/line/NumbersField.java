package dev.verbale.journal.line;

import java.util.LinkedHashMap;
import java.util.Map;

/** Whole numbers by name, such as times of parts in microseconds. Left out where there is none. */
final class NumbersField extends Field {

    private final long max;

    NumbersField(String name, String meaning, long max) {
        super(name, meaning, false);
        this.max = max;
    }

    void write(JsonLine line, Map<String, Long> numbers) {
        if (numbers.isEmpty()) return;
        line.json.writeName(json);
        line.json.writeStartObject();
        numbers.forEach((key, number) -> line.json.writeNumberProperty(line.filtered(key), number));
        line.json.writeEndObject();
    }

    Map<String, Long> read(Fields fields) {
        Fields object = fields.objectOrNull(name());
        if (object == null) return Map.of();
        Map<String, Long> numbers = new LinkedHashMap<>();
        for (String key : object.names()) {
            Long number = object.numberOrNull(key);
            if (number == null || number < 0 || number > max)
                throw object.refuses(key, number + " is not from 0 to " + max);
            numbers.put(key, number);
        }
        return numbers;
    }

    @Override
    public String schema() {
        return "{\"type\": \"object\", \"additionalProperties\": {\"type\": \"integer\", \"minimum\": 0, \"maximum\": "
                + max + "}}";
    }
}
