package dev.verbale.content;

import dev.verbale.border.ShownValue;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Tables as comma-separated values, by RFC 4180. */
public final class CsvText {

    private CsvText() {}

    public static String of(List<String> header, List<? extends List<?>> rows) {
        var text = new StringBuilder(line(header));
        if (rows != null) for (List<?> row : rows) text.append(line(row));
        return text.toString();
    }

    private static String line(@Nullable List<?> cells) {
        return cells == null ? "\r\n" : cells.stream().map(CsvText::cell).collect(Collectors.joining(",", "", "\r\n"));
    }

    private static String cell(@Nullable Object value) {
        String text = value == null ? "" : ShownValue.of(value);
        return text.matches("(?s).*[\",\r\n].*") ? '"' + text.replace("\"", "\"\"") + '"' : text;
    }
}
