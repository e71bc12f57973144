package dev.verbale.cli;

import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Help.Ansi.Style;

/** Recorded texts for a terminal: none of them may move its cursor or set its title. */
final class TerminalText {

    private final Ansi ansi;

    TerminalText(Ansi ansi) {
        this.ansi = ansi;
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
        String clean = printable(text);
        // Not Style.off: its code for the end of bold is, to many terminals, the beginning of a double underline.
        return ansi.enabled() ? Style.on(styles) + clean + Style.reset.on() : clean;
    }

    static String printable(String text) {
        return text.replaceAll("[\\p{Cntrl}&&[^\\n\\t]]", "\uFFFD");
    }
}
