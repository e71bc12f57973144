package dev.verbale.hub;

import dev.verbale.folder.FolderTree;
import dev.verbale.hub.HubOptions.Storage.Bucket;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import software.amazon.awssdk.core.checksums.RequestChecksumCalculation;
import software.amazon.awssdk.core.checksums.ResponseChecksumValidation;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.model.ListObjectsV2Response;
import software.amazon.awssdk.services.s3.model.NoSuchKeyException;
import software.amazon.awssdk.services.s3.model.S3Object;

/** A bucket of a storage that speaks S3. */
final class ObjectBucket implements ObjectStorage {

    private static final Duration CONNECTS_WITHIN = Duration.ofSeconds(5);
    private static final Duration ANSWERS_WITHIN = Duration.ofSeconds(60);

    private final Bucket bucket;
    private final Path freshFiles;
    private final S3Client client;

    /**
     * @param freshFiles of this hub's own
     * @throws IOException where the storage does not answer, or has no such bucket
     */
    ObjectBucket(Bucket bucket, Path freshFiles) throws IOException {
        this.bucket = bucket;
        FolderTree.delete(freshFiles); // of a hub that was killed
        this.freshFiles = Files.createDirectories(freshFiles);
        client = asking(() -> S3Client.builder()
                .httpClientBuilder(UrlConnectionHttpClient.builder()
                        .connectionTimeout(CONNECTS_WITHIN)
                        .socketTimeout(ANSWERS_WITHIN))
                .forcePathStyle(true) // as storages other than the first one want it
                .requestChecksumCalculation(RequestChecksumCalculation.WHEN_REQUIRED)
                .responseChecksumValidation(ResponseChecksumValidation.WHEN_REQUIRED)
                .build());
        try {
            asking(() -> client.headBucket(ask -> ask.bucket(bucket.name())));
        } catch (IOException unusable) {
            client.close();
            throw unusable;
        }
    }

    private interface Question<T> {
        T answer();
    }

    private <T> T asking(Question<T> question) throws IOException {
        try {
            return question.answer();
        } catch (NoSuchKeyException none) {
            throw new NoSuchFileException("s3://" + bucket.name() + "/" + bucket.prefix() + ": " + none.getMessage());
        } catch (SdkException refused) {
            throw new StorageAway("The storage s3://" + bucket.name() + " refused: " + refused.getMessage(), refused);
        }
    }

    @Override
    public Path fresh() throws IOException {
        return Files.createTempFile(freshFiles, "", "");
    }

    @Override
    public void put(String name, Path fresh) throws IOException {
        asking(() -> client.putObject(ask -> ask.bucket(bucket.name()).key(key(name)), RequestBody.fromFile(fresh)));
    }

    @Override
    public InputStream open(String name, long from) throws IOException {
        return asking(() -> client.getObject(ask -> {
            ask.bucket(bucket.name()).key(key(name));
            if (from > 0) ask.range("bytes=" + from + "-");
        }));
    }

    @Override
    public void delete(String name) throws IOException {
        asking(() -> client.deleteObject(ask -> ask.bucket(bucket.name()).key(key(name))));
    }

    @Override
    public void older(Instant before, Names names) throws IOException {
        String next = null;
        do {
            String from = next;
            ListObjectsV2Response some = asking(() -> client.listObjectsV2(
                    ask -> ask.bucket(bucket.name()).prefix(bucket.prefix()).continuationToken(from)));
            List<String> old = some.contents().stream()
                    .filter(object -> object.lastModified().isBefore(before))
                    .map(S3Object::key)
                    .map(key -> key.substring(key.lastIndexOf('/') + 1))
                    .toList();
            names.are(old);
            next = some.nextContinuationToken();
        } while (next != null);
    }

    /** Others may have something in the bucket too: what is not a hash in its folder is not ours. */
    private String key(String name) {
        return bucket.prefix() + name.substring(0, 2) + "/" + name;
    }

    @Override
    public void close() {
        client.close();
    }
}
