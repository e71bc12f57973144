package dev.verbale.lake;

import dev.verbale.history.digest.RunDigest.TestDigest;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What a lake says of the tests of a project already: it is text again only where it changed. */
final class KnownTests {

    private final Map<Long, Long> known = new HashMap<>();

    private final Map<String, Long> ids = new HashMap<>();

    /** The number of the test with this key. */
    long id(String key) {
        return ids.computeIfAbsent(key, LakeId::of);
    }

    void add(long test, long description) {
        known.put(test, description);
    }

    /** Whether {@code description} is new of {@code test}; it is known from here on. */
    boolean isNews(long test, long description) {
        Long before = known.put(test, description);
        return before == null || before != description;
    }

    /** What a lake has of a test beside its key, as one number. */
    static long description(TestDigest test) {
        TestDigest.Origin origin = test.origin();
        return description(
                test.name(), origin.className(), origin.methodName(), String.join(" ", origin.tags()), origin.owner());
    }

    static long description(
            String name, @Nullable String className, @Nullable String methodName, String tags, @Nullable String owner) {
        long sum = 0;
        for (String one : Arrays.asList(name, className, methodName, tags, owner)) {
            String text = String.valueOf(one);
            for (int i = 0; i < text.length(); i++) sum = sum * 1_099_511_628_211L ^ text.charAt(i); // as FNV does
            sum = sum * 31 + 7;
        }
        return sum;
    }
}
