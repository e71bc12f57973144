package dev.verbale.history.compare;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A value of a JSON document that is another one now.
 *
 * @param path as JSONPath has it (RFC 9535), such as {@code $.plots[2].owner}
 * @param before as it stood in the document, numbers in their own form; null where there was none
 * @param after the same of now
 * @since 0.2.0
 */
public record JsonDifference(
        String path, @Nullable String before, @Nullable String after) {

    /** In the order of the earlier document, then what is new; empty where one of them is no JSON, or has more than {@value JsonValues#MAX}
     * values. */
    public static Optional<List<JsonDifference>> of(@Nullable String before, @Nullable String after) {
        Map<String, String> then = JsonValues.of(before);
        Map<String, String> now = JsonValues.of(after);
        if (then == null || now == null) return Optional.empty();
        List<JsonDifference> differences = new ArrayList<>();
        Set<String> paths = new LinkedHashSet<>(then.keySet());
        paths.addAll(now.keySet());
        for (String path : paths) {
            String one = then.get(path);
            String other = now.get(path);
            if (one == null ? other != null : !one.equals(other)) differences.add(new JsonDifference(path, one, other));
        }
        return Optional.of(differences);
    }

    /** Such as {@code $.free: 3, now 2}. */
    public String sentence() {
        if (before == null) return path + ": " + after + ", which was not there before";
        if (after == null) return path + ": " + before + ", which is not there now";
        return path + ": " + before + ", now " + after;
    }
}
