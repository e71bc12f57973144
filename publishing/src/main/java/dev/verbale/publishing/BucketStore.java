package dev.verbale.publishing;

import dev.verbale.folder.MediaTypes;
import dev.verbale.folder.WholeFile;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import software.amazon.awssdk.core.ResponseBytes;
import software.amazon.awssdk.core.checksums.RequestChecksumCalculation;
import software.amazon.awssdk.core.checksums.ResponseChecksumValidation;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.model.GetObjectResponse;
import software.amazon.awssdk.services.s3.model.NoSuchKeyException;
import software.amazon.awssdk.services.s3.model.PutObjectRequest;
import software.amazon.awssdk.services.s3.model.S3Exception;
import software.amazon.awssdk.services.s3.model.S3Object;

/**
 * A bucket of a storage that speaks S3. Where it is and as whom it is asked is what the AWS SDK finds: {@code AWS_ENDPOINT_URL_S3}, {@code AWS_REGION},
 * {@code AWS_ACCESS_KEY_ID}, {@code AWS_SECRET_ACCESS_KEY}, a profile, or the role of the machine.
 */
final class BucketStore implements SiteStore {

    private static final Duration CONNECTS_WITHIN = Duration.ofSeconds(5);
    private static final Duration ANSWERS_WITHIN = Duration.ofSeconds(60);
    private static final int CHANGED_MEANWHILE = 412;
    private static final int AT_THE_SAME_TIME = 409;
    private static final int NOT_THERE = 404;

    private final String bucket;
    private final String prefix;
    private final S3Client client;

    BucketStore(String bucket, String prefix) throws IOException {
        if (!bucket.matches("[a-z0-9][a-z0-9.-]{1,61}[a-z0-9]"))
            throw new IllegalArgumentException("'" + bucket + "' cannot be the name of a bucket");
        this.bucket = bucket;
        this.prefix = prefix;
        client = asking(() -> S3Client.builder()
                .httpClientBuilder(UrlConnectionHttpClient.builder()
                        .connectionTimeout(CONNECTS_WITHIN)
                        .socketTimeout(ANSWERS_WITHIN))
                .forcePathStyle(true) // as storages other than the first one want it
                .requestChecksumCalculation(RequestChecksumCalculation.WHEN_REQUIRED)
                .responseChecksumValidation(ResponseChecksumValidation.WHEN_REQUIRED)
                .build());
    }

    private interface Question<T> {
        T answer();
    }

    private <T> T asking(Question<T> question) throws IOException {
        try {
            return question.answer();
        } catch (SdkException refused) {
            throw new IOException("s3://" + bucket + "/" + prefix + " refused: " + refused.getMessage(), refused);
        }
    }

    @Override
    public @Nullable Stored read(String name) throws IOException {
        return this.<Optional<Stored>>asking(() -> {
                    try {
                        ResponseBytes<GetObjectResponse> answer = client.getObjectAsBytes(
                                ask -> ask.bucket(bucket).key(prefix + name));
                        return Optional.of(new Stored(
                                answer.asByteArray(), answer.response().eTag()));
                    } catch (NoSuchKeyException none) {
                        return Optional.empty();
                    } catch (S3Exception refused) {
                        if (refused.statusCode() == NOT_THERE && !"NoSuchBucket".equals(code(refused)))
                            return Optional.empty();
                        throw refused;
                    }
                })
                .orElse(null);
    }

    @Override
    public Map<String, String> list(String start) throws IOException {
        return asking(() -> {
            Map<String, String> found = new TreeMap<>();
            for (S3Object one : client.listObjectsV2Paginator(
                            ask -> ask.bucket(bucket).prefix(prefix + start))
                    .contents()) found.put(one.key().substring(prefix.length()), one.eTag());
            return found;
        });
    }

    @Override
    public @Nullable String bring(String name, Path file) throws IOException {
        var version = new String[1];
        WholeFile.write(
                file,
                fresh -> asking(() -> {
                    try {
                        version[0] = client.getObject(ask -> ask.bucket(bucket).key(prefix + name), fresh)
                                .eTag();
                        return true;
                    } catch (S3Exception refused) {
                        if (refused.statusCode() == NOT_THERE && !"NoSuchBucket".equals(code(refused))) return false;
                        throw refused;
                    }
                }));
        return version[0];
    }

    private static String code(S3Exception refused) {
        return refused.awsErrorDetails() == null
                ? ""
                : refused.awsErrorDetails().errorCode();
    }

    @Override
    public void put(String name, Path file) throws IOException {
        asking(() -> client.putObject(about(name).build(), RequestBody.fromFile(file)));
    }

    /** What is in the folder of one version of a page stays as it is; all else is asked for anew. */
    private PutObjectRequest.Builder about(String name) {
        String type = MediaTypes.ofFile(name);
        return PutObjectRequest.builder()
                .bucket(bucket)
                .key(prefix + name)
                .contentType(MediaTypes.isText(type) ? type + "; charset=utf-8" : type)
                .cacheControl(name.startsWith(Site.PAGES) ? "public, max-age=31536000, immutable" : "no-cache");
    }

    @Override
    public void copy(String from, String to) throws IOException {
        asking(() -> client.copyObject(ask -> ask.sourceBucket(bucket)
                .sourceKey(prefix + from)
                .destinationBucket(bucket)
                .destinationKey(prefix + to)));
    }

    @Override
    public @Nullable String replace(String name, byte[] bytes, @Nullable String version) throws IOException {
        return this.<Optional<String>>asking(() -> {
                    try {
                        PutObjectRequest.Builder put = about(name);
                        if (version == null) put.ifNoneMatch("*");
                        else put.ifMatch(version);
                        return Optional.of(client.putObject(put.build(), RequestBody.fromBytes(bytes))
                                .eTag());
                    } catch (S3Exception refused) {
                        int status = refused.statusCode();
                        boolean isGone = version != null && status == NOT_THERE;
                        if (status == CHANGED_MEANWHILE || status == AT_THE_SAME_TIME || isGone)
                            return Optional.empty();
                        throw refused;
                    }
                })
                .orElse(null);
    }

    @Override
    public void delete(String name) throws IOException {
        asking(() -> client.deleteObject(ask -> ask.bucket(bucket).key(prefix + name)));
    }

    @Override
    public String address(String name) {
        return "s3://" + bucket + "/" + prefix + name;
    }

    @Override
    public void close() {
        client.close();
    }
}
