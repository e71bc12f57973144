package dev.verbale.lake;

import dev.verbale.folder.Sha256;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;

/** Numbers for what has long names: the same on every machine, so that nobody has to hand them out. */
final class LakeId {

    private LakeId() {}

    static long ofRun(String name, Instant started) {
        return of(name + "\n" + started);
    }

    static long of(String text) {
        return ByteBuffer.wrap(Sha256.digest().digest(text.getBytes(StandardCharsets.UTF_8)))
                .getLong();
    }
}
