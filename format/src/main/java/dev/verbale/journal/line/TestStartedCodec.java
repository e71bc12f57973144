package dev.verbale.journal.line;

import dev.verbale.event.TestStarted;
import java.util.List;

/** Lines of {@link TestStarted}. */
final class TestStartedCodec extends EventCodec<TestStarted> {

    private final NumberField id = uniqueId();
    private final NumberField in = belongsTo();
    private final TextField key = key();
    private final TextField name = shownName();
    private final TextField className = className();
    private final TextField methodName = methodName();
    private final TextField thread = text("thread", "the name of the thread it runs on");
    private final TextsField tags = texts("tags", "in the order of the alphabet");
    private final TextField source = source();

    TestStartedCodec() {
        super(TestStarted.class, "test-started", "A test begins, also one that is skipped.");
    }

    @Override
    void write(JsonLine line, TestStarted event) {
        id.write(line, event.id());
        in.write(line, event.in());
        key.write(line, event.key());
        name.write(line, event.name());
        className.write(line, event.className());
        methodName.write(line, event.methodName());
        thread.write(line, event.thread());
        tags.write(line, event.tags());
        source.write(line, event.source());
    }

    @Override
    TestStarted read(Fields fields) {
        return new TestStarted(
                at(fields),
                id.readInt(fields),
                in.readInt(fields),
                key.read(fields),
                name.read(fields),
                className.readOrNull(fields),
                methodName.readOrNull(fields),
                thread.read(fields),
                tags.read(fields),
                source.readOrNull(fields));
    }

    @Override
    public List<TestStarted> samples() {
        return List.of(
                new TestStarted(
                        5,
                        2,
                        1,
                        "k",
                        "swaps \"two\" days",
                        "c",
                        "m",
                        "main",
                        List.of("api", "smoke"),
                        "rota.feature:12"),
                TestStarted.of(5, 2, "k", "n").thread("main").build());
    }
}
