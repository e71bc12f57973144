package dev.verbale.query;

import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Columns beside one another, numbers to the right. */
final class AnswerTable implements AnswerWriting {
    private static final int WIDEST = 60;

    private final Writer out;
    private final List<List<String>> rows = new ArrayList<>();
    private final List<Boolean> numbers = new ArrayList<>();
    private boolean isCut;

    AnswerTable(Writer out) {
        this.out = out;
    }

    @Override
    public void columns(List<String> names) {
        rows.add(names);
        names.forEach(name -> numbers.add(true));
    }

    @Override
    public boolean row(List<@Nullable Object> values) {
        if (rows.size() > MAX_ROWS) {
            isCut = true;
            return false;
        }
        List<String> cells = new ArrayList<>(values.size());
        for (int i = 0; i < values.size(); i++) {
            Object value = values.get(i);
            if (value != null && !(value instanceof Number)) numbers.set(i, false);
            cells.add(shortened(value == null ? "" : value.toString()));
        }
        rows.add(cells);
        return true;
    }

    /** One line, and no sign that a terminal acts on. */
    private static String shortened(String text) {
        String line = text.replaceAll("\\p{Cntrl}|\\p{Cf}", " ");
        return line.codePointCount(0, line.length()) <= WIDEST
                ? line
                : line.substring(0, line.offsetByCodePoints(0, WIDEST - 1)) + "…";
    }

    @Override
    public void end() throws IOException {
        int[] widths = new int[numbers.size()];
        for (List<String> row : rows)
            for (int i = 0; i < widths.length; i++) widths[i] = Math.max(widths[i], length(row.get(i)));
        for (int i = 0; i < rows.size(); i++) {
            line(rows.get(i), widths);
            if (i == 0) rule(widths);
        }
        int found = rows.size() - 1;
        out.append(
                isCut
                        ? "These are the first " + found + " rows. csv and json write all of them.\n"
                        : found == 1 ? "1 row\n" : found + " rows\n");
    }

    private void line(List<String> row, int[] widths) throws IOException {
        var line = new StringBuilder();
        for (int i = 0; i < widths.length; i++) {
            if (i > 0) line.append("  ");
            String gap = " ".repeat(widths[i] - length(row.get(i)));
            line.append(numbers.get(i) ? gap + row.get(i) : row.get(i) + gap);
        }
        out.append(line.toString().stripTrailing()).append('\n');
    }

    private void rule(int[] widths) throws IOException {
        var line = new StringBuilder();
        for (int i = 0; i < widths.length; i++) line.append(i > 0 ? "  " : "").append("─".repeat(widths[i]));
        out.append(line).append('\n');
    }

    private static int length(String text) {
        return text.codePointCount(0, text.length());
    }
}
