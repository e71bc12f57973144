package dev.verbale.hub;

import java.security.SecureRandom;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Base64;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/** Who may do what. A token is shown once, when it is made: what is kept is its hash. */
final class Tokens {

    private static final String BEGINNING = "verbale_";
    private static final int BYTES = 24;
    private static final int MAX_SEEN = 10_000;
    private static final long SEEN_FOR = TimeUnit.SECONDS.toNanos(1);
    private static final SecureRandom RANDOM = new SecureRandom();

    private final Jdbi jdbi;

    /** Of the last second, as a sender asks several times in one: one that another hub ended may go on for so long. */
    private final Map<String, Seen> seen = new ConcurrentHashMap<>();

    private record Seen(Access access, long at) {}

    Tokens(Jdbi jdbi) {
        this.jdbi = jdbi;
    }

    /** Makes one; the project is made with it where it is not there. */
    String add(Role role, @Nullable String project, String label) {
        String token = BEGINNING + secret();
        jdbi.useTransaction(handle -> insert(handle, token, role, project, label));
        return token;
    }

    /** Sees to it that {@code given} may do everything. */
    void administer(String given) {
        if (of(given).isEmpty())
            jdbi.useTransaction(handle -> insert(handle, given, Role.ADMINISTER, null, "the hub's own token"));
    }

    boolean isEmpty() {
        return jdbi.withHandle(handle -> handle.createQuery("select count(*) from tokens")
                        .mapTo(Long.class)
                        .one())
                == 0;
    }

    private static void insert(Handle handle, String token, Role role, @Nullable String project, String label) {
        Long id = project == null ? null : Projects.idOrNew(handle, project);
        handle.createUpdate(
                        "insert into tokens (hash, project_id, role, label) values (:hash, :project, :role, :label)")
                .bind("hash", hash(token))
                .bind("project", id)
                .bind("role", role.word())
                .bind("label", label)
                .execute();
    }

    /** What the one with this token may do. */
    Optional<Access> of(String token) {
        String hash = hash(token);
        Seen before = seen.get(hash);
        if (before != null && System.nanoTime() - before.at() < SEEN_FOR) return Optional.of(before.access());
        Optional<Access> access = found("t.hash = :wanted", hash);
        if (seen.size() >= MAX_SEEN) seen.clear();
        access.ifPresent(found -> seen.put(hash, new Seen(found, System.nanoTime())));
        return access;
    }

    private Optional<Access> found(String which, Object wanted) {
        return jdbi.withHandle(handle -> handle.createQuery("select t.id, t.label, t.role, p.name from tokens t"
                        + " left join projects p on p.id = t.project_id where t.ended is null and " + which)
                .bind("wanted", wanted)
                .map((row, context) -> access(row))
                .findOne());
    }

    private static Access access(ResultSet row) throws SQLException {
        String project = row.getString(4);
        Optional<Role> role = Role.ofWord(row.getString(3)); // of a later version it lets nobody do anything here
        boolean administers = role.isPresent() && role.get() == Role.ADMINISTER;
        return new Access(
                row.getLong(1),
                row.getString(2),
                administers,
                project == null || role.isEmpty() ? Map.of() : Map.of(project, role.get()));
    }

    /** Ends the tokens with this label; sessions with them. */
    int end(String label) {
        int ended = endNow(label);
        seen.clear();
        return ended;
    }

    private int endNow(String label) {
        return jdbi.inTransaction(handle -> {
            handle.createUpdate("delete from sessions where token_id in (select id from tokens where label = :label)")
                    .bind("label", label)
                    .execute();
            return handle.createUpdate(
                            "update tokens set ended = current_timestamp where label = :label and ended is null")
                    .bind("label", label)
                    .execute();
        });
    }

    /** What the one with this token may do now. */
    Optional<Access> ofId(long id) {
        return found("t.id = :wanted", id);
    }

    /** As long and random as a token. */
    static String secret() {
        byte[] bytes = new byte[BYTES];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** Tokens are long and random: a plain hash cannot be turned back. */
    static String hash(String token) {
        return Sha256.of(token);
    }
}
