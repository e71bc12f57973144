package dev.verbale.query;

import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.query.values.StoredText;
import dev.verbale.results.Entry;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jdbi.v3.core.Handle;
import org.jspecify.annotations.Nullable;

/** One run on its way into the tables. */
final class StoredRun implements AutoCloseable {

    private final int run;
    private final StoredNames names;
    private final StoredRows runs;
    private final StoredRows results;
    private final StoredRows attempts;
    private final StoredRows failures;
    private final StoredRows steps;
    private final StoredRows exchanges;
    private final StoredRows attachments;

    private long attempt;
    private int step;
    private int exchange;
    private int attachment;

    /**
     * @param run its number
     * @param attempt the largest number of an attempt until now
     */
    StoredRun(Handle handle, StoredNames names, int run, long attempt) {
        this.run = run;
        this.names = names;
        this.attempt = attempt;
        runs = new StoredRows(
                handle,
                "stored_runs",
                "run_id",
                "source",
                "source_size",
                "run",
                "started",
                "duration_ms",
                "branch",
                "commit_id",
                "complete",
                "part",
                "broken",
                "made_up");
        results = new StoredRows(
                handle,
                "stored_results",
                "run_id",
                "test_id",
                "outcome_id",
                "duration_ms",
                "attempts",
                "flaky",
                "reason_id",
                "tags",
                "owner",
                "label");
        attempts = new StoredRows(
                handle,
                "stored_attempts",
                "attempt_id",
                "run_id",
                "test_id",
                "attempt",
                "outcome_id",
                "started",
                "duration_ms",
                "worker",
                "thread",
                "tags");
        failures = new StoredRows(handle, "stored_failures", "attempt_id", "type", "title", "message", "reason_id");
        steps = new StoredRows(
                handle,
                "stored_steps",
                "attempt_id",
                "step",
                "in_step",
                "depth",
                "kind",
                "name",
                "outcome_id",
                "started",
                "duration_ms");
        exchanges = new StoredRows(
                handle,
                "stored_exchanges",
                "attempt_id",
                "exchange",
                "in_step",
                "method",
                "url",
                "status",
                "failure",
                "started",
                "duration_ms",
                "request_bytes",
                "response_bytes");
        attachments = new StoredRows(
                handle,
                "stored_attachments",
                "attempt_id",
                "attachment",
                "in_step",
                "name",
                "kind",
                "media_type",
                "bytes",
                "file");
    }

    /** What is remembered of a run: no attempt, and nothing in it. */
    void store(RunDigest digest, String source, long size) {
        head(digest, source, size);
        results(digest, Map.of());
    }

    /** All of a run. */
    void store(Run read, Map<String, String> labels) {
        RunDigest digest = RunDigest.of(read);
        head(digest, source(read), 0);
        Map<String, String> byKey = new HashMap<>();
        for (TestResult test : read.tests())
            if (!test.superseded() && labels.containsKey(test.id()))
                byKey.put(test.key(), labels.getOrDefault(test.id(), ""));
        results(digest, byKey);
        Map<String, Integer> reasonOf = new HashMap<>();
        Map<String, String> titles = new HashMap<>();
        digest.reasons().forEach(reason -> titles.put(reason.id(), reason.title()));
        for (TestDigest test : digest.tests())
            if (test.reason() != null)
                reasonOf.put(test.key(), names.reason(test.reason(), titles.getOrDefault(test.reason(), "")));
        for (TestResult test : read.tests()) attempt(test, test.superseded() ? null : reasonOf.get(test.key()));
    }

    /** By what a run is known to be there. */
    static String source(Run run) {
        return StoredText.of(String.valueOf(run.folder().toAbsolutePath().normalize()), StoredText.NAME);
    }

    private void head(RunDigest digest, String source, long size) {
        runs.add(
                run,
                StoredText.of(source, StoredText.NAME),
                size,
                StoredText.of(digest.run(), StoredText.NAME),
                time(digest.started()),
                digest.duration().toMillis(),
                StoredText.of(digest.branch(), StoredText.NAME),
                StoredText.of(digest.commit(), StoredText.NAME),
                digest.isComplete(),
                StoredText.of(digest.part(), StoredText.NAME),
                digest.broken().size(),
                digest.isMadeUp());
    }

