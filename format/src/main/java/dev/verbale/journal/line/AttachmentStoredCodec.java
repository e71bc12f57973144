package dev.verbale.journal.line;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.vocabulary.AttachmentKind;
import java.util.List;

/** Lines of {@link AttachmentStored}. */
final class AttachmentStoredCodec extends EventCodec<AttachmentStored> {

    private final NumberField in = belongsTo();
    private final TextField name = text("name", "what a reader sees");
    private final TextField kind = text("kind", "see below");
    private final TextField mediaType = text("mediaType", "such as `image/png`");
    private final TextField file = text("file", "a path below the run folder, with forward slashes");
    private final NumberField size = number("size", "in bytes, as stored", 0, Long.MAX_VALUE, null);
    private final WordField sha256 = optionalWord("sha256", "of the stored bytes, in small hexadecimal digits");
    private final NumberField pending = optionalId("pending", "the `attachment-pending` that it completes");
    private final NumberField begins = microsOrZero(
            "begins",
            "where it has a time of its own, such as a video, the microsecond of this journal when that begins");

    private final TextField leftOut = optionalText("leftOut", "why it is not in this copy of the run");

    AttachmentStoredCodec() {
        super(AttachmentStored.class, "attachment", "An attachment was stored.");
    }

    @Override
    void write(JsonLine line, AttachmentStored event) {
        in.write(line, event.in());
        name.write(line, event.name());
        kind.write(line, event.kind());
        mediaType.write(line, event.file().mediaType());
        file.write(line, event.file().path());
        size.write(line, event.file().size());
        sha256.write(line, event.file().sha256());
        pending.write(line, event.pending());
        begins.write(line, event.begins());
        leftOut.write(line, event.file().leftOut());
    }

    @Override
    AttachmentStored read(Fields fields) {
        return new AttachmentStored(
                at(fields),
                in.readInt(fields),
                name.read(fields),
                kind.read(fields),
                new StoredFile(
                        file.read(fields),
                        mediaType.read(fields),
                        size.read(fields),
                        sha256.readOrNull(fields),
                        leftOut.readOrNull(fields)),
                pending.readInt(fields),
                begins.read(fields));
    }

    @Override
    public List<AttachmentStored> samples() {
        return List.of(
                new AttachmentStored(
                        6,
                        3,
                        "rota",
                        AttachmentKind.SCREENSHOT,
                        new StoredFile("tests/a/b/01-rota.png", "image/png", 12, "ab12", "too large"),
                        9,
                        5),
                new AttachmentStored(
                        6,
                        0,
                        "rota",
                        AttachmentKind.ATTACHMENT,
                        new StoredFile("run/01-rota.csv", "text/csv", 12, null),
                        0,
                        0));
    }
}
