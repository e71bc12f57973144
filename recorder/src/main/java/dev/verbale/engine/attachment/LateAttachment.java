package dev.verbale.engine.attachment;

import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.Problems;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;

/** An attachment that is still to come, which knows where it belongs however late it is completed. */
final class LateAttachment implements PendingAttachment {

    private final Attachments attachments;
    private final Guard guard;
    private final Problems problems;
    private final Attached attached;
    private final int id;
    private final AtomicBoolean completed = new AtomicBoolean();

    LateAttachment(Attachments attachments, Guard guard, Problems problems, Attached attached, int id) {
        this.attachments = attachments;
        this.guard = guard;
        this.problems = problems;
        this.attached = attached;
        this.id = id;
    }

    @Override
    public void complete(InputStream content, MediaType type) {
        guard.run(Task.ATTACHMENT, context -> {
            if (content == null) throw new IOException("'" + attached.name() + "' was completed without content");
            if (completesNow()) attachments.keep(attached, content, Attachments.value(type), id, 0);
        });
    }

    @Override
    public void complete(Path file, long begins) {
        guard.run(Task.ATTACHMENT, context -> {
            if (file == null) throw new IOException("'" + attached.name() + "' was completed without a file");
            if (!completesNow()) return;
            attachments.keepFile(attached, file, id, begins);
            Files.delete(file);
        });
    }

    private boolean completesNow() {
        if (completed.compareAndSet(false, true)) return true;
        problems.add("The pending attachment '" + attached.name() + "' was completed a second time");
        return false;
    }
}
