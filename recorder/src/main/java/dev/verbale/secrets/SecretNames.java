package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;

/**
 * The names whose values are secret: a name that ends in one of the words, in any case, with or without hyphens, such as
 * {@code X-Auth-Token} or {@code db.password}. By its end, because {@code tokenizer} holds no token.
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
            "card_number");

    private static final int LETTERS = 128;
    private static final int MOST_BETWEEN = 4;

    /** The words by their last letter: a name is compared with three words, not with thirty. */
    private final String[][] byLastLetter = new String[LETTERS][];

    SecretNames(Collection<String> more) {
        List<String> all = new ArrayList<>(WORDS);
        for (String word : more) all.add(word.strip().toLowerCase(Locale.ROOT));
        List<List<String>> words = new ArrayList<>();
        for (int letter = 0; letter < LETTERS; letter++) words.add(new ArrayList<>());
        for (String word : all)
            if (!word.isEmpty())
                words.get(word.charAt(word.length() - 1) % LETTERS).add(word);
        for (int letter = 0; letter < LETTERS; letter++)
            byLastLetter[letter] = words.get(letter).toArray(new String[0]);
    }

    boolean isSecret(String name) {
        return endsSecret(name, name.length());
    }

    /** Whether a secret name ends right before {@code end} in {@code text}. */
    boolean endsSecret(String text, int end) {
        if (end == 0) return false;
        int last = text.charAt(end - 1) | 0x20; // small letter
        if (last >= LETTERS) return false;
        for (String word : byLastLetter[last])
            if (text.regionMatches(true, end - word.length(), word, 0, word.length())) return true;
        return false;
    }

    /** Where the name before the sign at {@code at} ends: quotes and blanks may stand in between. */
    static int nameEnd(String text, int at) {
        int end = at;
        while (end > 0 && at - end < MOST_BETWEEN) {
            char c = text.charAt(end - 1);
            if (c != '"' && c != '\'' && c != ' ' && c != '\\') break;
            end--;
        }
        return end;
    }
}
