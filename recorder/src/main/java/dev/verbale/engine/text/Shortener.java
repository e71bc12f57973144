package dev.verbale.engine.text;

import dev.verbale.secrets.Redactor;

/** Cuts texts. They are masked before: of a secret at the cut only a part would be left, which nothing knows for one. */
public final class Shortener {

    /** Names, signs and ends that lie behind the cut tell what is before it. */
    private static final int SHORTEST_REACH = 2_000;

    private final Redactor redactor;

    public Shortener(Redactor redactor) {
        this.redactor = redactor;
    }

    /** {@code text}, or its beginning and how much is left out. */
    public String cut(String text, int longest) {
        if (text.length() <= longest) return text;
        return beginning(text, longest) + " ... (" + (text.length() - longest) + " more characters are left out)";
    }

    /** The first {@code most} characters of a longer text. */
    public String beginning(String text, int limit) {
        String seen = text.substring(0, (int) Math.min(text.length(), seen(limit)));
        // Half of a character at the end would be none.
        return redactor.redactedBeginning(seen, Character.isHighSurrogate(seen.charAt(limit - 1)) ? limit - 1 : limit);
    }

    /** How many characters are looked at for the first {@code most} of them. */
    public long seen(int limit) {
        return (long) limit + Math.max(SHORTEST_REACH, redactor.reach());
    }
}
