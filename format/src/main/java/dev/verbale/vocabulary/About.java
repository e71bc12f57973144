package dev.verbale.vocabulary;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a test is about. What is null or empty was not said.
 *
 * @param text for somebody who does not read the test's code
 * @param severity how grave a failure of it is, in the suite's own words
 * @param owner who cares for it
 * @param links what belongs to it elsewhere, in the order in which it was said
 * @since 0.2.0
 */
public record About(
        @Nullable String text,
        @Nullable String severity,
        @Nullable String owner,
        List<Link> links) {

    /** Of a test of which nothing was said. */
    public static final About NOTHING = new About(null, null, null, List.of());

    public About {
        links = List.copyOf(links);
    }

    /** This, and what {@code later} replaces; links are added up. */
    public About and(About later) {
        List<Link> all = new ArrayList<>(links);
        for (Link link : later.links()) if (!all.contains(link)) all.add(link);
        return new About(
                later.text() == null ? text : later.text(),
                later.severity() == null ? severity : later.severity(),
                later.owner() == null ? owner : later.owner(),
                all);
    }

    /**
     * Something elsewhere.
     *
     * @param name such as {@code GARDEN-17}
     * @param address where it is, or null where nobody knows
     */
    public record Link(String name, @Nullable String address) {}
}
