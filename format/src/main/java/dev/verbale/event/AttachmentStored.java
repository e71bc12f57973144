package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * An attachment was stored.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param name what a reader sees
 * @param kind what it is: one of those in {@link dev.verbale.vocabulary.AttachmentKind}, or a word of a newer format
 * @param file where it is
 * @param pending the id of the {@link AttachmentPending} that this completes, or 0
 * @param begins for an attachment that has a time of its own, such as a video, when that begins: in microseconds of this
 *     journal, or 0
 * @since 0.2.0
 */
public record AttachmentStored(long at, int in, String name, String kind, StoredFile file, int pending, long begins)
        implements Event.InScope {

    /**
     * A file of a run.
     *
     * @param path below the run folder, with forward slashes
     * @param mediaType such as {@code image/png}
     * @param size in bytes, as stored
     * @param sha256 of the stored bytes, in small hexadecimal digits, or null where it is not known
     * @param leftOut why it is not in this copy of the run; null where it is meant to be there
     */
    public record StoredFile(
            String path,
            String mediaType,
            long size,
            @Nullable String sha256,
            @Nullable String leftOut) {

        /** One that is meant to be there. */
        public StoredFile(String path, String mediaType, long size, @Nullable String sha256) {
            this(path, mediaType, size, sha256, null);
        }
    }

    /** One that nobody waited for, and that has no time of its own. */
    public static Builder of(long at, int in, String name, String kind, StoredFile file) {
        return new Builder(at, in, name, kind, file);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final int in;
        private final String name;
        private final String kind;
        private final StoredFile file;
        private int pending;
        private long begins;

        private Builder(long at, int in, String name, String kind, StoredFile file) {
            this.at = at;
            this.in = in;
            this.name = name;
            this.kind = kind;
            this.file = file;
        }

        public Builder pending(int value) {
            pending = value;
            return this;
        }

        public Builder begins(long value) {
            begins = value;
            return this;
        }

        public AttachmentStored build() {
            return new AttachmentStored(at, in, name, kind, file, pending, begins);
        }
    }
}
