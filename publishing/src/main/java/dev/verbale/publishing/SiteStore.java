package dev.verbale.publishing;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Where a site's files are, by names with forward slashes. What others put there is theirs: only what is named here is read, written or
 * deleted. Safe from any thread, and beside other publishers.
 *
 * @since 0.2.0
 */
public interface SiteStore extends AutoCloseable {

    /**
     * A file as it is.
     *
     * @param version tells it from what it was before and becomes later
     */
    record Stored(byte[] bytes, String version) {}

    /** Null where there is none. */
    @Nullable
    Stored read(String name) throws IOException;

    /** The files whose names begin so, each with its version: another one as soon as the file is another one. */
    Map<String, String> list(String prefix) throws IOException;

    /**
     * Brings a file of any size, whole or not at all.
     *
     * @param file is replaced; its folder is there
     * @return its version; null where there is no such file, and nothing was written
     */
    @Nullable
    String bring(String name, Path file) throws IOException;

    /** Writes a file, whole or not at all. */
    void put(String name, Path file) throws IOException;

    /** Writes what {@code from} is, without bringing it here. */
    void copy(String from, String to) throws IOException;

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

    @Override
    void close();

    /**
     * By what somebody wrote: {@code s3://BUCKET/PREFIX}, or the path of a folder.
     *
     * @throws IllegalArgumentException where it is of another kind
     * @throws IOException where it cannot be reached
     */
    static SiteStore of(String text) throws IOException {
        if (text.startsWith("s3://")) {
            String[] parts = text.substring("s3://".length()).split("/", 2);
            return new BucketStore(
                    parts[0],
                    parts.length == 1 ? "" : parts[1].replaceFirst("/*$", "/").replaceFirst("^/$", ""));
        }
        if (text.matches("[A-Za-z][A-Za-z0-9+.-]+://.*"))
            throw new IllegalArgumentException(
                    "'" + text + "' is no place for a site: name a folder, or s3://BUCKET/PREFIX");
        return new FolderStore(Path.of(text));
    }
}
