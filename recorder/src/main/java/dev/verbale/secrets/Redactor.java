package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Masks secrets in text. What it knows by itself:
 *
 * <ul>
 *   <li>the value behind a secret name, in JSON, forms, query strings, headers, properties and markup;
 *   <li>bearer and basic credentials, and the user and password in a URL;
 *   <li>numbers of payment cards, by length and check digit (ISO/IEC 7812);
 *   <li>values that were announced, in the forms of {@link AnnouncedSecrets}.
 * </ul>
 *
 * <p>Nearly every text holds none of this, so a quick look decides first whether the slow search is worth it.
 */
public final class Redactor {

    /** What stands in the place of a secret. */
    public static final String MASK = "[masked]";

    static final int CARD_SHORTEST = 13;

    private static final int ASCII = 128;
    private static final byte PLAIN = 0;
    private static final byte DIGIT = 1;
    private static final byte GAP = 2; // may stand between the digits of a card
    private static final byte SEPARATOR = 3;
    private static final byte AT = 4;
    private static final byte TAG = 5;
    private static final byte BLANK = 6;
    private static final byte[] KINDS = new byte[ASCII];

    static {
        for (char digit = '0'; digit <= '9'; digit++) KINDS[digit] = DIGIT;
        KINDS[' '] = GAP;
        KINDS['-'] = GAP;
        KINDS['='] = SEPARATOR;
        KINDS[':'] = SEPARATOR;
        KINDS['@'] = AT;
        KINDS['<'] = TAG;
        for (char blank : "\t\n\r\f\u000b".toCharArray()) KINDS[blank] = BLANK;
    }

    private final SecretNames names;
    private final AnnouncedSecrets announced = new AnnouncedSecrets();
    private final List<Pattern> ownPatterns;
    private final List<String> words;
    private volatile @Nullable Masks masks;

    /**
     * @param moreNames words that names of secret values end in, besides those that are known
     * @param patterns what is masked where it matches: group 1 of each, or the whole match where it has none
     */
    public Redactor(Collection<String> moreNames, Collection<Pattern> patterns) {
        names = new SecretNames(moreNames);
        ownPatterns = List.copyOf(patterns);
        List<String> all = new ArrayList<>(SecretNames.WORDS);
        for (String name : moreNames) all.add(name.strip());
        words = List.copyOf(all);
    }

    /** From now on {@code value} is masked wherever it turns up. Values shorter than four characters are not. */
    public void announce(String value) {
        announced.add(value);
    }

    /** Whether the value that goes by {@code name} is secret. */
    public boolean isSecretName(String name) {
        return names.isSecret(name);
    }

    /** {@code text} with its secrets masked; the same instance where there are none. */
    public String redacted(String text) {
        if (!mayHoldSecret(text)) return text;
        return masks().in(announced.mask(text, MASK));
    }

    /** Made for the first text that may need them: most runs are over before, and a JVM's start must not wait for them. */
    private Masks masks() {
        Masks made = masks;
        if (made == null) {
            made = new Masks(names, words, ownPatterns);
            masks = made;
        }
        return made;
    }

    private boolean mayHoldSecret(String text) {
        return (Glance.isWorthMore(text) && hasSign(text))
                || (!announced.isEmpty() && announced.isIn(text))
                || (!ownPatterns.isEmpty() && matchesOwn(text));
    }

    /** The second look: whether a sign of a secret has something beside it that makes one. Nothing is allocated. */
    private boolean hasSign(String text) {
        int digits = 0;
        for (int i = 0, length = text.length(); i < length; i++) {
            char c = text.charAt(i);
            byte kind = c < ASCII ? KINDS[c] : PLAIN;
            if (kind == PLAIN) {
                digits = 0;
                continue;
            }
            if (kind == DIGIT && ++digits >= CARD_SHORTEST) return true;
            if (kind > GAP) digits = 0;
            if (isSign(text, i, kind)) return true;
        }
        return false;
    }

    /** Whether the character at {@code at}, which is of {@code kind}, may be a part of a secret or stand beside one. */
    private boolean isSign(String text, int at, byte kind) {
        return switch (kind) {
            case GAP, BLANK -> at > 4 && endsScheme(text, at);
            case SEPARATOR -> names.endsSecret(text, SecretNames.nameEnd(text, at));
            case AT -> text.lastIndexOf("://", at) >= 0;
            case TAG -> isField(text, at + 1);
            default -> false;
        };
    }

    private boolean matchesOwn(String text) {
        for (Pattern own : ownPatterns) if (own.matcher(text).find()) return true;
        return false;
    }

    private static boolean endsScheme(String text, int end) {
        char last = text.charAt(end - 1);
        if (last == 'r' || last == 'R') return text.regionMatches(true, end - 6, "bearer", 0, 6);
        if (last == 'c' || last == 'C') return text.regionMatches(true, end - 5, "basic", 0, 5);
        return (last == 't' || last == 'T') && text.regionMatches(true, end - 6, "digest", 0, 6);
    }

    private static boolean isField(String text, int at) {
        return text.regionMatches(true, at, "input", 0, 5) || text.regionMatches(true, at, "meta", 0, 4);
    }
}
