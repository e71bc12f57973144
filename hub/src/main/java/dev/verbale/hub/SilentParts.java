package dev.verbale.hub;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jdbi.v3.core.Jdbi;

/**
 * Parts of runs whose senders were killed, and say nothing any more: what came of them counts as all after an hour, so that the run is
 * remembered, as one that is incomplete. Who sends more of it afterwards goes on with it. For one thread.
 */
final class SilentParts {

    private static final Duration SILENCE = Duration.ofHours(1);

    private final Jdbi jdbi;
    private final Uploads uploads;
    private final Map<Part, LastChange> known = new HashMap<>();

    SilentParts(Jdbi jdbi, Uploads uploads) {
        this.jdbi = jdbi;
        this.uploads = uploads;
    }

    private record Part(String project, String run, String name) {}

    /** @param changed the number of its last change */
    private record LastChange(long changed, Instant at) {}

    private record Row(Part part, long changed) {}

    /** Ends those of which nothing was heard for an hour by then. */
    void end(Instant now) throws IOException {
        List<Row> open = jdbi.withHandle(handle -> handle.createQuery("select p.name, r.name, t.name, max(u.changed)"
                        + " from parts t join runs r on r.id = t.run_id join projects p on p.id = r.project_id"
                        + " join uploads u on u.part_id = t.id where t.ended is null group by p.name, r.name, t.name")
                .map((row, context) ->
                        new Row(new Part(row.getString(1), row.getString(2), row.getString(3)), row.getLong(4)))
                .list());
        known.keySet().retainAll(open.stream().map(Row::part).toList());
        for (Row row : open) {
            LastChange before = known.get(row.part());
            if (before == null || before.changed() != row.changed())
                known.put(row.part(), new LastChange(row.changed(), now));
            else if (!before.at().plus(SILENCE).isAfter(now)) {
                Part part = row.part();
                uploads.end(part.project(), part.run(), part.name(), Map.of());
            }
        }
    }
}
