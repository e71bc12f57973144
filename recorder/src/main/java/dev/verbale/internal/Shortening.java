package dev.verbale.internal;

import dev.verbale.secrets.Redactor;

/** Cuts texts. They are masked before: of a secret at the cut only a part would be left, which nothing knows for one. */
final class Shortening {

    /** Names, signs and ends that lie behind the cut tell what is before it. */
    private static final int SHORTEST_REACH = 2_000;

    private final Redactor redactor;

    Shortening(Redactor redactor) {
        this.redactor = redactor;
    }

    /** {@code text}, or its beginning and how much is left out. */
    String cut(String text, int longest) {
        if (text.length() <= longest) return text;
        return beginning(text, longest) + " ... (" + (text.length() - longest) + " more characters are left out)";
    }

    /** The first {@code most} characters of a longer text. */
    String beginning(String text, int most) {
        String seen = text.substring(0, (int) Math.min(text.length(), seen(most)));
        // Half of a character at the end would be none.
        return redactor.redactedBeginning(seen, Character.isHighSurrogate(seen.charAt(most - 1)) ? most - 1 : most);
    }

    /** How many characters are looked at for the first {@code most} of them. */
    long seen(int most) {
        return (long) most + Math.max(SHORTEST_REACH, redactor.reach());
    }
}
