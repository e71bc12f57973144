package dev.verbale.journal.line;

import dev.verbale.event.ContainerStarted;
import java.util.List;

/** Lines of {@link ContainerStarted}. */
final class ContainerStartedCodec extends EventCodec<ContainerStarted> {

    private final NumberField id = uniqueId();
    private final NumberField in = belongsTo();
    private final TextField key = key();
    private final TextField name = shownName();
    private final TextField className = className();
    private final TextField methodName = methodName();

    ContainerStartedCodec() {
        super(ContainerStarted.class, "container-started", "A class or a method that holds tests begins.");
    }

    @Override
    void write(JsonLine line, ContainerStarted event) {
        id.write(line, event.id());
        in.write(line, event.in());
        key.write(line, event.key());
        name.write(line, event.name());
        className.write(line, event.className());
        methodName.write(line, event.methodName());
    }

    @Override
    ContainerStarted read(Fields fields) {
        return new ContainerStarted(
                at(fields),
                id.readInt(fields),
                in.readInt(fields),
                key.read(fields),
                name.read(fields),
                className.readOrNull(fields),
                methodName.readOrNull(fields));
    }

    @Override
    public List<ContainerStarted> samples() {
        return List.of(
                new ContainerStarted(5, 2, 1, "dev.orto.RotaTest.swaps(int)", "swaps", "dev.orto.RotaTest", "swaps"),
                new ContainerStarted(5, 1, 0, "dev.orto.RotaTest", "Rota", null, null));
    }
}
