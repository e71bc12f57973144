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
    /** Columns beside one another; keeps the rows until all are there, and no more of them than {@link #MAX_ROWS}. */
    TABLE,
    CSV,
    JSON;

    /** More than a person reads in a terminal. */
    public static final int MAX_ROWS = 200;

    /** Takes an answer's rows and writes them to {@code out}, which stays open. */
    public Writing to(Writer out) {
        return switch (this) {
            case TABLE -> new AnswerTable(out);
            case CSV -> new Csv(out);
            case JSON -> new Json(out);
        };
    }

    /** An answer that is being written. */
    public interface Writing extends AnswerRows {

        /**
         * Writes what is left.
         *
         * @throws IOException where it cannot be written
         */
        void end() throws IOException;
    }

    static String text(@Nullable Object value) {
        return value == null ? "" : value.toString();
    }

    private static final class Csv implements Writing {
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
            for (Object value : values) cells.add(value instanceof String text ? Escaped.cell(text) : text(value));
            if (printer != null) printer.printRecord(cells);
            return true;
        }

        @Override
        public void end() throws IOException {
            if (printer != null) printer.flush();
        }
    }

    /** A line a row, and a whole array. */
    private static final class Json implements Writing {
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
