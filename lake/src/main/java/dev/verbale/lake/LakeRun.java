package dev.verbale.lake;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import org.jspecify.annotations.Nullable;

/**
 * A run on its way into a lake.
 *
 * @param digest what is remembered of it
 * @param read all of it, with its attempts and exchanges; null where its folder is not at hand
 * @since 0.2.0
 */
public record LakeRun(RunDigest digest, @Nullable Run read) {

    /** One of which no more is known than what is remembered. */
    public static LakeRun of(RunDigest digest) {
        return new LakeRun(digest, null);
    }

    /** One that was read whole. */
    public static LakeRun of(Run read) {
        return new LakeRun(RunDigest.of(read), read);
    }

    long id() {
        return LakeId.ofRun(digest.run(), digest.started());
    }

    DayManifest.StoredRun stored() {
        return new DayManifest.StoredRun(
                digest.run(), digest.started(), digest.tests().size(), digest.isComplete(), read != null);
    }
}
