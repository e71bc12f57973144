package dev.verbale;

import java.io.InputStream;
import java.nio.file.Path;

/**
 * An attachment that comes later, perhaps after its test has ended, and still belongs to it. Completed once; a second call
 * does nothing but leave a problem in the run. From any thread. Where it is never completed, the run says so.
 *
 * <pre>{@code
 * PendingAttachment video = Verbale.attachLater("session");
 * camera.whenDone(file -> video.complete(file));
 * }</pre>
 *
 * @since 0.2.0
 */
public interface PendingAttachment {

    /** One that takes everything and keeps nothing. */
    PendingAttachment NONE = new PendingAttachment() {
        @Override
        public void complete(InputStream content, MediaType type) {}

        @Override
        public void complete(Path file, long begins) {}
    };

    /** Here is its content; copied before this returns, closing it is left to the caller. */
    void complete(InputStream content, MediaType type);

    /** Here is its file; moved where that is possible, else copied. The type follows from its name. */
    default void complete(Path file) {
        complete(file, 0);
    }

    /**
     * Here is its file, which has a time of its own, as a video has; moved where that is possible, else copied.
     *
     * @param begins when what it shows begins, in microseconds of the recorder's clock; 0 where it has no time of its own
     */
    void complete(Path file, long begins);
}
