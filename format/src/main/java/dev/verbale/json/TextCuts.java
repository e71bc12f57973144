package dev.verbale.json;

/**
 * Where long texts are taken apart, so that what many of them share falls into the same pieces wherever it stands: stacks of ten
 * thousand tests that fail in one place differ in a line. Cuts are chosen by the content of lines, and where the frames of a stack
 * begin and end.
 *
 * @since 0.2.0
 */
public final class TextCuts {

    /** Characters of a text that is worth it. Shorter ones stand as they are: people read journals too. */
    public static final int SHORTEST_TEXT = 1_000;

    /** Characters of a piece that is worth a number. */
    public static final int SHORTEST_PIECE = 100;

    /** Nothing shorter is cut off by a line. */
    private static final int SHORT_PIECE = 200;

    private static final int LONGEST_PIECE = 2_000;

    /** A cut is behind one line in so many: a few frames of a stack. */
    private static final int LINES = 4;

    private TextCuts() {}

    /** Behind the piece of {@code text} that begins at index {@code from}, which is before its end. */
    public static int end(String text, int from) {
        int longest = Math.min(text.length(), from + LONGEST_PIECE);
        boolean isFrame = isFrame(text, from);
        int line = from;
        for (int i = from; i < longest; i++) {
            if (text.charAt(i) != '\n') continue;
            if (i + 1 == longest || isFrame(text, i + 1) != isFrame) return i + 1;
            boolean isCut = Integer.remainderUnsigned(sum(text, line, i), LINES) == 0;
            if (isCut && i - from >= SHORT_PIECE) return i + 1;
            line = i + 1;
        }
        boolean isInPair = longest < text.length() && Character.isHighSurrogate(text.charAt(longest - 1));
        return isInPair ? longest - 1 : longest;
    }

    private static boolean isFrame(String text, int line) {
        return text.charAt(line) == '\t';
    }

    /** By which texts are told apart at once; never 0. */
    public static int sum(String text) {
        return sum(text, 0, text.length());
    }

    private static int sum(String text, int from, int to) {
        int sum = 17;
        for (int i = from; i < to; i++) sum = sum * 31 + text.charAt(i);
        sum ^= sum >>> 16; // those who choose by some bits of it choose by all
        sum *= 0x45d9f3b;
        sum ^= sum >>> 16;
        return sum == 0 ? 1 : sum;
    }
}
