package dev.verbale.hub;

import java.time.Duration;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/** Who has entered with a browser: for a month at most, and no longer than their token, or what they may as a person. */
final class Sessions {

    static final Duration MONTH = Duration.ofDays(30);

    private final Jdbi jdbi;
    private final Tokens tokens;
    private final People people;

    Sessions(Jdbi jdbi, Tokens tokens, People people) {
        this.jdbi = jdbi;
        this.tokens = tokens;
        this.people = people;
    }

    private record Entered(@Nullable Long token, @Nullable String person) {}

    /** Begins a session of whoever has that token, or is that person, and gives its secret. */
    String begin(Access access) {
        String session = Tokens.secret();
        boolean isPerson = access.token() == 0;
        jdbi.useTransaction(handle -> {
            handle.execute("delete from sessions where until < ?", now());
            handle.createUpdate("insert into sessions (hash, token_id, person, until)"
                            + " values (:hash, :token, :person, :until)")
                    .bind("hash", Tokens.hash(session))
                    .bind("token", isPerson ? null : Long.valueOf(access.token()))
                    .bind("person", isPerson ? access.label() : null)
                    .bind("until", now().plus(MONTH))
                    .execute();
        });
        return session;
    }

    /** Whose session it is, with what they may do now. */
    Optional<Access> of(String session) {
        Optional<Entered> entered = jdbi.withHandle(handle -> handle.createQuery(
                        "select token_id, person from sessions where hash = :hash and until > :now")
                .bind("hash", Tokens.hash(session))
                .bind("now", now())
                .map((row, context) -> new Entered(row.getObject(1, Long.class), row.getString(2)))
                .findOne());
        if (entered.isEmpty()) return Optional.empty();
        String person = entered.get().person();
        if (person != null) return Optional.of(people.of(person));
        Long token = entered.get().token();
        return token == null ? Optional.empty() : tokens.ofId(token);
    }

    /** Ends a session. */
    void end(String session) {
        jdbi.useHandle(handle -> handle.execute("delete from sessions where hash = ?", Tokens.hash(session)));
    }

    private static OffsetDateTime now() {
        return OffsetDateTime.now(ZoneOffset.UTC);
    }
}
