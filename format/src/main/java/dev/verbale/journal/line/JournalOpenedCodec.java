package dev.verbale.journal.line;

import dev.verbale.event.JournalOpened;
import dev.verbale.json.WallClockText;
import java.time.Instant;
import java.util.List;

/** Lines of {@link JournalOpened}. */
final class JournalOpenedCodec extends EventCodec<JournalOpened> {

    private final NumberField format = number("format", "the version of the format", 1, Integer.MAX_VALUE, null);
    private final WordField worker = word("worker", "the name of the JVM that writes; also the file's name");
    private final WordField wall = moment("wall", "the wall clock at this moment, ISO 8601 in UTC");
    private final TextField module = optionalText(
            "module",
            "which module of the build that JVM tests, as the path from the build's folder; left out where it has one only");
    private final NumberField pid = number("pid", "the process id of that JVM", 0, Long.MAX_VALUE, null);
    private final WordField verbale = word("verbale", "the version of the recorder");
    private final TextsField libraries = texts(
            "libraries",
            "how the names of classes begin that are not the suite's own: a reader of stack traces passes over them");

    JournalOpenedCodec() {
        super(JournalOpened.class, "journal-opened", "Always the first line, `at` 0.");
    }

    @Override
    void write(JsonLine line, JournalOpened event) {
        format.write(line, event.format());
        worker.write(line, event.worker());
        wall.write(line, WallClockText.of(event.wall()));
        module.write(line, event.module().isEmpty() ? null : event.module());
        pid.write(line, event.pid());
        verbale.write(line, event.verbale());
        libraries.write(line, event.libraries());
    }

    @Override
    JournalOpened read(Fields fields) {
        String its = module.readOrNull(fields);
        return JournalOpened.of(format.readInt(fields), worker.read(fields), WallClockText.read(wall.read(fields)))
                .module(its == null ? "" : its)
                .pid(pid.read(fields))
                .verbale(verbale.read(fields))
                .libraries(libraries.read(fields))
                .build();
    }

    @Override
    public List<JournalOpened> samples() {
        return List.of(
                JournalOpened.of(1, "worker-1", Instant.ofEpochSecond(1_795_516_267, 123_456_000))
                        .module("garden/beds")
                        .pid(42)
                        .verbale("1.0")
                        .libraries(List.of("org.junit."))
                        .build(),
                JournalOpened.of(1, "worker-1", Instant.EPOCH)
                        .pid(42)
                        .verbale("1.0")
                        .build());
    }
}
