package dev.verbale.journal.line;

import dev.verbale.event.AttachmentPending;
import java.util.List;

/** Lines of {@link AttachmentPending}. */
final class AttachmentPendingCodec extends EventCodec<AttachmentPending> {

    private final NumberField in = belongsTo();
    private final NumberField id = uniqueId();
    private final TextField name = text("name", "what a reader sees");
    private final TextField kind = text("kind", "see below");

    AttachmentPendingCodec() {
        super(AttachmentPending.class, "attachment-pending", "An attachment comes later.");
    }

    @Override
    void write(JsonLine line, AttachmentPending event) {
        in.write(line, event.in());
        id.write(line, event.id());
        name.write(line, event.name());
        kind.write(line, event.kind());
    }

    @Override
    AttachmentPending read(Fields fields) {
        return new AttachmentPending(
                at(fields), in.readInt(fields), id.readInt(fields), name.read(fields), kind.read(fields));
    }

    @Override
    public List<AttachmentPending> samples() {
        return List.of(
                new AttachmentPending(7, 3, 9, "video", "video"),
                new AttachmentPending(7, 0, 9, "video", "attachment"));
    }
}
