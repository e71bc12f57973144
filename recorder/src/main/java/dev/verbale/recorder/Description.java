package dev.verbale.recorder;

import java.util.Collection;
import org.jspecify.annotations.Nullable;

/**
 * What is said about a test. What is null or empty leaves in place what was said before.
 *
 * @param text what it is about
 * @param severity how grave it is when it fails, in the suite's own words
 * @param owner who cares for it
 * @param links names such as {@code GARDEN-17}, which the settings turn into addresses, or whole addresses
 */
public record Description(
        @Nullable String text,
        @Nullable String severity,
        @Nullable String owner,
        Collection<String> links) {

    public Description {
        links = Given.list(links);
    }
}
