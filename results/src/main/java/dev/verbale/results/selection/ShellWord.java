package dev.verbale.results.selection;

import java.util.regex.Pattern;

/**
 * A text as one word of a shell.
 *
 * @since 0.2.0
 */
public final class ShellWord {

    private static final Pattern PLAIN = Pattern.compile("[\\w./:=,@%+-]+");

    private ShellWord() {}

    /**
     * As POSIX shells read it (POSIX.1-2017, 2.2.2): nothing in single quotes means anything. What cannot be an argument, a zero
     * character, is left out.
     */
    public static String posix(String text) {
        String clean = text.replace("\0", "");
        return PLAIN.matcher(clean).matches() ? clean : "'" + clean.replace("'", "'\\''") + "'";
    }
}
