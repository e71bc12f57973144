package dev.verbale.history;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;

/**
 * Which tests a run has, in the order of its rows. One night's suite is the next one's: most runs of a history share few of these.
 *
 * @param keys of the tests
 * @param names as a reader knows them, in the same order
 * @param id the same for the same keys and names, see {@link #of}
 */
record SuiteTable(List<String> keys, List<String> names, String id) {

    private static final int ID_BYTES = 16;

    /** One whose id is made of what is in it. */
    static SuiteTable of(List<String> keys, List<String> names) {
        try {
            MessageDigest sha = MessageDigest.getInstance("SHA-256");
            for (List<String> all : List.of(keys, names))
                for (String one : all) {
                    sha.update(one.getBytes(StandardCharsets.UTF_8));
                    sha.update((byte) '\n');
                }
            String id = HexFormat.of().formatHex(Arrays.copyOf(sha.digest(), ID_BYTES));
            return new SuiteTable(List.copyOf(keys), List.copyOf(names), id);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("each Java has SHA-256", impossible);
        }
    }
}
