package dev.verbale.report;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.ToLongFunction;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * Rows as JSON by columns. An object a row would repeat each name 100,000 times, and a browser takes five times as long to read it.
 * {@code rows.ts} of the page puts them together again; it tells the four forms of a column by their shapes.
 */
final class Columns {

    private final JsonGenerator json;
    private final List<Row> rows;

    Columns(JsonGenerator json, List<Row> rows) {
        this.json = json;
        this.rows = rows;
    }

    /** What is different in each row: {@code ["a", "b"]}. */
    void different(String name, Function<Row, String> text) {
        json.writeArrayPropertyStart(name);
        for (Row row : rows) json.writeString(text.apply(row));
        json.writeEndArray();
    }

    /** Numbers: {@code [1, 2]}. */
    void numbers(String name, ToLongFunction<Row> number) {
        json.writeArrayPropertyStart(name);
        for (Row row : rows) json.writeNumber(number.applyAsLong(row));
        json.writeEndArray();
    }

    /** What repeats, each once, and which of them each row has, -1 for none: {@code {"of": ["a"], "is": [0, 0, -1]}}. */
    void repeated(String name, Function<Row, @Nullable String> text) {
        repeated(name, text, json::writeString);
    }

    /** A column of lists of texts, each list written once and named by its number. */
    void repeatedLists(String name, Function<Row, @Nullable List<String>> list) {
        repeated(name, list, texts -> {
            json.writeStartArray();
            for (String text : texts) json.writeString(text);
            json.writeEndArray();
        });
    }

    /** Writes one value. */
    @FunctionalInterface
    interface Value<T> {
        void write(T value);
    }

    private <T> void repeated(String name, Function<Row, @Nullable T> value, Value<T> writing) {
        Map<T, Integer> numbers = new LinkedHashMap<>();
        List<Integer> each = new ArrayList<>(rows.size());
        for (Row row : rows) {
            T one = value.apply(row);
            each.add(one == null ? -1 : numbers.computeIfAbsent(one, first -> numbers.size()));
        }
        json.writeObjectPropertyStart(name);
        json.writeArrayPropertyStart("of");
        for (T one : numbers.keySet()) writing.write(one);
        json.writeEndArray();
        json.writeArrayPropertyStart("is");
        for (int number : each) json.writeNumber(number);
        json.writeEndArray();
        json.writeEndObject();
    }

    /** What few rows have, by their positions in the file: {@code {"at": [7], "value": ["a"]}}. The others have null. */
    <T> void few(String name, Function<Row, @Nullable T> value, Value<T> writing) {
        List<T> values = new ArrayList<>();
        json.writeObjectPropertyStart(name);
        json.writeArrayPropertyStart("at");
        for (int i = 0; i < rows.size(); i++) {
            T one = value.apply(rows.get(i));
            if (one == null) continue;
            values.add(one);
            json.writeNumber(i);
        }
        json.writeEndArray();
        json.writeArrayPropertyStart("value");
        for (T one : values) writing.write(one);
        json.writeEndArray();
        json.writeEndObject();
    }

    /** A text that few rows have. */
    void fewTexts(String name, Function<Row, @Nullable String> text) {
        few(name, text, json::writeString);
    }

    /** A number that few rows have. */
    void fewNumbers(String name, Function<Row, @Nullable Integer> number) {
        few(name, number, json::writeNumber);
    }

    /** Which few rows it is true of. */
    void flag(String name, Predicate<Row> flag) {
        few(name, row -> flag.test(row) ? Boolean.TRUE : null, json::writeBoolean);
    }
}
