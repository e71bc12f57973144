package dev.verbale.query;

import dev.verbale.results.Escaped;
import java.io.IOException;
import java.io.StringWriter;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;

/**
 * An answer as text: a table for reading, comma-separated values by RFC 4180, or an array of JSON objects (RFC 8259).
 *
 * @since 0.2.0
 */
public enum AnswerText {
    /** Columns beside one another; keeps the rows until all are there, and no more of them than {@link AnswerWriting#MAX_ROWS}. */
    TABLE,
    CSV,
    JSON;

    /** Takes an answer's rows and writes them to {@code out}, which stays open. */
    public AnswerWriting to(Writer out) {
        return switch (this) {
            case TABLE -> new AnswerTable(out);
            case CSV -> new Csv(out);
            case JSON -> new Json(out);
        };
    }

    private static final class Csv implements AnswerWriting {
        private final Writer out;
        private @Nullable CSVPrinter printer;

        private Csv(Writer out) {
            this.out = out;
        }

        @Override
        public void columns(List<String> names) throws IOException {
            printer = CSVFormat.RFC4180
                    .builder()
                    .setHeader(names.toArray(String[]::new))
                    .get()
                    .print(out);
        }

        @Override
        public boolean row(List<@Nullable Object> values) throws IOException {
            List<String> cells = new ArrayList<>(values.size());
            for (Object value : values)
                cells.add(
                        value instanceof String text ? Escaped.cell(text) : String.valueOf(value == null ? "" : value));
            if (printer != null) printer.printRecord(cells);
            return true;
        }

        @Override
        public void end() throws IOException {
            if (printer != null) printer.flush();
        }
    }

    /** A line a row, and a whole array. */
    private static final class Json implements AnswerWriting {
        private static final JsonFactory FACTORY = new JsonFactory();

        private final Writer out;
        private List<String> names = List.of();
        private String before = "[\n";

        private Json(Writer out) {
            this.out = out;
        }

        @Override
        public void columns(List<String> columns) {
            names = columns;
        }

        @Override
        public boolean row(List<@Nullable Object> values) throws IOException {
            var line = new StringWriter();
            try (JsonGenerator json = FACTORY.createGenerator(ObjectWriteContext.empty(), line)) {
                json.writeStartObject();
                for (int i = 0; i < names.size(); i++) {
                    json.writeName(names.get(i));
                    value(json, values.get(i));
                }
                json.writeEndObject();
            }
            out.append(before).append(line.toString());
            before = ",\n";
            return true;
        }

        private static void value(JsonGenerator json, @Nullable Object value) {
            if (value == null) json.writeNull();
            else if (value instanceof Boolean bool) json.writeBoolean(bool);
            else if (value instanceof Number number && isFinite(number)) json.writeNumber(number.toString());
            else json.writeString(value.toString());
        }

        private static boolean isFinite(Number number) {
            return Double.isFinite(number.doubleValue())
                    || number instanceof java.math.BigDecimal
                    || number instanceof java.math.BigInteger;
        }

        @Override
        public void end() throws IOException {
            out.append(before.startsWith("[") ? "[]\n" : "\n]\n");
        }
    }
}
