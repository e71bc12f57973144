package dev.verbale.journal.line;

import dev.verbale.event.StepStarted;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Lines of {@link StepStarted}. */
final class StepStartedCodec extends EventCodec<StepStarted> {

    private final NumberField id = uniqueId();
    private final NumberField in = belongsTo();
    private final WordField kind =
            optionalWord("kind", "`set-up`, `tear-down` or `browser`; left out for an ordinary step");
    private final TextField name = text("name", "what a reader sees");
    private final TextField thread =
            optionalText("thread", "the name of the thread, where it is not that of the test it belongs to");
    private final ObjectField<StepArgument> argument = optionalObject("argument", "", StepArgumentCodec.CODEC);

    StepStartedCodec() {
        super(
                StepStarted.class,
                "step-started",
                "A step begins. The name of a `browser` step has names between asterisks, and may end in a locator in brackets: `click *Swap* [#swap button]`.");
    }

    @Override
    void write(JsonLine line, StepStarted event) {
        id.write(line, event.id());
        in.write(line, event.in());
        kind.write(
                line, event.kind().equals(StepKind.ACTION) ? null : event.kind().word());
        name.write(line, event.name());
        thread.write(line, event.thread());
        argument.write(line, event.argument());
    }

    @Override
    StepStarted read(Fields fields) {
        return new StepStarted(
                at(fields),
                id.readInt(fields),
                in.readInt(fields),
                kindOf(kind.readOrNull(fields)),
                name.read(fields),
                thread.readOrNull(fields),
                argument.readOrNull(fields));
    }

    @Override
    public List<StepStarted> samples() {
        return List.of(
                new StepStarted(6, 3, 2, StepKind.SET_UP, "open", "pool-1", StepArgumentCodec.SAMPLE),
                StepStarted.of(6, 3, StepKind.ACTION, "open").build());
    }

    private static StepKind kindOf(@Nullable String word) {
        return word == null ? StepKind.ACTION : new StepKind(word);
    }
}
