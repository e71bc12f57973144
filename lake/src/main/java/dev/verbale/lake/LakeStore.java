package dev.verbale.lake;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A storage of files that several machines write, such as a bucket, by names with forward slashes. A {@link SharedLake} lies in one. Each call says by an
 * {@link IOException} that the storage did not do what was asked.
 *
 * @since 0.2.0
 */
public interface LakeStore {

    /** The files whose names begin so, each with its version: another one as soon as the file is another one. */
    Map<String, String> list(String prefix) throws IOException;

    /**
     * Brings a file, whole or not at all.
     *
     * @param file is replaced; its folder is there
     * @return its version; null where there is no such file, and nothing was written
     */
    @Nullable
    String bring(String name, Path file) throws IOException;

    /** Writes a file, whole or not at all. */
    void put(String name, Path file) throws IOException;

    /**
     * Writes a file where nobody else did so meanwhile.
     *
     * @param version of what it replaces; null where there is to be none
     * @return its own version; null where there is another one now, and nothing was written
     */
    @Nullable
    String replace(String name, byte[] bytes, @Nullable String version) throws IOException;

    /** Deletes a file, where it is there. */
    void delete(String name) throws IOException;

    /** For people: where the file is. */
    String address(String name);
}
