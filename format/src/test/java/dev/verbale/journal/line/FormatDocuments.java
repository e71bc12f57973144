package dev.verbale.journal.line;

import java.util.StringJoiner;

/** What the documentation says of journals, made from the codecs. */
final class FormatDocuments {

    private FormatDocuments() {}

    /** The schema of a line: it allows what the reader reads, later versions included. */
    static String schema() {
        var objects = new StringJoiner(",\n");
        for (ObjectCodec<?> codec : EventCodecs.objects())
            objects.add("    \"" + codec.word() + "\": " + object(codec, ""));
        var events = new StringJoiner(",\n");
        for (EventCodec<?> codec : EventCodecs.all())
            events.add("    {\"if\": {\"properties\": {\"event\": {\"const\": \"" + codec.word() + "\"}}}, \"then\": "
                    + object(codec, "\"at\": {\"maximum\": " + NumberField.LONGEST_MICROS + "}") + "}");
        return """
                {
                  "$schema": "https://json-schema.org/draft/2020-12/schema",
                  "$id": "https://verbale.dev/journal.schema.json",
                  "title": "One line of a journal",
                  "type": "object",
                  "required": ["event", "at"],
                  "properties": {
                    "event": {"type": "string"},
                    "at": {"type": "integer", "minimum": 0, "description": "microseconds since the journal was opened"}
                  },
                  "$defs": {
                %s
                  },
                  "allOf": [
                %s
                  ]
                }
                """.formatted(objects, events);
    }

    private static String object(Codec<?> codec, String first) {
        var properties = new StringJoiner(",\n        ", "{\n        ", "\n      }");
        var required = new StringJoiner("\", \"", "[\"", "\"]").setEmptyValue("[]");
        if (!first.isEmpty()) properties.add(first);
        for (Field field : codec.fields()) {
            properties.add("\"" + field.name() + "\": " + described(field));
            if (field.isRequired()) required.add(field.name());
        }
        return "{\"type\": \"object\", \"description\": \"" + codec.meaning() + "\",\n      \"required\": " + required
                + ",\n      \"properties\": " + properties + "}";
    }

    private static String described(Field field) {
        String schema = field.schema();
        if (field.meaning().isEmpty()) return schema;
        return schema.substring(0, schema.length() - 1) + ", \"description\": \"" + field.meaning() + "\"}";
    }

    /** The tables of {@code docs/format.md}. */
    static String tables() {
        var text = new StringBuilder("| event | what it means, and its fields besides `event` and `at` |\n|---|---|\n");
        for (EventCodec<?> codec : EventCodecs.all()) row(text, codec);
        text.append("\n| object | what it means, and its fields |\n|---|---|\n");
        for (ObjectCodec<?> codec : EventCodecs.objects()) row(text, codec);
        return text.toString();
    }

    private static void row(StringBuilder text, Codec<?> codec) {
        var fields = new StringJoiner("; ");
        for (Field field : codec.fields())
            fields.add("**`" + field.name() + "`**" + (field.isRequired() ? "" : "?")
                    + (field.meaning().isEmpty() ? "" : " " + field.meaning()));
        text.append("| `")
                .append(codec.word())
                .append("` | ")
                .append(codec.meaning())
                .append(' ');
        text.append(fields).append(" |\n");
    }
}
