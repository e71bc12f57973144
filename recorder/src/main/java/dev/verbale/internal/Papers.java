package dev.verbale.internal;

import dev.verbale.event.PaperKept;
import dev.verbale.folder.MediaTypes;
import dev.verbale.recorder.ContentSource;
import dev.verbale.recorder.PromisedPaper;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Keeps papers, and says of each where it is. */
final class Papers {

    /** Of a folder that is attached; somebody may name the wrong one. */
    private static final int MOST_OF_A_FOLDER = 1_000;

    private final FileRecorder recorder;
    private final PaperStore store;
    private final LargeArchives archives;

    Papers(FileRecorder recorder, PaperStore store) {
        this.recorder = recorder;
        this.store = store;
        this.archives = new LargeArchives(recorder);
    }

    void attach(@Nullable String name, byte @Nullable [] content, @Nullable String mediaType) {
        if (content != null && LargeArchives.takes(mediaType, content.length))
            archives.keep(name, content::clone, content.length);
        else attach(name, () -> content == null ? null : new ByteArrayInputStream(content), mediaType);
    }

    void attach(@Nullable String name, @Nullable ContentSource content, @Nullable String mediaType) {
        recorder.guard.run(Task.PAPER, seat -> {
            ScopeNode here = recorder.here(seat);
            InputStream opened = opened(content);
            keepNamed(here, name, PaperKept.ATTACHMENT, opened, mediaType, 0, 0);
        });
    }

    private @Nullable InputStream opened(@Nullable ContentSource content) throws IOException {
        if (content == null) return null;
        var failed = new AtomicReference<@Nullable Throwable>();
        InputStream opened = recorder.guard.foreign.<@Nullable InputStream>asked(
                () -> {
                    try {
                        return content.open();
                    } catch (Exception broken) {
                        failed.set(broken);
                        return null;
                    }
                },
                broken -> {
                    failed.set(broken);
                    return null;
                });
        Throwable broken = failed.get();
        if (broken != null) throw new IOException("it could not be opened: " + NoteText.shown(broken), broken);
        return opened;
    }

    /** With the name in what goes wrong: of several papers somebody has to know which. */
    private void keepNamed(
            ScopeNode scope,
            @Nullable String name,
            @Nullable String kind,
            @Nullable InputStream content,
            @Nullable String mediaType,
            int promise,
            long begins)
            throws IOException {
        String shown = recorder.name(name);
        if (content == null) throw new IOException("'" + shown + "' was attached without content");
        try {
            keep(scope, shown, kind == null ? PaperKept.ATTACHMENT : kind, content, mediaType, promise, begins);
        } catch (IOException broken) {
            throw new IOException("'" + shown + "' (" + NoteText.shown(broken) + ")", broken);
        }
    }

    void attach(@Nullable Path file, boolean move) {
        if (file != null && isLargeArchive(file)) {
            archives.keep(String.valueOf(file.getFileName()), () -> Files.readAllBytes(file), sizeOf(file));
            if (move) recorder.guard.run(Task.PAPER, seat -> Files.delete(file));
            return;
        }
        recorder.guard.run(Task.PAPER, seat -> {
            if (file == null) throw new IOException("null was attached");
            ScopeNode here = recorder.here(seat);
            if (Files.isDirectory(file)) {
                keepFolder(here, file, move);
                return;
            }
            keepFile(here, String.valueOf(file.getFileName()), PaperKept.ATTACHMENT, file, 0, 0);
            if (move) Files.delete(file);
        });
    }

    private boolean isLargeArchive(Path file) {
        return recorder.guard.foreign.asked(
                () -> Files.isRegularFile(file)
                        && LargeArchives.takes(MediaTypes.ofFile(String.valueOf(file.getFileName())), sizeOf(file)),
                broken -> false);
    }

    private static long sizeOf(Path file) {
        try {
            return Files.size(file);
        } catch (IOException unreadable) {
            return 0; // whoever reads it is about to say so
        }
    }

    /** Waits for what is still masked. */
    void finish() {
        archives.finish();
    }

    /** Every file in it under its path in there. */
    private void keepFolder(ScopeNode scope, Path folder, boolean move) throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.walk(folder)) {
            files = all.filter(Files::isRegularFile)
                    .sorted()
                    .limit(MOST_OF_A_FOLDER + 1L)
                    .toList();
        }
        if (files.size() > MOST_OF_A_FOLDER)
            recorder.minutes.problems.add(
                    "attaching: of the folder " + folder + " only the first " + MOST_OF_A_FOLDER + " files are kept");
        for (Path file : files.subList(0, Math.min(MOST_OF_A_FOLDER, files.size()))) {
            String name = folder.getFileName() + "/"
                    + folder.relativize(file).toString().replace('\\', '/');
            keepFile(scope, name, PaperKept.ATTACHMENT, file, 0, 0);
            if (move) Files.delete(file);
        }
    }

    void paper(
            ScopeNode scope,
            @Nullable String name,
            @Nullable String kind,
            @Nullable InputStream content,
            @Nullable String mediaType,
            long begins) {
        recorder.guard.run(Task.PAPER, seat -> keepNamed(scope, name, kind, content, mediaType, 0, begins));
    }

    /** In the scope of this thread where {@code scope} is null. */
    PromisedPaper promise(@Nullable ScopeNode scope, @Nullable String name, @Nullable String kind) {
        return recorder.guard.get(Task.PROMISE, DisabledRecorder.NO_PROMISE, seat -> {
            ScopeNode owner = scope == null ? recorder.here(seat) : scope;
            var promised = new Promised(
                    recorder,
                    owner,
                    recorder.ids.incrementAndGet(),
                    recorder.name(name),
                    kind == null ? PaperKept.ATTACHMENT : kind);
            recorder.minutes.append(owner, promised.event(recorder.minutes.clock.micros()));
            return promised;
        });
    }

    /** Stores something that an event names, and gives the name. */
    String store(ScopeNode scope, String name, InputStream content, String mediaType) throws IOException {
        return store.keep(scope.owner, recorder.name(name), mediaType, content).fileInJournal();
    }

    void keepFile(ScopeNode scope, String name, String kind, Path file, int promise, long begins) throws IOException {
        try (InputStream content = Files.newInputStream(file)) {
            String type = MediaTypes.ofFile(String.valueOf(file.getFileName()));
            keep(scope, recorder.name(name), kind, content, type, promise, begins);
        }
    }

    void keep(
            ScopeNode scope,
            String name,
            String kind,
            InputStream content,
            @Nullable String mediaType,
            int promise,
            long begins)
            throws IOException {
        long at = recorder.minutes.clock.micros(); // the moment it was taken; a large one takes a while to store
        PaperStore.Stored stored = store.keep(
                scope.owner, name, mediaType == null ? "" : mediaType, recorder.guard.foreign.stream(content));
        recorder.minutes.append(
                scope,
                new PaperKept(
                        at,
                        scope.id(),
                        name,
                        kind,
                        stored.mediaType(),
                        stored.fileInJournal(),
                        stored.size(),
                        stored.sha256(),
                        promise,
                        Math.max(0, begins)));
    }
}
