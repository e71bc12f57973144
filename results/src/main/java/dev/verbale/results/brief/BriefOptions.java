package dev.verbale.results.brief;

import dev.verbale.results.source.CodeAtHand;
import org.jspecify.annotations.Nullable;

/**
 * What a brief may hold.
 *
 * @param longest in characters, at least 500; what is least worth comes last, and is left out first
 * @param hasEnvironment whether what was stated of where the run was made is in it
 * @param code of the suite, for the lines around the one that failed and the commits that touched them last; null for none
 * @since 0.2.0
 */
public record BriefOptions(
        int longest, boolean hasEnvironment, @Nullable CodeAtHand code) {

    private static final int SHORTEST = 500;

    /** @throws IllegalArgumentException where {@code longest} is less than 500 */
    public BriefOptions {
        if (longest < SHORTEST)
            throw new IllegalArgumentException(longest + " characters hold no brief; give it " + SHORTEST + " or more");
    }

    /** With the environment, and without code. */
    public static BriefOptions longest(int longest) {
        return new BriefOptions(longest, true, null);
    }
}
