package dev.verbale.engine.log;

import dev.verbale.RecorderOptions.Logging;
import dev.verbale.border.ShownValue;
import dev.verbale.engine.attachment.LongTexts;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.run.OtherVersions;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.scope.ThreadContext;
import dev.verbale.engine.text.MessageFormat;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.spi.LogLine;
import java.lang.System.Logger.Level;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Keeps what the test logs, all of it, and what loggers write, up to the limits. */
public final class LogRecorder {

    private final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Texts texts;
    private final LongTexts longTexts;
    private final Failures failures;
    private final Logging limits;
    private final Runnable outsideTests;

    /** Whether it was said that an adapter does not fit. Plain: two threads at once may both say it. */
    private boolean isUnfit;

    /** @param outsideTests called for each line of the test's own calls that belongs to no test */
    public LogRecorder(Parts parts, LongTexts longTexts, Failures failures, Logging limits, Runnable outsideTests) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        this.longTexts = longTexts;
        this.failures = failures;
        this.limits = limits;
        this.outsideTests = outsideTests;
    }

    /** A line of the test itself, as it is. */
    public void log(@Nullable String text) {
        guard.run(Task.LOG_TEXT, this, Texts.text(text), null, LogRecorder::logHere);
    }

    private void logHere(ThreadContext context, String text, @Nullable Void nothing) {
        ScopeNode scope = scopes.current(context);
        write(context, scope, null, longTexts.shown(scope, text));
    }

    /** A line of the test itself, with values for its placeholders. */
    public void log(@Nullable String text, @Nullable Object @Nullable [] values) {
        guard.run(Task.LOG_TEXT, this, Texts.text(text), values, LogRecorder::logWith);
    }

    private void logWith(ThreadContext context, String text, @Nullable Object @Nullable [] values) {
        write(context, null, text, values);
    }

    /** A line of the test itself, of a level. */
    public void log(@Nullable Level level, @Nullable String text, @Nullable Object @Nullable [] values) {
        guard.run(Task.LOG_TEXT, context -> write(context, word(level), Texts.text(text), values));
    }

    private void write(
            ThreadContext context, @Nullable String level, String text, @Nullable Object @Nullable [] values) {
        ScopeNode scope = scopes.current(context);
        write(context, scope, level, longTexts.shown(scope, MessageFormat.of(guard.userCode(), text, values)));
    }

    /** A line in {@code scope}, whatever thread says it. */
    public void log(ScopeNode scope, @Nullable String text) {
        guard.run(Task.LOG_TEXT, context -> write(context, scope, null, longTexts.shown(scope, text)));
    }

    /** A line in {@code scope} that somebody else wrote, whatever thread says it; bounded as those of loggers are. */
    public void log(ScopeNode scope, @Nullable String writer, @Nullable String text) {
        guard.run(Task.LOG_TEXT, context -> {
            if (scope.state.logLines.incrementAndGet() > limits.linesATest()) return;
            journal.append(
                    scope,
                    LogWritten.of(journal.now(), scope.id(), texts.cut(Texts.text(text), limits.charactersALine()))
                            .logger(writer == null ? null : texts.name(writer))
                            .thread(scopes.orphanThread(context.current, scope))
                            .build());
        });
    }

    private void write(ThreadContext context, ScopeNode scope, @Nullable String level, String shown) {
        if (scope == scopes.run()) outsideTests.run();
        String thread = scopes.orphanThread(context.current, scope);
        journal.append(
                scope,
                LogWritten.of(journal.now(), scope.id(), shown)
                        .level(level)
                        .thread(thread)
                        .build());
    }

    /** In the words that loggers use; null where it is none of a line. */
    private static @Nullable String word(@Nullable Level level) {
        if (level == null) return null;
        return switch (level) {
            case TRACE -> "trace";
            case DEBUG -> "debug";
            case INFO -> "info";
            case WARNING -> "warn";
            case ERROR -> "error";
            default -> null;
        };
    }

    /** What a logger wrote. */
    public void keep(LogLine line) {
        guard.run(Task.LOG, this, line, null, LogRecorder::keepLine);
    }

    /** What a logger wrote, of which the line is still to be made. */
    public void keep(Supplier<LogLine> line) {
        guard.run(Task.LOG, this, line, null, LogRecorder::keepMade);
    }

    private void keepMade(ThreadContext context, Supplier<LogLine> line, @Nullable Void nothing) {
        if (line == null) throw new IllegalArgumentException("null was logged");
        keepLine(context, guard.userCode().asked(line, this::unmade), nothing);
    }

    /**
     * In the place of a line that could not be made, for somebody waits for it. Where it is a class or a method of ours that the
     * adapter did not find, all lines after this one are lost too, and that is no matter of one test.
     */
    private LogLine unmade(Throwable broken) {
        String shown = ShownValue.of(broken);
        if (!isUnfit
                && broken instanceof LinkageError
                && (shown.contains("dev.verbale.") || shown.contains("dev/verbale/"))) {
            isUnfit = true;
            journal.problems()
                    .add("The lines of a logger are lost: its adapter does not fit this recorder (" + shown + ")"
                            + OtherVersions.ADVICE);
        }
        return LogLine.of("(a line could not be made: " + shown + ")")
                .level("error")
                .logger("unknown")
                .build();
    }

    private void keepLine(ThreadContext context, LogLine line, @Nullable Void nothing) {
        if (line == null) throw new IllegalArgumentException("null was logged");
        ScopeNode scope = scopes.current(context);
        if (scope.state.logLines.incrementAndGet() > limits.linesATest()) return;
        Failure failure = failures.ofOrNull(scope, line.thrown());
        String thread = line.thread();
        boolean own =
                context.current != null && Thread.currentThread().getName().equals(thread);
        LogWritten event = LogWritten.of(
                        journal.now(), scope.id(), texts.cut(Texts.text(line.text()), limits.charactersALine()))
                .level(line.level())
                .logger(line.logger() == null ? null : texts.name(line.logger()))
                .marker(line.marker() == null ? null : texts.name(line.marker()))
                .thread(own && scope.state.isTest ? null : thread)
                .context(masked(line.context()))
                .failure(failure)
                .build();
        failures.append(scope, event, line.thrown(), failure);
    }

    /** A value like these says nothing of itself, so that only its name tells that it is secret. */
    private Map<String, String> masked(Map<String, String> context) {
        if (context.isEmpty()) return context;
        Map<String, String> masked = new LinkedHashMap<>(context);
        masked.replaceAll(texts::value);
        return masked;
    }

    /** Said once, at the end of a test: its lines are not all there, and why. */
    public void sayWhatWasLeftOut(ScopeNode test) {
        int leftOut = test.state.logLines.get() - limits.linesATest();
        if (leftOut <= 0) return;
        String text = leftOut + " log lines are left out: verbale.log.lines allows " + limits.linesATest() + " a test";
        journal.append(test, LogWritten.text(journal.now(), test.id(), text, null));
    }
}
