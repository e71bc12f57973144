package dev.verbale.hub;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.regex.Pattern;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;

/**
 * Contents of files in a storage that several hubs use: the same content is there once, whoever sent it, and none takes away what another
 * is about to need. What nobody needs is written down in the database first, and goes an hour later at the earliest, under a lock of that
 * row; whoever puts a content takes its row away before, and so waits for a hub that is just deleting it.
 */
final class StoredObjects implements AutoCloseable {

    private static final Pattern NAME = Pattern.compile("[0-9a-f]{64}");

    /** Between a content's way into the storage and into the database there is less. */
    private static final Duration YOUNG = Duration.ofDays(1);

    private static final Duration WRITTEN_DOWN = Duration.ofHours(1);

    private final Jdbi jdbi;
    private final ObjectStorage storage;

    StoredObjects(Jdbi jdbi, ObjectStorage storage) {
        this.jdbi = jdbi;
        this.storage = storage;
    }

    /** Keeps all of {@code content}, which is there when this returns, whatever happens then. Gives the hash. */
    String put(InputStream content) throws IOException {
        Path fresh = storage.fresh();
        try {
            String name;
            try (FileChannel file = FileChannel.open(fresh, StandardOpenOption.WRITE)) {
                name = Sha256.copy(content, Channels.newOutputStream(file));
                file.force(true); // its chunks go next
            }
            jdbi.useHandle(handle -> handle.execute("delete from unneeded where object = ?", name));
            storage.put(name, fresh);
            return name;
        } finally {
            Files.deleteIfExists(fresh);
        }
    }

    /** A content from a byte on. */
    InputStream open(String name, long from) throws IOException {
        return storage.open(name, from);
    }

    /** Takes away what was written down before, and writes down what nobody needs now. */
    void sweep(Instant now) throws IOException {
        List<String> before = jdbi.withHandle(
                handle -> handle.createQuery("select object from unneeded where since <= :since order by object")
                        .bind("since", at(now.minus(WRITTEN_DOWN)))
                        .mapTo(String.class)
                        .list());
        for (String object : before) jdbi.useTransaction(handle -> takeAway(handle, object));
        storage.older(now.minus(YOUNG), some -> writeDown(some, now));
    }

    private void takeAway(Handle handle, String object) throws IOException {
        boolean isWrittenDown = handle.createQuery("select object from unneeded where object = :object for update")
                .bind("object", object)
                .mapTo(String.class)
                .findOne()
                .isPresent();
        if (!isWrittenDown) return; // somebody has put it again
        if (needed(handle, List.of(object)).isEmpty()) storage.delete(object);
        handle.execute("delete from unneeded where object = ?", object);
    }

    private void writeDown(List<String> old, Instant now) {
        List<String> ours =
                old.stream().filter(name -> NAME.matcher(name).matches()).toList();
        if (ours.isEmpty()) return;
        jdbi.useTransaction(handle -> {
            List<String> needed = needed(handle, ours);
            for (String object : ours)
                if (!needed.contains(object))
                    handle.execute(
                            "insert into unneeded (object, since) values (?, ?) on conflict do nothing",
                            object,
                            at(now));
        });
    }

    private static List<String> needed(Handle handle, List<String> objects) {
        return handle.createQuery("select distinct object from uploads where object in (<objects>)")
                .bindList("objects", objects)
                .mapTo(String.class)
                .list();
    }

    private static OffsetDateTime at(Instant moment) {
        return moment.atOffset(ZoneOffset.UTC);
    }

    @Override
    public void close() {
        storage.close();
    }
}
