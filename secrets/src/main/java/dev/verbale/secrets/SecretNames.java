package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;

/**
 * The names whose values are secret: a name that ends in one of the words, in any case, with or without hyphens, such as
 * {@code X-Auth-Token}, {@code db.password} or {@code user[password]}. By its end, because {@code tokenizer} holds no token.
 */
final class SecretNames {

    static final List<String> WORDS = List.of(
            "password",
            "passwort",
            "passwd",
            "pwd",
            "passphrase",
            "secret",
            "token",
            "apikey",
            "api_key",
            "api-key",
            "accesskey",
            "access_key",
            "access-key",
            "secretkey",
            "secret_key",
            "secret-key",
            "privatekey",
            "private_key",
            "private-key",
            "authorization",
            "credential",
            "credentials",
            "cookie",
            "sessionid",
            "session_id",
            "session-id",
            "csrf",
            "xsrf",
            "otp",
            "cvv",
            "cvc",
            "cardnumber",
            "card_number",
            "card-number");

    private static final int LETTERS = 128;

    /** The words by their last letter: a name is compared with three words, not with thirty. */
    private final String[][] byLastLetter = new String[LETTERS][];

    SecretNames(Collection<String> more) {
        List<List<String>> words = new ArrayList<>();
        for (int letter = 0; letter < LETTERS; letter++) words.add(new ArrayList<>());
        List<String> all = new ArrayList<>(WORDS);
        for (String word : more) all.add(word.strip().toLowerCase(Locale.ROOT));
        for (String word : all)
            if (!word.isEmpty()) words.get(slot(word.charAt(word.length() - 1))).add(word);
        for (int letter = 0; letter < LETTERS; letter++) {
            byLastLetter[letter] = words.get(letter).toArray(new String[0]);
            for (String word : byLastLetter[letter]) {
                second[letter] |= fromEnd(word, 2);
                third[letter] |= fromEnd(word, 3);
            }
        }
    }

    /** A bit for each letter that may stand before the last one, by {@link #bit}, and before that: they decide for nearly every name. */
    private final long[] second = new long[LETTERS];

    private final long[] third = new long[LETTERS];

    /** All bits where anything may stand there. */
    private static long fromEnd(String word, int back) {
        if (word.length() < back || word.charAt(word.length() - back) >= LETTERS) return -1L;
        return bit(word.charAt(word.length() - back));
    }

    /** Small and capital letters have one. */
    private static long bit(char c) {
        return 1L << (c & 0x1F);
    }

    /** Whether a word may end right before {@code end}. */
    private boolean mayEnd(String text, int end) {
        int last = slot(text.charAt(end - 1));
        long possible = second[last];
        if (possible == 0) return false;
        return end < 3 || has(possible, text.charAt(end - 2)) && has(third[last], text.charAt(end - 3));
    }

    private static boolean has(long possible, char c) {
        return c >= LETTERS || (possible >>> (c & 0x1F) & 1) != 0;
    }

    /** Small and capital letters have one; so does what is not ASCII, which are few. */
    private static int slot(char last) {
        return (last | 0x20) % LETTERS;
    }

    boolean isSecret(String name) {
        return isSecret(name, 0, name.length());
    }

    /** Whether a secret name ends right before {@code end} in {@code text}. */
    boolean endsSecret(String text, int end) {
        if (end <= 0 || !mayEnd(text, end)) return false;
        for (String word : byLastLetter[slot(text.charAt(end - 1))]) if (isBefore(text, end, word)) return true;
        return false;
    }

    /** Whether what lies from {@code from} to {@code end} in {@code text} is a secret name. */
    boolean isSecret(String text, int from, int to) {
        int end = to;
        while (end > from && (text.charAt(end - 1) == ']' || Chars.isSpace(text.charAt(end - 1)))) end--;
        if (end <= from || !mayEnd(text, end)) return false;
        for (String word : byLastLetter[slot(text.charAt(end - 1))])
            if (end - word.length() >= from && isBefore(text, end, word)) return true;
        return false;
    }

    /** Whether {@code word} ends right before {@code end}, in any case. */
    private static boolean isBefore(String text, int end, String word) {
        int length = word.length();
        if (end < length) return false;
        for (int i = 1; i <= length; i++) { // from its end: what ends in id is seldom a session's
            char c = text.charAt(end - i);
            char wanted = word.charAt(length - i);
            if (c == wanted) continue;
            if (c >= LETTERS || wanted >= LETTERS) return text.regionMatches(true, end - length, word, 0, length);
            if ((c ^ wanted) != 0x20 || !Chars.isLetter(c)) return false;
        }
        return true;
    }
}
