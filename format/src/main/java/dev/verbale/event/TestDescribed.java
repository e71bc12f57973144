package dev.verbale.event;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Something about a test was said, by an annotation or a call. What a later one leaves out stays.
 *
 * @param id of the test
 * @param text what it is about
 * @param severity how grave it is when it fails, in the suite's own words
 * @param owner who cares for it
 * @param links what belongs to it elsewhere
 */
public record TestDescribed(
        long at,
        int id,
        @Nullable String text,
        @Nullable String severity,
        @Nullable String owner,
        List<Link> links) implements Event {

    public TestDescribed {
        links = List.copyOf(links);
    }

    /**
     * Something elsewhere.
     *
     * @param name such as {@code GARDEN-17}
     * @param address where it is, or null where nobody knows
     */
    public record Link(String name, @Nullable String address) {}
}
