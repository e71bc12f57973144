package dev.verbale.report;

import dev.verbale.results.Entry;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;

/** The steps that a video shows, as WebVTT (W3C), which players show as captions. Steps within steps are nested cues. */
final class Captions {

    private static final Duration SHORTEST = Duration.ofMillis(1); // a cue may not be empty

    private Captions() {}

    /** {@code begins} is when the video does; a step that began before is there from its beginning. */
    static String of(List<Entry> entries, Instant begins) {
        var text = new StringBuilder("WEBVTT\n");
        add(text, entries, begins);
        return text.toString();
    }

    private static void add(StringBuilder text, List<Entry> entries, Instant begins) {
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            Duration from = Duration.between(begins, step.at());
            Duration to = from.plus(step.duration());
            if (!to.isNegative()) {
                Duration start = from.isNegative() ? Duration.ZERO : from;
                Duration end = to.compareTo(start.plus(SHORTEST)) < 0 ? start.plus(SHORTEST) : to;
                text.append('\n').append(moment(start)).append(" --> ").append(moment(end));
                text.append('\n').append(escaped(step.name())).append('\n');
            }
            add(text, step.entries(), begins);
        }
    }

    private static String moment(Duration time) {
        return String.format(
                Locale.ROOT,
                "%02d:%02d:%02d.%03d",
                time.toHours(),
                time.toMinutesPart(),
                time.toSecondsPart(),
                time.toMillisPart());
    }

    private static String escaped(String name) {
        return name.replaceAll("\\s+", " ")
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;");
    }
}
