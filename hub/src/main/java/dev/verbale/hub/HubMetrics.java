package dev.verbale.hub;

import java.util.concurrent.atomic.AtomicLongArray;
import org.jdbi.v3.core.Jdbi;

/**
 * How the hub does, in OpenMetrics 1.0.
 *
 * @see <a href="https://github.com/prometheus/OpenMetrics/blob/v1.0.0/specification/OpenMetrics.md">OpenMetrics</a>
 */
final class HubMetrics {

    static final String TYPE = "application/openmetrics-text; version=1.0.0; charset=utf-8";

    private static final int HUNDREDS = 6;

    private final Jdbi jdbi;
    private final HubStreams streams;
    private final AtomicLongArray answers = new AtomicLongArray(HUNDREDS);

    HubMetrics(Jdbi jdbi, HubStreams streams) {
        this.jdbi = jdbi;
        this.streams = streams;
    }

    void answered(int status) {
        int hundred = status / 100;
        if (hundred > 0 && hundred < HUNDREDS) answers.incrementAndGet(hundred);
    }

    String text() {
        var text = new StringBuilder(
                "# TYPE verbale_hub_answers counter\n# HELP verbale_hub_answers Answers since the start.\n");
        for (int hundred = 1; hundred < HUNDREDS; hundred++)
            text.append("verbale_hub_answers_total{status=\"" + hundred + "xx\"} " + answers.get(hundred) + "\n");
        counted(text, "projects", "Projects.", "select count(*) from projects");
        counted(text, "runs", "Runs of all projects.", "select count(*) from runs");
        counted(text, "files", "Files of all runs.", "select count(*) from uploads");
        counted(
                text,
                "unstored_bytes",
                "Bytes that are in the database and not yet in the storage.",
                "select coalesce(sum(size - stored), 0) from uploads where size > stored");
        gauge(text, "streams", "Browsers that look at something live.", streams.count());
        return text.append("# EOF\n").toString();
    }

    private void counted(StringBuilder text, String name, String help, String sql) {
        long value = jdbi.withHandle(
                handle -> handle.createQuery(sql).mapTo(Long.class).one());
        gauge(text, name, help, value);
    }

    private static void gauge(StringBuilder text, String name, String help, long value) {
        text.append("# TYPE verbale_hub_" + name + " gauge\n# HELP verbale_hub_" + name + " " + help + "\nverbale_hub_"
                + name + " " + value + "\n");
    }
}
