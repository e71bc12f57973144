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
        pid.write(line, event.pid());
        verbale.write(line, event.verbale());
        libraries.write(line, event.libraries());
    }

    @Override
    JournalOpened read(Fields fields) {
        return new JournalOpened(
                format.readInt(fields),
                worker.read(fields),
                WallClockText.read(wall.read(fields)),
                pid.read(fields),
                verbale.read(fields),
                libraries.read(fields));
    }

    @Override
    public List<JournalOpened> samples() {
        return List.of(
                new JournalOpened(
                        1,
                        "worker-1",
                        Instant.ofEpochSecond(1_795_516_267, 123_456_000),
                        42,
                        "1.0",
                        List.of("org.junit.")),
                new JournalOpened(1, "worker-1", Instant.EPOCH, 42, "1.0", List.of()));
    }
}
