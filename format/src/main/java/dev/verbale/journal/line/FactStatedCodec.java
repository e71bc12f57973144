package dev.verbale.journal.line;

import dev.verbale.event.FactStated;
import java.util.List;

/** Lines of {@link FactStated}. */
final class FactStatedCodec extends EventCodec<FactStated> {

    private final TextField name = text("name", "");
    private final TextField value = text("value", "");

    FactStatedCodec() {
        super(
                FactStated.class,
                "fact",
                "Something true of the whole run. A later value for the same name replaces an earlier one.");
    }

    @Override
    void write(JsonLine line, FactStated event) {
        name.write(line, event.name());
        value.write(line, event.value());
    }

    @Override
    FactStated read(Fields fields) {
        return new FactStated(at(fields), name.read(fields), value.read(fields));
    }

    @Override
    public List<FactStated> samples() {
        return List.of(new FactStated(6, "browser", "Chromium"));
    }
}
