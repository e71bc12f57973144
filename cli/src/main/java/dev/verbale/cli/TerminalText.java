package dev.verbale.cli;

import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Help.Ansi.Style;

/** Recorded texts for a terminal: none of them may move its cursor or set its title. */
final class TerminalText {

    private static final int NARROWEST = 40;
    private static final int USUAL_WIDTH = 80;

    /** From here on signs may be two columns wide; to take one for wider than it is does no harm. */
    private static final int FIRST_WIDE = 0x1100;

    private final Ansi ansi;
    private final int width;

    TerminalText(Ansi ansi) {
        this(ansi, ofTerminal());
    }

    private TerminalText(Ansi ansi, int width) {
        this.ansi = ansi;
        this.width = width;
    }

    private static int ofTerminal() {
        try {
            return Math.max(NARROWEST, Integer.parseInt(System.getenv().getOrDefault("COLUMNS", "" + USUAL_WIDTH)));
        } catch (NumberFormatException odd) {
            return USUAL_WIDTH;
        }
    }

    /** In columns. */
    int width() {
        return width;
    }

    String strong(String text) {
        return styled(text, Style.bold);
    }

    String dim(String text) {
        return styled(text, Style.faint);
    }

    String bad(String text) {
        return styled(text, Style.fg_red, Style.bold);
    }

    String good(String text) {
        return styled(text, Style.fg_green);
    }

    /** Not picocli's markup: a test's name may hold what that would read as markup. */
    String styled(String text, Style... styles) {
        if (text.isEmpty()) return "";
        String clean = printable(text);
        // Not Style.off: its code for the end of bold is, to many terminals, the beginning of a double underline.
        return ansi.enabled() ? Style.on(styles) + clean + Style.reset.on() : clean;
    }

    /**
     * A link, by the sequence that most terminals know (OSC 8) and the others pass over; the text alone where nobody draws.
     *
     * @param shown what is to be seen, styled already
     * @param address empty for none
     */
    String link(String shown, String address) {
        return ansi.enabled() && !address.isEmpty()
                ? "\033]8;;" + address.replaceAll("\\p{Cntrl}", "") + "\033\\" + shown + "\033]8;;\033\\"
                : shown;
    }

    static String printable(String text) {
        return text.replaceAll("[\\p{Cntrl}&&[^\\n\\t]]", "\uFFFD");
    }

    /** Without line ends and tabs. */
    String oneLine(String text) {
        return printable(text.strip().replaceAll("[\\n\\r\\t]+ *", " "));
    }

    /** In one line of so many columns. */
    String cut(String text, int columns) {
        String line = oneLine(text);
        int end = fitting(line, columns);
        return end == line.length()
                ? line
                : line.substring(0, fitting(line, columns - 1)).stripTrailing() + "…";
    }

    /** In lines of so many columns, broken between words where that can be; the last of them is cut. */
    List<String> wrapped(String text, int columns, int limit) {
        List<String> lines = new ArrayList<>();
        String rest = oneLine(text);
        while (lines.size() + 1 < limit) {
            int end = fitting(rest, columns);
            if (end == rest.length()) break;
            int blank = rest.lastIndexOf(' ', end);
            int at = blank > columns / 2 ? blank : end;
            lines.add(rest.substring(0, at).stripTrailing());
            rest = rest.substring(at).stripLeading();
        }
        lines.add(cut(rest, columns));
        return lines;
    }

    private static int fitting(String line, int columns) {
        int used = 0;
        int at = 0;
        while (at < line.length()) {
            int point = line.codePointAt(at);
            used += point >= FIRST_WIDE && !isNarrow(point) ? 2 : 1;
            if (used > columns) return at;
            at += Character.charCount(point);
        }
        return at;
    }

    private static boolean isNarrow(int c) {
        return c >= 0x2010 && c <= 0x259f; // punctuation, arrows, lines and blocks
    }
}
