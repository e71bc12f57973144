package dev.verbale.internal;

import dev.verbale.event.PaperPromised;
import dev.verbale.recorder.PromisedPaper;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;

/** A promise of a paper, which knows where it belongs however late it is kept. */
final class Promised implements PromisedPaper {

    private final FileRecorder recorder;
    private final ScopeNode scope;
    private final int id;
    private final String name;
    private final String kind;
    private final AtomicBoolean kept = new AtomicBoolean();

    Promised(FileRecorder recorder, ScopeNode scope, int id, String name, String kind) {
        this.recorder = recorder;
        this.scope = scope;
        this.id = id;
        this.name = name;
        this.kind = kind;
    }

    PaperPromised event(long at) {
        return new PaperPromised(at, scope.id(), id, name, kind);
    }

    @Override
    public void keep(InputStream content, String mediaType) {
        recorder.guard.run(Task.PAPER, seat -> {
            if (content == null) throw new IOException("'" + name + "' was kept without content");
            if (keepsNow()) recorder.keep(scope, name, kind, content, mediaType, id, 0);
        });
    }

    @Override
    public void keep(Path file, long begins) {
        recorder.guard.run(Task.PAPER, seat -> {
            if (file == null) throw new IOException("'" + name + "' was kept without a file");
            if (!keepsNow()) return;
            recorder.papers.keepFile(scope, name, kind, file, id, begins);
            Files.delete(file);
        });
    }

    private boolean keepsNow() {
        if (kept.compareAndSet(false, true)) return true;
        recorder.minutes.problems.add("The promised paper '" + name + "' was kept a second time");
        return false;
    }
}
