package dev.verbale.hub;

import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/**
 * How long runs are kept. What is remembered of a run stays when the run goes; files that no run has any more go from the storage a day later at
 * the earliest.
 */
final class Keeping {

    /** A run that came just now is not judged: its sender may be at work. */
    private static final Duration YOUNG = Duration.ofDays(1);

    private final Jdbi jdbi;

    Keeping(Jdbi jdbi) {
        this.jdbi = jdbi;
    }

    /**
     * What a project keeps.
     *
     * @param days how long runs stay of which nobody needs to look; null for ever
     * @param failingDays how long the others stay, whatever stands before; null for as long as {@code days}
     * @param bytes how much all of them may have together, the oldest goes first; null for any
     */
    record Rule(
            @Nullable Integer days,
            @Nullable Integer failingDays,
            @Nullable Long bytes) {

        static final Rule ALL = new Rule(null, null, null);

        private @Nullable Integer days(boolean needsAttention) {
            return needsAttention && failingDays != null ? failingDays : days;
        }
    }

    /**
     * A run that is to go.
     *
     * @param why in words
     * @param at when; never before it was a day old
     */
    record Going(long id, String run, String why, Instant at) {}

    private record Kept(long id, String run, Instant came, boolean stays, boolean needsAttention, long bytes) {}

    Optional<Rule> rule(String project) {
        return jdbi.withHandle(handle -> handle.createQuery(
                        "select keep_days, keep_failing_days, keep_bytes from projects where name = :name")
                .bind("name", project)
                .map((row, context) -> new Rule(
                        row.getObject(1, Integer.class), row.getObject(2, Integer.class), row.getObject(3, Long.class)))
                .findOne());
    }

    void rule(String project, Rule rule) {
        jdbi.useHandle(handle -> handle.createUpdate("update projects set keep_days = :days,"
                        + " keep_failing_days = :failing, keep_bytes = :bytes where name = :name")
                .bind("days", rule.days())
                .bind("failing", rule.failingDays())
                .bind("bytes", rule.bytes())
                .bind("name", project)
                .execute());
    }

    /** @return whether there is such a run */
    boolean stays(String project, String run, boolean stays) {
        return jdbi.withHandle(handle -> handle.createUpdate("update runs set stays = :stays where name = :run"
                                + " and project_id = (select id from projects where name = :project)")
                        .bind("stays", stays)
                        .bind("run", run)
                        .bind("project", project)
                        .execute())
                == 1;
    }

    /** The runs that go until {@code until}, the first one first. The newest never goes, nor one that somebody wants to stay. */
    List<Going> going(String project, Instant until) {
        Rule rule = rule(project).orElse(Rule.ALL);
        List<Going> going = new ArrayList<>();
        long bytes = 0;
        boolean isNewest = true;
        for (Kept run : newestFirst(project)) {
            bytes += run.bytes();
            Going one = isNewest || run.stays() ? null : going(rule, run, bytes);
            if (one != null && !one.at().isAfter(until)) going.add(0, one);
            isNewest = false;
        }
        return going;
    }

    private static @Nullable Going going(Rule rule, Kept run, long bytesUpToIt) {
        Instant soonest = run.came().plus(YOUNG);
        if (rule.bytes() != null && bytesUpToIt > rule.bytes())
            return new Going(
                    run.id(), run.run(), "with those after it there are more than " + rule.bytes() + " bytes", soonest);
        Integer days = rule.days(run.needsAttention());
        if (days == null) return null;
        Instant over = run.came().plus(Duration.ofDays(days));
        String why = "older than " + HubPages.count(days, "day") + (run.needsAttention() ? ", with failures" : "");
        return new Going(run.id(), run.run(), why, over.isAfter(soonest) ? over : soonest);
    }

    /** One of which nobody knows whether somebody has to look counts like one of which that is known. */
    private List<Kept> newestFirst(String project) {
        return jdbi.withHandle(handle -> handle.createQuery("select r.id, r.name, r.created, r.stays,"
                        + " (select m.needs_attention from remembered m where m.project_id = p.id and m.run = r.name),"
                        + " (select coalesce(sum(u.size), 0) from uploads u join parts t on t.id = u.part_id where t.run_id = r.id)"
                        + " from runs r join projects p on p.id = r.project_id where p.name = :project"
                        + " order by r.created desc, r.id desc")
                .bind("project", project)
                .map((row, context) -> new Kept(
                        row.getLong(1),
                        row.getString(2),
                        row.getObject(3, OffsetDateTime.class).toInstant(),
                        row.getBoolean(4),
                        !Boolean.FALSE.equals(row.getObject(5, Boolean.class)),
                        row.getLong(6)))
                .list());
    }

    /** Lets a run go, and all that was sent of it; what is remembered of it stays. */
    void letGo(long run) {
        String parts = "(select id from parts where run_id = :run)";
        jdbi.useTransaction(handle -> {
            for (String sql : List.of(
                    "delete from chunks where upload_id in (select id from uploads where part_id in " + parts + ")",
                    "delete from uploads where part_id in " + parts,
                    "delete from parts where run_id = :run",
                    "delete from runs where id = :run"))
                handle.createUpdate(sql).bind("run", run).execute();
        });
    }

    /** The runs of a project. */
    List<String> runs(String project) {
        return jdbi.withHandle(handle -> handle.createQuery(
                        "select r.name from runs r join projects p on p.id = r.project_id" + " where p.name = :project")
                .bind("project", project)
                .mapTo(String.class)
                .list());
    }
}
