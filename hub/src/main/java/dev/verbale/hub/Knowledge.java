package dev.verbale.hub;

import dev.verbale.rules.TriageRule;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/** What people know of the reasons of a project's failures. Each change stays, with who made it and when; the newest of a reason counts. */
final class Knowledge {

    private static final String COLUMNS =
            "k.reason, k.label, k.owner, k.link, k.words, k.known_until, k.who, k.changed";

    private final Jdbi jdbi;

    Knowledge(Jdbi jdbi) {
        this.jdbi = jdbi;
    }

    /**
     * What somebody said of a reason.
     *
     * @param known null where nothing is known of it any more
     */
    record Change(String reason, @Nullable TriageRule known, String who, OffsetDateTime at) {}

    void change(String project, String reason, @Nullable TriageRule known, String who) {
        jdbi.useTransaction(handle -> handle.createUpdate(
                        "insert into known_reasons (project_id, reason, label, owner, link, words, known_until, who)"
                                + " values (:project, :reason, :label, :owner, :link, :words, :until, :who)")
                .bind("project", Projects.idOrNew(handle, project))
                .bind("reason", reason)
                .bind("label", known == null ? null : known.label())
                .bind("owner", known == null ? null : known.owner())
                .bind("link", known == null ? null : known.link())
                .bind("words", known == null ? null : known.comment())
                .bind("until", known == null ? null : known.knownUntil())
                .bind("who", who)
                .execute());
    }

    /** What is known now, of each reason in the order in which people came to know it. */
    List<TriageRule> of(String project) {
        return jdbi.withHandle(handle -> handle
                .createQuery("select " + COLUMNS + " from known_reasons k where k.id in"
                        + " (select max(n.id) from known_reasons n join projects p on p.id = n.project_id"
                        + " where p.name = :project group by n.reason) and k.label is not null order by k.id")
                .bind("project", project)
                .map((row, context) -> change(row))
                .list()
                .stream()
                .flatMap(change -> Optional.ofNullable(change.known()).stream())
                .toList());
    }

    /** All that was ever said of a reason, the newest first. */
    List<Change> changes(String project, String reason) {
        return jdbi.withHandle(handle -> handle.createQuery("select " + COLUMNS + " from known_reasons k"
                        + " join projects p on p.id = k.project_id where p.name = :project and k.reason = :reason"
                        + " order by k.id desc")
                .bind("project", project)
                .bind("reason", reason)
                .map((row, context) -> change(row))
                .list());
    }

    /** Another number after each change. */
    long version(String project) {
        return jdbi.withHandle(handle -> handle.createQuery("select coalesce(max(k.id), 0) from known_reasons k"
                        + " join projects p on p.id = k.project_id where p.name = :project")
                .bind("project", project)
                .mapTo(Long.class)
                .one());
    }

    private static Change change(ResultSet row) throws SQLException {
        String reason = row.getString(1);
        String label = row.getString(2);
        return new Change(
                reason,
                label == null
                        ? null
                        : TriageRule.ofReason(
                                reason,
                                label,
                                row.getString(3),
                                row.getString(4),
                                row.getString(5),
                                row.getObject(6, LocalDate.class)),
                row.getString(7),
                row.getObject(8, OffsetDateTime.class));
    }
}
