package dev.verbale.hub;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;

/** Where contents of files are that are whole, each under its own SHA-256. Safe from any thread. */
interface ObjectStorage extends AutoCloseable {

    /** Opens the storage that the options name, and sees to it that it can be used. */
    static ObjectStorage open(HubOptions options) throws IOException {
        if (options.storage() instanceof HubOptions.Storage.Bucket bucket)
            return new ObjectBucket(bucket, options.folder().resolve("fresh"));
        return new ObjectFolder(((HubOptions.Storage.Folder) options.storage()).path());
    }

    /** A new file to write a content to that is to be put. */
    Path fresh() throws IOException;

    /** Keeps the content of a fresh file, which is there when this returns, whatever happens then, and counts as new. */
    void put(String name, Path fresh) throws IOException;

    /**
     * A content from a byte on.
     *
     * @throws NoSuchFileException where it is not there
     */
    InputStream open(String name, long from) throws IOException;

    /** Takes away a content, where it is there. */
    void delete(String name) throws IOException;

    /** Names of what was put before {@code before}, and not again since, so many at once as is quick. */
    void older(Instant before, Names names) throws IOException;

    /** It does not answer, or refuses: whoever asked may ask again. */
    final class StorageAway extends IOException {
        private static final long serialVersionUID = 1;

        StorageAway(String message, Throwable cause) {
            super(message, cause);
        }
    }

    interface Names {
        void are(List<String> some) throws IOException;
    }

    @Override
    default void close() {}
}
