package dev.verbale.history.digest;

import dev.verbale.results.ModuleKey;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Which tests of a run were known by another key before: under no module, as in runs that were remembered before builds had any, or
 * in a module that ran in this run too and has them no more.
 *
 * @since 0.2.0
 */
public final class MovedTests {

    private static final String AMBIGUOUS = "";

    private final Set<String> keys;
    private final Set<String> known;
    private final Set<String> modules = new HashSet<>();
    private final Map<String, String> before = new HashMap<>();
    private final Map<String, String> now = new HashMap<>();

    /**
     * @param keys of the run
     * @param known the keys of before
     */
    public MovedTests(Collection<String> keys, Set<String> known) {
        boolean hasModules =
                keys.stream().anyMatch(key -> !ModuleKey.module(key).isEmpty());
        this.keys = hasModules ? new HashSet<>(keys) : Set.of();
        this.known = known;
        if (!hasModules) return; // as most are, and a history has many
        for (String key : this.keys) {
            modules.add(ModuleKey.module(key));
            now.merge(ModuleKey.withoutModule(key), key, (one, other) -> AMBIGUOUS);
        }
        for (String key : known)
            if (isGone(key)) before.merge(ModuleKey.withoutModule(key), key, (one, other) -> AMBIGUOUS);
    }

    private boolean isGone(String key) {
        String module = ModuleKey.module(key);
        return !keys.contains(key) && (module.isEmpty() || modules.contains(module));
    }

    /** The key by which {@code key} was known; null where it is known itself, or where it cannot be told. */
    public @Nullable String earlier(String key) {
        if (known.contains(key)) return null;
        String plain = ModuleKey.withoutModule(key);
        String earlier = before.get(plain);
        return earlier == null || earlier.equals(AMBIGUOUS) || AMBIGUOUS.equals(now.get(plain)) ? null : earlier;
    }
}
