package dev.verbale.hub;

import java.security.SecureRandom;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Base64;
import java.util.Optional;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/** Who may do what. A token is shown once, when it is made: what is kept is its hash. */
final class Tokens {

    private static final String BEGINNING = "verbale_";
    private static final int BYTES = 24;
    private static final Duration SESSION = Duration.ofDays(30);

    private final Jdbi jdbi;
    private final SecureRandom random = new SecureRandom();

    Tokens(Jdbi jdbi) {
        this.jdbi = jdbi;
    }

    /**
     * What somebody may do.
     *
     * @param label whose token it is
     * @param project null for all
     */
    record Access(
            long token, String label, Role role, @Nullable String project) {

        /** Who labels, reads too. */
        boolean may(Role wanted, String in) {
            if (role == Role.ADMINISTER) return true;
            return in.equals(project) && (role == wanted || (wanted == Role.READ && role == Role.LABEL));
        }

        /** Whether it may do anything in that project, and so may know what is known and remembered there. */
        boolean isOf(String project) {
            return role == Role.ADMINISTER || project.equals(this.project);
        }

        boolean isAdministrator() {
            return role == Role.ADMINISTER;
        }
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
            jdbi.useTransaction(handle -> insert(handle, given, Role.ADMINISTER, null, "given at the start"));
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
        return jdbi.withHandle(handle -> handle.createQuery("select t.id, t.label, t.role, p.name from tokens t"
                        + " left join projects p on p.id = t.project_id where t.hash = :hash and t.ended is null")
                .bind("hash", hash(token))
                .map((row, context) -> access(row))
                .findOne());
    }

    private static Access access(ResultSet row) throws SQLException {
        long token = row.getLong(1);
        String label = row.getString(2);
        Optional<Role> known = Role.ofWord(row.getString(3));
        return known.isPresent()
                ? new Access(token, label, known.get(), row.getString(4))
                : new Access(token, label, Role.READ, ""); // of a later version: it may do nothing here
    }

    /** Ends the tokens with this label; sessions with them. */
    int end(String label) {
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

    /** Begins a session of a browser, and gives its secret. */
    String begin(Access access) {
        String session = secret();
        jdbi.useTransaction(handle -> {
            handle.execute("delete from sessions where until < ?", now());
            handle.execute(
                    "insert into sessions (hash, token_id, until) values (?, ?, ?)",
                    hash(session),
                    access.token(),
                    now().plus(SESSION));
        });
        return session;
    }

    /** Whose session it is. */
    Optional<Access> ofSession(String session) {
        return jdbi.withHandle(handle -> handle.createQuery("select t.id, t.label, t.role, p.name from sessions s"
                        + " join tokens t on t.id = s.token_id left join projects p on p.id = t.project_id"
                        + " where s.hash = :hash and s.until > :now and t.ended is null")
                .bind("hash", hash(session))
                .bind("now", now())
                .map((row, context) -> access(row))
                .findOne());
    }

    private static OffsetDateTime now() {
        return OffsetDateTime.now(ZoneOffset.UTC);
    }

    private String secret() {
        byte[] bytes = new byte[BYTES];
        random.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** Tokens are long and random: a plain hash cannot be turned back. */
    static String hash(String token) {
        return Sha256.of(token);
    }
}
