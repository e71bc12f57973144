package dev.verbale.journal.line;

import dev.verbale.event.DataNamed;
import java.util.List;

/** Lines of {@link DataNamed}. */
final class DataNamedCodec extends EventCodec<DataNamed> {

    private final NumberField in = belongsTo();
    private final TextField name = text("name", "");
    private final TextField value = text("value", "");

    DataNamedCodec() {
        super(DataNamed.class, "data", "A value that a test works with was named.");
    }

    @Override
    void write(JsonLine line, DataNamed event) {
        in.write(line, event.in());
        name.write(line, event.name());
        value.write(line, event.value());
    }

    @Override
    DataNamed read(Fields fields) {
        return new DataNamed(at(fields), in.readInt(fields), name.read(fields), value.read(fields));
    }

    @Override
    public List<DataNamed> samples() {
        return List.of(new DataNamed(6, 2, "plot", "12"), new DataNamed(6, 0, "plot", ""));
    }
}
