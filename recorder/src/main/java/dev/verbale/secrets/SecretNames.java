package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

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
        for (int letter = 0; letter < LETTERS; letter++)
            byLastLetter[letter] = words.get(letter).toArray(new String[0]);
    }

    /** Small and capital letters have one; so does what is not ASCII, which are few. */
    private static int slot(char last) {
        return (last | 0x20) % LETTERS;
    }

    boolean isSecret(String name) {
        int end = name.length();
        while (end > 0 && (name.charAt(end - 1) == ']' || Chars.isSpace(name.charAt(end - 1)))) end--;
        return endsSecret(name, end);
    }

    /** Whether a secret name ends right before {@code end} in {@code text}. */
    boolean endsSecret(String text, int end) {
        return word(text, end) != null;
    }

    /** The word that a secret name right before {@code end} ends in; null where there is none. */
    @Nullable
    String word(String text, int end) {
        if (end <= 0) return null;
        for (String word : byLastLetter[slot(text.charAt(end - 1))])
            if (text.regionMatches(true, end - word.length(), word, 0, word.length())) return word;
        return null;
    }
}
