package dev.verbale.journal.line;

import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import java.util.List;
import java.util.Map;

/** Lines of {@link LogWritten}. */
final class LogWrittenCodec extends EventCodec<LogWritten> {

    private final NumberField in = belongsTo();
    private final TextField level = optionalText(
            "level",
            "in small letters, such as `warn`, or `out` and `err` for the standard streams; left out where the test itself said none");
    private final TextField logger = optionalText("logger", "its name; left out where the test itself logged");
    private final TextField text = text("text", "");
    private final TextField marker = optionalText("marker", "what it was marked as, several with commas between");
    private final TextField thread = optionalText("thread", "the name of the thread, where it is not the test's own");
    private final TextsByNameField context = textsByName("context", "what the logger knew of its surroundings");
    private final ObjectField<Failure> failure = optionalObject("failure", "", FailureCodec.CODEC);

    LogWrittenCodec() {
        super(LogWritten.class, "log", "A line was logged, by the test itself or by a logger.");
    }

    @Override
    void write(JsonLine line, LogWritten event) {
        in.write(line, event.in());
        level.write(line, event.level());
        logger.write(line, event.logger());
        text.write(line, event.text());
        marker.write(line, event.marker());
        thread.write(line, event.thread());
        context.write(line, event.context());
        failure.write(line, event.failure());
    }

    @Override
    LogWritten read(Fields fields) {
        // in the order in which they are written: fields are found fastest so
        return new LogWritten(
                at(fields),
                in.readInt(fields),
                level.readOrNull(fields),
                logger.readOrNull(fields),
                text.read(fields),
                marker.readOrNull(fields),
                thread.readOrNull(fields),
                context.read(fields),
                failure.readOrNull(fields));
    }

    @Override
    public List<LogWritten> samples() {
        return List.of(
                LogWritten.of(7, 3, "stuck")
                        .level("warn")
                        .logger("dev.orto.Gate")
                        .marker("AUDIT")
                        .thread("pool-1")
                        .context(Map.of("user", "ada"))
                        .failure(FailureCodec.SAMPLE)
                        .build(),
                LogWritten.text(6, 3, "tab\t, quote \", newline \n, NUL \0, U+2028 \u2028, \uD83C\uDF31, ä", null),
                LogWritten.text(6, 0, "", "pool-1"));
    }
}
