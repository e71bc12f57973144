package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Runs of one suite, a night apart, written as a row of letters a test: {@code .} passed, {@code F} failed, {@code ~} passed on a later
 * attempt, {@code s} skipped, a blank where the run did not have it.
 */
public final class Nights {

    public static final Instant FIRST = Instant.parse("2026-10-01T22:15:00Z");

    private final Map<String, String> rows = new LinkedHashMap<>();
    private final Map<String, int[]> millis = new LinkedHashMap<>();
    private final Map<String, String> reasons = new LinkedHashMap<>();
    private String branch = "main";

    public Nights test(String key, String row) {
        rows.put(key, row);
        return this;
    }

    /** It passes in all of them, and takes so long. */
    public Nights takes(String key, int... each) {
        millis.put(key, each);
        return test(key, ".".repeat(each.length));
    }

    /** Why it fails, where it does. */
    public Nights because(String key, String reason) {
        reasons.put(key, reason);
        return this;
    }

    public Nights on(String otherBranch) {
        branch = otherBranch;
        return this;
    }

    public List<RunDigest> digests() {
        int nights = rows.values().stream().mapToInt(String::length).max().orElse(0);
        List<RunDigest> digests = new ArrayList<>();
        for (int night = 0; night < nights; night++) digests.add(digest(night));
        return digests;
    }

    private RunDigest digest(int night) {
        List<TestDigest> tests = new ArrayList<>();
        List<ReasonDigest> why = new ArrayList<>();
        for (var row : rows.entrySet()) {
            char how = night < row.getValue().length() ? row.getValue().charAt(night) : ' ';
            if (how == ' ') continue;
            String reason = how == 'F' ? reasons.get(row.getKey()) : null;
            if (reason != null) why.add(new ReasonDigest(reason, "because of " + reason));
            int[] durations = millis.get(row.getKey());
            tests.add(new TestDigest(
                    row.getKey(),
                    "Garden › " + row.getKey(),
                    how == 'F' ? Outcome.FAILED : how == 's' ? Outcome.SKIPPED : Outcome.PASSED,
                    durations == null ? 100 : durations[night],
                    how == '~' ? 2 : 1,
                    how == '~',
                    reason,
                    List.of()));
        }
        return new RunDigest(
                String.format("2026-10-%02d_221500_aaaa", night + 1),
                FIRST.plus(Duration.ofDays(night)),
                Duration.ofMinutes(2),
                Map.of("branch", branch, "commit", "c" + night),
                true,
                false,
                tests,
                why);
    }

    public History history() {
        return History.of(digests());
    }
}
