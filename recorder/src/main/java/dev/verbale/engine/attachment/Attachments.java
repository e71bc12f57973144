package dev.verbale.engine.attachment;

import dev.verbale.ContentSource;
import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.border.ShownValue;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.AttachmentPending;
import dev.verbale.event.AttachmentStored;
import dev.verbale.folder.MediaTypes;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Keeps attachments, and says of each where it is. */
public final class Attachments {

    /** Of a folder that is attached; somebody may name the wrong one. */
    private static final int MAX_OF_A_FOLDER = 1_000;

    private final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Texts texts;
    private final AttachmentStore store;
    private final LargeArchives archives;

    public Attachments(Parts parts, AttachmentStore store) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        this.store = store;
        this.archives = new LargeArchives(guard, journal.problems());
    }

    public void attach(@Nullable String name, byte @Nullable [] content, @Nullable MediaType type) {
        if (!guard.isReady(Task.ATTACHMENT)) return;
        if (content != null && LargeArchives.takes(value(type), content.length))
            archives.keep(texts.name(name), content::clone, content.length, () -> attachLater(null, name, null));
        else attach(name, () -> content == null ? null : new ByteArrayInputStream(content), type);
    }

    public void attach(@Nullable String name, @Nullable ContentSource content, @Nullable MediaType type) {
        guard.run(Task.ATTACHMENT, context -> {
            ScopeNode scope = scopes.current(context);
            InputStream opened = opened(content);
            keepNamed(attached(scope, name, AttachmentKind.ATTACHMENT), opened, type, 0);
        });
    }

    /** To {@code scope}, which may have ended. */
    public void attach(
            ScopeNode scope,
            @Nullable String name,
            @Nullable String kind,
            @Nullable InputStream content,
            @Nullable MediaType type,
            long begins) {
        guard.run(Task.ATTACHMENT, context -> keepNamed(attached(scope, name, kind), content, type, begins));
    }

    static String value(@Nullable MediaType type) {
        return type == null ? "" : type.value();
    }

    private Attached attached(ScopeNode scope, @Nullable String name, @Nullable String kind) {
        return new Attached(scope, texts.name(name), kind == null ? AttachmentKind.ATTACHMENT : kind);
    }

    private @Nullable InputStream opened(@Nullable ContentSource content) throws IOException {
        if (content == null) return null;
        var failed = new AtomicReference<@Nullable Throwable>();
        InputStream opened = guard.userCode()
                .<@Nullable InputStream>asked(
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
        if (broken != null) throw new IOException("it could not be opened: " + ShownValue.of(broken), broken);
        return opened;
    }

    /** With the name in what goes wrong: of several attachments somebody has to know which. */
    private void keepNamed(Attached attached, @Nullable InputStream content, @Nullable MediaType type, long begins)
            throws IOException {
        if (content == null) throw new IOException("'" + attached.name() + "' was attached without content");
        try {
            keep(attached, content, value(type), 0, begins);
        } catch (IOException broken) {
            throw new IOException("'" + attached.name() + "' (" + ShownValue.of(broken) + ")", broken);
        }
    }

    public void attach(@Nullable Path file, boolean move) {
        if (!guard.isReady(Task.ATTACHMENT)) return;
        if (file != null && isLargeArchive(file)) {
            String name = String.valueOf(file.getFileName());
            archives.keep(
                    texts.name(name),
                    () -> Files.readAllBytes(file),
                    sizeOf(file),
                    () -> attachLater(null, name, null));
            if (move) guard.run(Task.ATTACHMENT, context -> Files.delete(file));
            return;
        }
        guard.run(Task.ATTACHMENT, context -> {
            if (file == null) throw new IOException("null was attached");
            ScopeNode scope = scopes.current(context);
            if (Files.isDirectory(file)) {
                keepFolder(scope, file, move);
                return;
            }
            keepFile(attached(scope, String.valueOf(file.getFileName()), null), file, 0, 0);
            if (move) Files.delete(file);
        });
    }

    private boolean isLargeArchive(Path file) {
        return guard.userCode()
                .asked(
                        () -> Files.isRegularFile(file)
                                && LargeArchives.takes(
                                        MediaTypes.ofFile(String.valueOf(file.getFileName())), sizeOf(file)),
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
    public void finish() {
        archives.finish();
    }

    /** Every file in it under its path in there. */
    private void keepFolder(ScopeNode scope, Path folder, boolean move) throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.walk(folder)) {
            files = all.filter(Files::isRegularFile)
                    .sorted()
                    .limit(MAX_OF_A_FOLDER + 1L)
                    .toList();
        }
        if (files.size() > MAX_OF_A_FOLDER)
            journal.problems()
                    .add("attaching: of the folder " + folder + " only the first " + MAX_OF_A_FOLDER
                            + " files are kept");
        for (Path file : files.subList(0, Math.min(MAX_OF_A_FOLDER, files.size()))) {
            String name = folder.getFileName() + "/"
                    + folder.relativize(file).toString().replace('\\', '/');
            keepFile(attached(scope, name, null), file, 0, 0);
            if (move) Files.delete(file);
        }
    }

    /** In the scope of this thread where {@code scope} is null. */
    public PendingAttachment attachLater(@Nullable ScopeNode scope, @Nullable String name, @Nullable String kind) {
        return guard.get(Task.PENDING, PendingAttachment.NONE, context -> {
            Attached attached = attached(scope == null ? scopes.current(context) : scope, name, kind);
            int id = scopes.nextId();
            ScopeNode owner = attached.scope();
            journal.append(
                    owner, new AttachmentPending(journal.now(), owner.id(), id, attached.name(), attached.kind()));
            return new LateAttachment(this, guard, journal.problems(), attached, id);
        });
    }

    /** Stores something that an event names, and gives the path by which it does. */
    public String store(ScopeNode scope, String name, InputStream content, String mediaType) throws IOException {
        return store.keep(scope.state, texts.name(name), mediaType, content).path();
    }

    void keepFile(Attached attached, Path file, int pending, long begins) throws IOException {
        try (InputStream content = Files.newInputStream(file)) {
            keep(attached, content, MediaTypes.ofFile(String.valueOf(file.getFileName())), pending, begins);
        }
    }

    void keep(Attached attached, InputStream content, String mediaType, int pending, long begins) throws IOException {
        long at = journal.now(); // the moment it was captured; a large one takes a while to store
        ScopeNode scope = attached.scope();
        AttachmentStored.StoredFile stored =
                store.keep(scope.state, attached.name(), mediaType, guard.userCode().stream(content));
        journal.append(
                scope,
                new AttachmentStored(
                        at, scope.id(), attached.name(), attached.kind(), stored, pending, Math.max(0, begins)));
    }
}
