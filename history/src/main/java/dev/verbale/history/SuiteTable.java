package dev.verbale.history;

import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.history.digest.RunDigest.TestDigest.Origin;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Which tests a run has, in the order of its rows. One night's suite is the next one's: most runs of a history share few of these.
 *
 * @param keys of the tests
 * @param names as a reader knows them, in the same order
 * @param origins where the tests stand, and whose they are
 * @param id the same for the same keys, names and origins, see {@link #of}
 */
record SuiteTable(List<String> keys, List<String> names, Origins origins, String id) {

    private static final int ID_BYTES = 16;

    /** Kept or read again: few questions want them. Safe for several threads. */
    interface Origins {

        /** In the order of the keys, of no worker; fewer where they could not be read. */
        List<Origin> all();
    }

    private record Kept(List<Origin> all) implements Origins {}

    /** Of the tests of a run; its id is made of what is in it. */
    static SuiteTable of(List<TestDigest> tests) {
        List<String> keys = tests.stream().map(TestDigest::key).toList();
        List<String> names = tests.stream().map(TestDigest::name).toList();
        List<Origin> origins = tests.stream().map(test -> test.origin().on(-1)).toList();
        try {
            MessageDigest sha = MessageDigest.getInstance("SHA-256");
            for (String key : keys) add(sha, key);
            for (String name : names) add(sha, name);
            for (Origin origin : origins) {
                add(sha, origin.className());
                add(sha, origin.methodName());
                add(sha, origin.owner());
                for (String tag : origin.tags()) add(sha, tag);
                sha.update((byte) '\n');
            }
            String id = HexFormat.of().formatHex(Arrays.copyOf(sha.digest(), ID_BYTES));
            return new SuiteTable(keys, names, new Kept(origins), id);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("each Java has SHA-256", impossible);
        }
    }

    private static void add(MessageDigest sha, @Nullable String text) {
        if (text != null) sha.update(text.getBytes(StandardCharsets.UTF_8));
        sha.update((byte) '\n');
    }
}
