package dev.verbale.results;

import dev.verbale.event.FactStated;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The words by which a run is found, by the fact that says them: {@link FactStated#TAGS}.
 *
 * @since 0.2.0
 */
public final class RunTags {

    private RunTags() {}

    /** Each once, in the order in which they were said. */
    public static List<String> of(Map<String, String> facts) {
        return Arrays.stream(facts.getOrDefault(FactStated.TAGS, "").split(","))
                .map(String::strip)
                .filter(tag -> !tag.isEmpty())
                .distinct()
                .toList();
    }

    /** States of a joined run all that were said of any run it was joined of. */
    static void join(Map<String, String> facts, List<Map<String, String>> joined) {
        Set<String> all = new LinkedHashSet<>();
        for (Map<String, String> one : joined) all.addAll(of(one));
        if (!all.isEmpty()) facts.put(FactStated.TAGS, String.join(", ", all));
    }
}
