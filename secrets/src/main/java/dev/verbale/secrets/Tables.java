package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.List;

/**
 * Tables in text: comma-separated values (RFC 4180), with other separators too, and rows between bars as scenarios and
 * terminals have them. Where a line names its columns and one is secret, the cells below it are, as far as the table goes.
 * Remembers the table it is in from one piece of a long text to the next.
 */
final class Tables {

    private static final int MAX_COLUMNS = 500;
    static final String SEPARATORS = "|,;\t";

    private final SecretNames names;

    /** 0 outside of tables. */
    private char separator;

    private int columns;
    private List<Integer> secret = List.of();

    /** Where the line begins that may name columns; -1 where that is known already. */
    private int line = -1;
    /** Its last separator so far; -1 for none. */
    private int last = -1;

    Tables(SecretNames names) {
        this.names = names;
    }

    /** As they are now, to come back to. */
    Tables copy() {
        var copy = new Tables(names);
        copy.comeBackTo(this);
        return copy;
    }

    void comeBackTo(Tables then) {
        separator = then.separator;
        columns = then.columns;
        secret = then.secret;
    }

    /** Looks at the whole line that begins at {@code from}. */
    void findAt(String text, int from, Found found) {
        lineBegins(text, from, found);
        restOfLine(text, from);
    }

    /** Another text, or a piece of one. */
    void begin() {
        line = -1;
    }

    /**
     * A line begins at {@code from}. Where a table goes on, its cells are looked at now; whether it names columns turns out at its
     * separators: looking at each line for that alone took half of the time that masking took.
     */
    void lineBegins(String text, int from, Found found) {
        boolean isRow = separator != 0 && isRow(text, from, found);
        line = isRow ? -1 : from;
        last = -1;
    }

    /** The line has a separator at {@code at}. */
    void separatorAt(String text, int at) {
        if (line < 0) return;
        boolean named = namesSecretBefore(text, at);
        last = at;
        if (!named) return;
        columnsOf(text, line);
        line = -1;
    }

    /** The line, or the text, ends at {@code at}. */
    void lineEnds(String text, int at) {
        if (line < 0) return;
        if (last >= 0 && namesSecretBefore(text, at)) columnsOf(text, line);
        line = -1;
    }

    /** What comes now of the line was found to be a secret, and nobody looks at the separators in there. */
    void partIsMasked(String text) {
        restOfLine(text, last < 0 ? line : last + 1);
    }

    /** Looks at all separators of the line from {@code from} on, and at its end. */
    private void restOfLine(String text, int from) {
        int i = from;
        while (line >= 0 && i < text.length()) {
            char c = text.charAt(i);
            if (c == '\n' || c == '\r') break;
            if (SEPARATORS.indexOf(c) >= 0) separatorAt(text, i);
            i++;
        }
        lineEnds(text, i);
    }

    /** Whether a secret name ends before {@code at}, where it did not already before the separator before. */
    private boolean namesSecretBefore(String text, int at) {
        int end = at;
        while (end > line && end - 1 > last && isBlank(text.charAt(end - 1))) end--;
        boolean again = end - 1 == last && end > line && text.charAt(last) == '\t';
        return !again && names.endsSecret(text, end);
    }

    /** A tab stands for a column's end, and for a blank before one. */
    private static boolean isBlank(char c) {
        return c == ' ' || c == '"' || c == '\t';
    }

    /** Whether the line that begins at {@code from} belongs to the table before it, which ends otherwise. */
    private boolean isRow(String text, int from, Found found) {
        int to = Chars.lineEnd(text, from);
        List<int[]> cells = cells(text, from, to, separator);
        if (cells.size() == columns) {
            mask(text, cells, found);
            return true;
        }
        if (separator == '|' && isRule(text, from, to)) return true;
        separator = 0;
        return false;
    }

    /** A table begins where all of the line that begins at {@code from}, and has a secret's name, are names of columns. */
    private void columnsOf(String text, int from) {
        int to = Chars.lineEnd(text, from);
        for (char candidate : SEPARATORS.toCharArray()) {
            List<int[]> cells = cells(text, from, to, candidate);
            if (cells.size() < 2 || cells.size() > MAX_COLUMNS || !areNames(text, cells)) continue;
            List<Integer> columnsFound = new ArrayList<>();
            for (int i = 0; i < cells.size(); i++)
                if (names.isSecret(text, cells.get(i)[0], cells.get(i)[1])) columnsFound.add(i);
            if (columnsFound.isEmpty()) continue;
            separator = candidate;
            columns = cells.size();
            secret = columnsFound;
            return;
        }
    }

    private void mask(String text, List<int[]> cells, Found found) {
        for (int column : secret) {
            int[] cell = cells.get(column);
            if (cell[1] > cell[0] && !Prose.isNoValue(text, cell[0], cell[1])) found.add(cell[0], cell[1], Mask.TEXT);
        }
    }

    /** The line below the names in Markdown and on terminals. */
    private static boolean isRule(String text, int from, int to) {
        for (int i = from; i < to; i++) if ("|-+=: ".indexOf(text.charAt(i)) < 0) return false;
        return to > from;
    }

    /** What looks like names of columns, and not like a sentence with commas. */
    private boolean areNames(String text, List<int[]> cells) {
        for (int[] cell : cells) {
            // Before the first name of a table may stand whose it is, such as the exception that it is the message of.
            if (cell == cells.get(0) && cell[1] > cell[0] && cell[1] - cell[0] < 120) continue;
            if (cell[1] <= cell[0] || cell[1] - cell[0] > 40) return false;
            for (int i = cell[0]; i < cell[1]; i++)
                if (!Chars.isOfName(text.charAt(i)) && text.charAt(i) != ' ' && "[]/#%()".indexOf(text.charAt(i)) < 0)
                    return false;
            if (Chars.isDigit(text.charAt(cell[0]))) return false;
        }
        return true;
    }

    /** Where the cells of a line begin and end, without their quotes and the blanks around them. */
    private static List<int[]> cells(String text, int from, int to, char separator) {
        List<int[]> cells = new ArrayList<>();
        int start = from;
        int end = to;
        if (separator == '|') {
            start = Chars.skipBlanks(text, from);
            while (end > start && Chars.isBlank(text.charAt(end - 1))) end--;
            boolean closed = end > start && text.charAt(end - 1) == '|';
            if (closed) end--;
            // What stands before a row that is closed is none of its cells.
            int bar = start;
            while (bar < end && text.charAt(bar) != '|') bar++;
            if (bar < end && (closed || bar == start)) start = bar + 1;
        }
        while (start <= end && cells.size() <= MAX_COLUMNS) {
            int i = start;
            boolean quoted = i < end && text.charAt(i) == '"' && separator != '|';
            if (quoted) {
                i++;
                while (i < end) { // a doubled quote is one of the cell's own
                    if (text.charAt(i) != '"') i++;
                    else if (i + 1 < end && text.charAt(i + 1) == '"') i += 2;
                    else break;
                }
                cells.add(new int[] {start + 1, i});
                while (i < end && text.charAt(i) != separator) i++;
            } else {
                while (i < end && text.charAt(i) != separator) i++;
                // A sentence has blanks behind its commas; a table has none, but for the one between bars.
                int first = separator == '|' ? Chars.skipBlanks(text, start) : start;
                int last = i;
                while (separator == '|' && last > first && Chars.isBlank(text.charAt(last - 1))) last--;
                if (separator == ',' && !cells.isEmpty() && first < last && text.charAt(first) == ' ') return List.of();
                cells.add(new int[] {Math.min(first, last), last});
            }
            start = i + 1;
        }
        return cells;
    }
}
