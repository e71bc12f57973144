package dev.verbale.secrets;

import java.util.Collection;
import java.util.List;
import java.util.regex.Pattern;

/**
 * Masks secrets in text. What it knows by itself, the guide's table has: values behind secret names in every notation, markup,
 * tables, credentials, well-known keys, numbers of cards and accounts; and values that were known, however they are
 * escaped and encoded.
 *
 * <p>Nearly every text holds none of this, so a quick look decides first whether the search is worth it. Safe from any thread.
 */
public final class Redactor {

    /** What stands in the place of a secret. */
    public static final String MASK = Mask.TEXT;

    private final SecretNames names;
    private final Stops stops;
    private final List<Pattern> ownPatterns;
    private volatile KnownSecrets known = KnownSecrets.NONE;

    /**
     * @param moreNames words that names of secret values end in, besides those that are known
     * @param patterns what is masked where it matches: group 1 of each, or the whole match where it has none
     */
    public Redactor(Collection<String> moreNames, Collection<Pattern> patterns) {
        names = new SecretNames(moreNames);
        ownPatterns = List.copyOf(patterns);
        stops = new Stops(names);
    }

    /**
     * When this has returned, {@code value} is masked wherever it turns up, on every thread. Values shorter than four
     * characters are not.
     */
    public synchronized void add(String value) {
        known = known.with(value);
    }

    /** Whether the value that goes by {@code name} is secret. */
    public boolean isSecretName(String name) {
        return names.isSecret(name);
    }

    /** {@code text} with its secrets masked; the same instance where there are none. */
    public String redacted(String text) {
        return Wide.isLikely(text) ? Wide.redacted(this, text) : searched(text);
    }

    /** The same of a text as it stands there. */
    String searched(String text) {
        if (!mayHoldSecret(text)) return text;
        if (known.isEmpty() && ownPatterns.isEmpty() && stops.areNothing(text)) return text;
        Found found = search().in(text, 0, known);
        return found.isEmpty() ? text : found.applied(text);
    }

    /**
     * The first {@code length} characters of {@code text} with their secrets masked, whole ones: of one that the cut goes
     * through nothing is left.
     *
     * @param text with what follows, so that a secret at the cut is known for one; see {@link #reach}
     */
    public String redactedBeginning(String text, int length) {
        if (!mayHoldSecret(text)) return text.substring(0, length);
        return search().in(text, 0, known).applied(text, length);
    }

    /** So many characters behind a cut tell whether a known value lies in it. */
    public int reach() {
        return known.reach();
    }

    /** For one text, which may come in pieces. */
    Search search() {
        return new Search(names, stops, ownPatterns);
    }

    KnownSecrets known() {
        return known;
    }

    boolean mayHoldSecret(String text) {
        return !known.isEmpty() || !ownPatterns.isEmpty() || Prefilter.isWorthMore(text);
    }
}
