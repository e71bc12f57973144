package dev.verbale.secrets;

/**
 * The first look at a text: whether it has a character or a word that a secret may stand beside, or begin with. Nearly no
 * short text has one, so this decides what masking costs: one pass in which each character is one step and no decision.
 *
 * <p>The words are looked for all at once, a bit for each of their letters (the shift-and algorithm; Baeza-Yates and
 * Gonnet, "A new approach to text searching", Communications of the ACM 35(10), 1992).
 */
final class Prefilter {

    private static final int ASCII = 128;

    /** So many characters are looked at before somebody asks what was found: a decision for each would be half of the work. */
    private static final int BLOCK = 64;

    /** Parts of the words and beginnings, as short as tells them from most others: all letters of all are bits of one number. */
    private static final String[] WORDS = {
        "rer ", "sic", "eyj", "kia", "sia", "iza", "pass", "toke", "sec", "cred", "pwd", "key", "otp", "auth", "iden",
        "sg.", "vs.", "logi"
    };

    private static final String SIGNS = "=:@<_\n%&-";
    private static final String BLANKS = " \t\n\r\f\u000b";

    /** For each character the places in the words where it stands; the highest bit is set for digits. */
    private static final long[] POSITIONS = new long[ASCII];

    private static final long FIRSTS;
    private static final long LASTS;

    static {
        long firsts = 0;
        long lasts = 0;
        int position = 0;
        for (String word : WORDS) {
            firsts |= 1L << position;
            for (char c : word.toCharArray()) {
                long bit = 1L << position++;
                if (c == ' ') for (char blank : BLANKS.toCharArray()) POSITIONS[blank] |= bit;
                else {
                    POSITIONS[c] |= bit;
                    POSITIONS[Character.toUpperCase(c)] |= bit;
                }
            }
            lasts |= 1L << (position - 1);
        }
        long signs = 1L << position;
        for (char sign : SIGNS.toCharArray()) POSITIONS[sign] |= signs;
        for (char digit = '0'; digit <= '9'; digit++) POSITIONS[digit] |= Long.MIN_VALUE;
        FIRSTS = firsts | signs;
        LASTS = lasts | signs;
    }

    private Prefilter() {}

    /** Whether {@code text} is worth a second look. Never false for a text in which {@link Search} finds something. */
    static boolean isWorthMore(String text) {
        long found = 0;
        long state = 0;
        int digits = 0;
        int length = text.length();
        for (int from = 0; from < length; from += BLOCK) {
            for (int i = from, to = Math.min(length, from + BLOCK); i < to; i++) {
                char c = text.charAt(i);
                long positions = c < ASCII ? POSITIONS[c] : 0;
                state = ((state << 1) | FIRSTS) & positions;
                found |= state;
                digits += (int) (positions >>> 63);
            }
            // A bank account's number has twelve digits at the least.
            if ((found & LASTS) != 0 || digits >= 12) return true;
        }
        return false;
    }
}
