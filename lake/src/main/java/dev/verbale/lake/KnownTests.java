package dev.verbale.lake;

import dev.verbale.history.digest.RunDigest.TestDigest;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What a lake says of the tests of a project already: it is said again only where it changed. */
final class KnownTests {

    private final Map<Long, Long> known = new HashMap<>();

    void add(long test, long said) {
        known.put(test, said);
    }

    /** Whether {@code said} is new of {@code test}; it is known from here on. */
    boolean isNews(long test, long said) {
        Long before = known.put(test, said);
        return before == null || before != said;
    }

    /** All that is said of a test, as one number. */
    static long said(TestDigest test) {
        TestDigest.Origin origin = test.origin();
        return said(
                test.name(), origin.className(), origin.methodName(), String.join(" ", origin.tags()), origin.owner());
    }

    static long said(
            String name, @Nullable String className, @Nullable String methodName, String tags, @Nullable String owner) {
        return LakeId.of(String.join(
                "\n",
                List.of(name, String.valueOf(className), String.valueOf(methodName), tags, String.valueOf(owner))));
    }
}
