package dev.verbale.border;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What adapters give, without what is null in it, and nothing where a collection of somebody's own throws: an adapter's
 * mistake must not throw into somebody's test.
 */
public final class SafeCopies {

    private SafeCopies() {}

    public static <T> List<T> list(@Nullable Collection<? extends @Nullable T> given) {
        List<T> list = new ArrayList<>();
        try {
            if (given != null) for (T one : given) if (one != null) list.add(one);
        } catch (RuntimeException | Error broken) {
            return List.of();
        }
        return List.copyOf(list);
    }

    public static Map<String, String> textsByName(
            @Nullable Map<? extends @Nullable String, ? extends @Nullable String> given) {
        Map<String, String> texts = new LinkedHashMap<>();
        try {
            if (given != null)
                for (var one : given.entrySet())
                    texts.put(String.valueOf((Object) one.getKey()), String.valueOf((Object) one.getValue()));
        } catch (RuntimeException | Error broken) {
            return Map.of();
        }
        return texts.isEmpty() ? Map.of() : Collections.unmodifiableMap(texts);
    }
}
