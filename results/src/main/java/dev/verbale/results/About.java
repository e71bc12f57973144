package dev.verbale.results;

import dev.verbale.event.TestDescribed;
import dev.verbale.event.TestDescribed.Link;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What was said about a test.
 *
 * @param text what it is about
 * @param severity how grave its failure is, in the suite's own words
 * @param owner who cares for it
 * @param links in the order in which they were said
 */
public record About(
        @Nullable String text,
        @Nullable String severity,
        @Nullable String owner,
        List<Link> links) {

    /** Of a test that nothing was said about. */
    public static final About NOTHING = new About(null, null, null, List.of());

    public About {
        links = List.copyOf(links);
    }

    /** This, and what {@code said} adds or replaces. */
    About and(TestDescribed said) {
        List<Link> all = new ArrayList<>(links);
        for (Link link : said.links()) if (!all.contains(link)) all.add(link);
        return new About(
                said.text() == null ? text : said.text(),
                said.severity() == null ? severity : said.severity(),
                said.owner() == null ? owner : said.owner(),
                all);
    }
}
