package dev.verbale.recorder;

import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** What adapters give, without what is null in it: an adapter's mistake must not throw into somebody's test. */
final class Given {

    private Given() {}

    static List<String> texts(@Nullable Collection<? extends @Nullable String> given) {
        if (given == null || given.isEmpty()) return List.of();
        return given.stream()
                .<String>map(text -> text == null ? "" : text)
                .filter(text -> !text.isEmpty())
                .toList();
    }

    static Map<String, String> textsByName(
            @Nullable Map<? extends @Nullable String, ? extends @Nullable String> given) {
        if (given == null || given.isEmpty()) return Map.of();
        Map<String, String> texts = new LinkedHashMap<>();
        given.forEach(
                (name, text) -> texts.put(Objects.requireNonNullElse(name, "null"), text == null ? "null" : text));
        return Collections.unmodifiableMap(texts);
    }
}
