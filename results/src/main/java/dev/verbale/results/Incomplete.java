package dev.verbale.results;

import dev.verbale.event.FactStated;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.StringJoiner;
import java.util.TreeMap;

/**
 * What a run does not hold, as far as its journals tell.
 *
 * @param missing how many events could not be recorded
 * @param byKind the same by what they were, as in {@link dev.verbale.event.EventsMissed}
 * @param notClosed the workers whose journals were not closed: their JVM was killed, or still runs
 * @param absentShards what was promised of a run that was joined and is not there, such as {@code 3 of 4}
 * @param unrecorded tests that ran and that no adapter reported, such as {@code tests of JUnit 4: its adapter is not on the class path};
 *     empty where none are known
 * @since 0.2.0
 */
public record Incomplete(
        long missing, Map<String, Long> byKind, List<String> notClosed, List<String> absentShards, String unrecorded) {

    private static final int MAX_NAMES = 3;

    public Incomplete {
        byKind = Map.copyOf(byKind);
        notClosed = List.copyOf(notClosed);
        absentShards = List.copyOf(absentShards);
    }

    /** What a run lacks. */
    static Incomplete of(Run run) {
        List<Worker> workers = run.workers();
        Map<String, Long> byKind = new TreeMap<>();
        List<String> notClosed = new ArrayList<>();
        long missing = 0;
        for (Worker worker : workers) {
            missing += worker.missing();
            worker.missingByKind().forEach((kind, count) -> byKind.merge(kind, count, Long::sum));
            if (!worker.ended()) notClosed.add(worker.name());
        }
        return new Incomplete(
                missing,
                byKind,
                notClosed,
                RunPart.absentShards(run.facts()),
                run.facts().getOrDefault(FactStated.NOT_RECORDED, ""));
    }

    /** Whether nothing is known to be missing. */
    public boolean isNothing() {
        return missing == 0 && notClosed.isEmpty() && absentShards.isEmpty() && unrecorded.isEmpty();
    }

    /** In one sentence, such as {@code The run is incomplete: 12 events could not be recorded (12 log).} */
    public String sentence() {
        var parts = new StringJoiner("; ", "The run is incomplete: ", ".");
        if (missing > 0) {
            var kinds = new StringJoiner(", ", " (", ")");
            new TreeMap<>(byKind)
                    .forEach((kind, count) -> kinds.add(String.format(Locale.ROOT, "%,d %s", count, kind)));
            parts.add(String.format(Locale.ROOT, missing == 1 ? "%,d event" : "%,d events", missing)
                    + " could not be recorded" + (byKind.isEmpty() ? "" : kinds));
        }
        if (!notClosed.isEmpty())
            parts.add((notClosed.size() == 1 ? "the journal of " : "the journals of ") + named(notClosed)
                    + (notClosed.size() == 1 ? " was" : " were")
                    + " never closed, as when a JVM is killed or still runs");
        if (!absentShards.isEmpty())
            parts.add((absentShards.size() == 1 ? "shard " : "shards ") + named(absentShards)
                    + (absentShards.size() == 1 ? " is" : " are") + " not there");
        if (!unrecorded.isEmpty()) parts.add("not in it are " + unrecorded);
        return parts.toString();
    }

    private static String named(List<String> all) {
        String names = String.join(", ", all.subList(0, Math.min(MAX_NAMES, all.size())));
        return all.size() > MAX_NAMES ? names + " and " + (all.size() - MAX_NAMES) + " more" : names;
    }
}
