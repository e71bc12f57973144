package dev.verbale.lake;

import dev.verbale.history.digest.RunDigest.TestDigest;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What a lake says of the tests of a project already: it is said again only where it changed. */
final class KnownTests {

    private final Map<Long, Long> known = new HashMap<>();

    private final Map<String, Long> ids = new HashMap<>();

    /** The number of the test with this key. */
    long id(String key) {
        return ids.computeIfAbsent(key, LakeId::of);
    }

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
        long said = 0;
        for (String text : Arrays.asList(name, className, methodName, tags, owner)) {
            String one = String.valueOf(text);
            for (int i = 0; i < one.length(); i++) said = said * 1_099_511_628_211L ^ one.charAt(i); // as FNV does
            said = said * 31 + 7;
        }
        return said;
    }
}