    /** @param labels by the keys of the tests */
    private void results(RunDigest digest, Map<String, String> labels) {
        Map<String, Integer> reasonOf = new HashMap<>();
        digest.reasons().forEach(reason -> reasonOf.put(reason.id(), names.reason(reason.id(), reason.title())));
        Set<Integer> stored = new HashSet<>();
        for (TestDigest test : digest.tests()) {
            TestDigest.Origin origin = test.origin();
            int number = names.test(test.key(), test.name(), origin.className(), origin.methodName());
            if (!stored.add(number)) continue; // a file that was tampered with
            results.add(
                    run,
                    number,
                    names.outcome(test.outcome()),
                    test.millis(),
                    clipped(test.attempts()),
                    test.recovered(),
                    test.reason() == null ? null : reasonOf.get(test.reason()),
                    StoredText.of(String.join(" ", origin.tags()), StoredText.NAME),
                    StoredText.orNull(origin.owner(), StoredText.NAME),
                    StoredText.orNull(labels.get(test.key()), StoredText.NAME));
        }
    }

    private void attempt(TestResult test, @Nullable Integer reason) {
        attempt++;
        step = exchange = attachment = 0;
        attempts.add(
                attempt,
                run,
                names.test(test.key(), test.name(), test.className(), test.methodName()),
                clipped(test.attempt().number()),
                names.outcome(test.outcome()),
                time(test.started()),
                millis(test.duration()),
                StoredText.of(test.worker(), StoredText.NAME),
                StoredText.of(test.thread(), StoredText.NAME),
                StoredText.of(String.join(" ", test.tags()), StoredText.LONG));
        Failure failure = test.failure();
        if (failure != null)
            failures.add(
                    attempt,
                    StoredText.orNull(failure.type(), StoredText.NAME),
                    StoredText.of(FailureTitle.of(failure), StoredText.LONG),
                    StoredText.orNull(failure.message(), StoredText.LONG),
                    reason);
        entries(test.entries());
    }

    /** A list that is being gone through. */
    private record Open(
            List<Entry> entries, int next, @Nullable Integer in, int depth) {}

    /** Without recursion: steps may lie in one another as deep as a recorder lets them. */
    private void entries(List<Entry> outermost) {
        List<Open> open = new ArrayList<>();
        open.add(new Open(outermost, 0, null, 0));
        while (!open.isEmpty()) {
            Open at = open.remove(open.size() - 1);
            if (at.next == at.entries.size()) continue;
            open.add(new Open(at.entries, at.next + 1, at.in, at.depth));
            Entry entry = at.entries.get(at.next);
            Integer within = at.in;
            if (entry instanceof Entry.StepEntry one) within = step(one, at);
            else if (entry instanceof Entry.ExchangeEntry one) exchange(one, at.in);
            else if (entry instanceof Entry.AttachmentEntry one) attachment(one, at.in);
            List<Entry> inside = Entry.inside(entry);
            if (!inside.isEmpty()) open.add(new Open(inside, 0, within, at.depth + 1));
        }
    }

    private int step(Entry.StepEntry one, Open at) {
        steps.add(
                attempt,
                ++step,
                at.in,
                clipped(at.depth),
                StoredText.of(one.kind().word(), StoredText.WORD),
                StoredText.of(one.name(), StoredText.LONG),
                names.outcome(one.outcome()),
                time(one.at()),
                millis(one.duration()));
        return step;
    }

    private void exchange(Entry.ExchangeEntry one, @Nullable Integer in) {
        ExchangeMade made = one.made();
        ExchangeMade.Response response = made.response();
        exchanges.add(
                attempt,
                ++exchange,
                in,
                StoredText.of(made.request().method(), StoredText.WORD),
                StoredText.of(made.request().url(), StoredText.LONG),
                response == null ? null : response.status(),
                StoredText.orNull(made.failure(), StoredText.LONG),
                time(one.at()),
                millis(one.duration()),
                size(made.request().body()),
                response == null ? null : size(response.body()));
    }

    private void attachment(Entry.AttachmentEntry one, @Nullable Integer in) {
        StoredFile file = one.stored();
        attachments.add(
                attempt,
                ++attachment,
                in,
                StoredText.of(one.name(), StoredText.LONG),
                StoredText.of(one.kind(), StoredText.WORD),
                StoredText.of(file.mediaType(), StoredText.WORD),
                file.size(),
                one.file() == null ? null : StoredText.of(file.path(), StoredText.NAME));
    }

    private static long size(ExchangeMade.@Nullable Body body) {
        return body == null ? 0 : Math.max(0, body.size());
    }

    private static int millis(Duration duration) {
        return (int) Math.max(0, Math.min(Integer.MAX_VALUE, duration.toMillis()));
    }

    private static int clipped(int number) {
        return Math.max(0, Math.min(Short.MAX_VALUE, number));
    }

    private static OffsetDateTime time(Instant moment) {
        return moment.atOffset(ZoneOffset.UTC);
    }

    @Override
    public void close() {
        for (StoredRows rows : List.of(runs, results, attempts, failures, steps, exchanges, attachments)) rows.close();
    }
}
