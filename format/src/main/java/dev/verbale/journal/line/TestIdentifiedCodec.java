package dev.verbale.journal.line;

import dev.verbale.event.TestIdentified;
import java.util.List;

/** Lines of {@link TestIdentified}. */
final class TestIdentifiedCodec extends EventCodec<TestIdentified> {

    private final NumberField id = id("id", "of the test");
    private final TextField key = key();
    private final TextField name = shownName();

    TestIdentifiedCodec() {
        super(
                TestIdentified.class,
                "test-identified",
                "Which test it is became known after it began, such as which of its rows of data: what stands here replaces what"
                        + " `test-started` says.");
    }

    @Override
    void write(JsonLine line, TestIdentified event) {
        id.write(line, event.id());
        key.write(line, event.key());
        name.write(line, event.name());
    }

    @Override
    TestIdentified read(Fields fields) {
        return new TestIdentified(at(fields), id.readInt(fields), key.read(fields), name.read(fields));
    }

    @Override
    public List<TestIdentified> samples() {
        return List.of(new TestIdentified(6, 2, "k#2", "swaps [2] Basil"));
    }
}
