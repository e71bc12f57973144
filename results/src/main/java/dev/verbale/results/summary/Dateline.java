package dev.verbale.results.summary;

import dev.verbale.results.DurationText;
import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Which run this is, for people: when, how long, of what.
 *
 * @since 0.2.0
 */
public final class Dateline {

    private static final DateTimeFormatter MINUTE =
            DateTimeFormatter.ofPattern("EEE d MMM yyyy, HH:mm", Locale.ENGLISH);
    private static final int LONGEST = 80;
    private static final int SHORT_COMMIT = 8;

    private Dateline() {}

    /** Such as {@code Sun 29 Nov 2026, 22:15 UTC, 2 min, branch main, commit 3f09a1c2, orto #512, run 2026-11-29_221500_a07c}. */
    public static String of(Run run, ZoneId zone) {
        List<String> parts = new ArrayList<>();
        parts.add(MINUTE.format(run.started().atZone(zone)) + " "
                + zone.normalized()
                        .getDisplayName(TextStyle.SHORT, Locale.ENGLISH)
                        .replaceAll("^Z$", "UTC"));
        parts.add(DurationText.of(run.duration()));
        String branch = fact(run, "branch");
        if (!branch.isEmpty()) parts.add("branch " + branch);
        String commit = run.facts().getOrDefault("commit", "");
        if (!commit.isBlank()) parts.add("commit " + commit.substring(0, Math.min(SHORT_COMMIT, commit.length())));
        String job = fact(run, "CI job");
        String number = fact(run, "CI number");
        if (!job.isEmpty() || !number.isEmpty()) parts.add((job + (number.isEmpty() ? "" : " #" + number)).strip());
        parts.add("run " + Texts.cut(run.name(), LONGEST));
        return String.join(", ", parts);
    }

    private static String fact(Run run, String name) {
        return Texts.cut(run.facts().getOrDefault(name, "").strip(), LONGEST);
    }
}
