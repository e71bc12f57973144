package dev.verbale.cli;

import dev.verbale.folder.Sha256;
import dev.verbale.history.RunSummary;
import dev.verbale.lake.Lake;
import dev.verbale.lake.LakeRun;
import dev.verbale.lake.LakeStore;
import dev.verbale.lake.LakeTables;
import dev.verbale.lake.SharedLake;
import dev.verbale.publishing.SiteStore;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A lake by what somebody wrote: a folder, or {@code s3://BUCKET/PREFIX}, of which a copy is kept here. */
interface NamedLake extends AutoCloseable {

    /** The names of its projects, in order; none where there is no lake. */
    List<String> projects() throws IOException;

    /** See {@link Lake#lacking}. */
    List<RunSummary> lacking(String project, List<RunSummary> runs) throws IOException;

    /** See {@link Lake#add(String, Iterator)}. */
    Lake.Added add(String project, Iterator<LakeRun> runs) throws IOException;

    /** See {@link LakeTables#of}. */
    LakeTables tables(@Nullable String project) throws IOException;

    @Override
    void close();

    /**
     * @throws IllegalArgumentException where it is of another kind
     * @throws IOException where it cannot be reached
     */
    static NamedLake of(String text) throws IOException {
        return of(text, Path.of(".verbale"));
    }

    /** @param around where a copy goes */
    static NamedLake of(String text, Path around) throws IOException {
        if (text.startsWith("s3://")) return new InBucket(SiteStore.of(text), copy(text, around));
        if (text.matches("[A-Za-z][A-Za-z0-9+.-]+://.*"))
            throw new IllegalArgumentException(
                    "'" + text + "' is no place for a lake: name a folder, or s3://BUCKET/PREFIX");
        return new InFolder(new Lake(Path.of(text)));
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

    /** In a folder. */
    record InFolder(Lake lake) implements NamedLake {

        @Override
        public List<String> projects() throws IOException {
            return lake.projects();
        }

        @Override
        public List<RunSummary> lacking(String project, List<RunSummary> runs) throws IOException {
            return lake.lacking(project, runs);
        }

        @Override
        public Lake.Added add(String project, Iterator<LakeRun> runs) throws IOException {
            return lake.add(project, runs);
        }

        @Override
        public LakeTables tables(@Nullable String project) throws IOException {
            return LakeTables.of(lake, project);
        }

        @Override
        public void close() {
            // nothing is open
        }
    }

    /** In a bucket. */
    record InBucket(SiteStore bucket, SharedLake lake) implements NamedLake {

        InBucket(SiteStore bucket, Path copy) {
            this(bucket, new SharedLake(new BucketFiles(bucket), copy));
        }

        @Override
        public List<String> projects() throws IOException {
            return lake.projects();
        }

        @Override
        public List<RunSummary> lacking(String project, List<RunSummary> runs) throws IOException {
            return lake.lacking(project, runs);
        }

        @Override
        public Lake.Added add(String project, Iterator<LakeRun> runs) throws IOException {
            return lake.add(project, runs);
        }

        @Override
        public LakeTables tables(@Nullable String project) throws IOException {
            return lake.tables(project);
        }

        @Override
        public void close() {
            bucket.close();
        }
    }

    /** The files of a bucket, for a lake. */
    record BucketFiles(SiteStore bucket) implements LakeStore {

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
