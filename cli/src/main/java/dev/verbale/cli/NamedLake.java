package dev.verbale.cli;

import dev.verbale.folder.Sha256;
import dev.verbale.lake.AnyLake;
import dev.verbale.lake.Lake;
import dev.verbale.lake.LakeStore;
import dev.verbale.lake.SharedLake;
import dev.verbale.publishing.SiteStore;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A lake by what somebody wrote: a folder, or {@code s3://BUCKET/PREFIX}, of which a copy is kept here.
 *
 * @param store that it lies in; null for a folder
 */
record NamedLake(AnyLake lake, @Nullable SiteStore store) implements AutoCloseable {

    /**
     * @throws IllegalArgumentException where it is of another kind
     * @throws IOException where it cannot be reached
     */
    static NamedLake of(String text) throws IOException {
        return of(text, Path.of(".verbale"));
    }

    /** @param around where a copy goes */
    static NamedLake of(String text, Path around) throws IOException {
        if (text.startsWith("s3://")) {
            SiteStore bucket = SiteStore.of(text);
            return new NamedLake(new SharedLake(new BucketFiles(bucket), copy(text, around)), bucket);
        }
        if (text.matches("[A-Za-z][A-Za-z0-9+.-]+://.*"))
            throw new IllegalArgumentException(
                    "'" + text + "' is no place for a lake: name a folder, or s3://BUCKET/PREFIX");
        return new NamedLake(new Lake(Path.of(text)), null);
    }

    @Override
    public void close() {
        if (store != null) store.close();
    }

    /** Beside what else is kept of others, out of version control. */
    private static Path copy(String text, Path around) throws IOException {
        Files.createDirectories(around);
        try {
            if (around.endsWith(".verbale"))
                Files.writeString(around.resolve(".gitignore"), "*\n", StandardOpenOption.CREATE_NEW);
        } catch (FileAlreadyExistsException asItIs) {
            // whoever changed it, meant it
        }
        String address = text.replaceFirst("/+$", "");
        return around.resolve(
                "lake-" + Sha256.of(address.getBytes(StandardCharsets.UTF_8)).substring(0, 12));
    }

    /** The files of a bucket, for a lake. */
    private record BucketFiles(SiteStore bucket) implements LakeStore {

        @Override
        public Map<String, String> list(String prefix) throws IOException {
            return bucket.list(prefix);
        }

        @Override
        public @Nullable String bring(String name, Path file) throws IOException {
            return bucket.bring(name, file);
        }

        @Override
        public void put(String name, Path file) throws IOException {
            bucket.put(name, file);
        }

        @Override
        public @Nullable String replace(String name, byte[] bytes, @Nullable String version) throws IOException {
            return bucket.replace(name, bytes, version);
        }

        @Override
        public void delete(String name) throws IOException {
            bucket.delete(name);
        }

        @Override
        public String address(String name) {
            return bucket.address(name);
        }
    }
}
