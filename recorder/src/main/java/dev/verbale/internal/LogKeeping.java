package dev.verbale.internal;

import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.event.NoteWritten;
import dev.verbale.recorder.LogLine;
import dev.verbale.recorder.RecorderOptions.Logging;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Keeps what loggers write, up to the limits. */
final class LogKeeping {

    private final FileRecorder recorder;
    private final Logging limits;

    LogKeeping(FileRecorder recorder, Logging limits) {
        this.recorder = recorder;
        this.limits = limits;
    }

    void keepAsked(Seat seat, Supplier<LogLine> asked, @Nullable Void nothing) {
        keep(
                seat,
                recorder.guard.foreign.asked(
                        asked,
                        broken -> new LogLine(
                                "error",
                                "unknown",
                                "(a line could not be made: " + NoteText.shown(broken) + ")",
                                Thread.currentThread().getName(),
                                Map.of(),
                                null)),
                nothing);
    }

    void keep(Seat seat, LogLine line, @Nullable Void nothing) {
        ScopeNode scope = recorder.here(seat);
        if (scope.owner.logLines.incrementAndGet() > limits.linesATest()) return;
        Throwable thrown = line.thrown();
        Failure failure = thrown == null ? null : recorder.failure(scope, thrown);
        String thread = FileRecorder.text(line.thread());
        boolean own = seat.here != null && Thread.currentThread().getName().equals(thread);
        boolean written = recorder.minutes.append(
                scope,
                new LogWritten(
                        recorder.minutes.clock.micros(),
                        scope.id(),
                        FileRecorder.text(line.level()),
                        recorder.name(line.logger()),
                        recorder.shortening.cut(FileRecorder.text(line.text()), limits.charactersALine()),
                        own && scope.owner.isTest ? null : thread,
                        masked(line.context()),
                        failure));
        if (written && thrown != null && failure != null) scope.owner.wrote(thrown, failure.id());
    }

    /** A value like these says nothing of itself, so that only its name tells that it is secret. */
    private Map<String, String> masked(Map<String, String> context) {
        if (context.isEmpty()) return context;
        Map<String, String> masked = new LinkedHashMap<>(context);
        masked.replaceAll((name, value) -> recorder.shown(name, value));
        return masked;
    }

    /** Said once, at the end of a test: its lines are not all there, and why. */
    void sayWhatWasLeftOut(ScopeNode test) {
        int leftOut = test.owner.logLines.get() - limits.linesATest();
        if (leftOut <= 0) return;
        recorder.minutes.append(
                test,
                new NoteWritten(
                        recorder.minutes.clock.micros(),
                        test.id(),
                        leftOut + " log lines are left out: verbale.log.lines allows " + limits.linesATest()
                                + " a test",
                        null));
    }
}
