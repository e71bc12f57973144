package dev.verbale.secrets;

import java.util.Arrays;

/** Which bracket closes which, in a line. Found for a whole line at once: there may be thousands in it that nothing closes. */
final class Brackets {

    private static final int NONE = -1;

    private int from;
    private int to;
    private int[] closes = {};

    /** Another text. */
    void begin() {
        to = 0;
    }

    /** Where the bracket at {@code at} is closed, in its line; -1 for nowhere. */
    int close(String text, int at) {
        if (at < from || at >= to) match(text, at);
        return closes[at - from];
    }

    private void match(String text, int at) {
        from = at;
        to = Chars.lineEnd(text, at);
        closes = new int[to - from];
        Arrays.fill(closes, NONE);
        var open = new int[to - from];
        int depth = 0;
        for (int i = from; i < to; i++) {
            char c = text.charAt(i);
            if (c == '{' || c == '[') open[depth++] = i;
            else if ((c == '}' || c == ']') && depth > 0) {
                int opening = open[--depth];
                closes[opening - from] = i;
            }
        }
    }
}
