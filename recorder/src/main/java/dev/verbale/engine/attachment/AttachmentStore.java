package dev.verbale.engine.attachment;

import dev.verbale.engine.journal.Problems;
import dev.verbale.engine.scope.ScopeState;
import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.folder.FileNames;
import dev.verbale.folder.MediaTypes;
import dev.verbale.folder.RunFolder;
import dev.verbale.secrets.Redactor;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;

/**
 * Puts attachments into the folder of their test, as {@code 01-rota-before-swap.png}: numbered in the order in which they were
 * kept, so that a person who browses the folder reads them in that order and no two collide. Text is masked on its way.
 */
public final class AttachmentStore {

    private final RunFolder run;
    private final Redactor redactor;
    private final Problems problems;

    public AttachmentStore(RunFolder run, Redactor redactor, Problems problems) {
        this.run = run;
        this.redactor = redactor;
        this.problems = problems;
    }

    /** Copies {@code content} to its end, with constant memory. What a failure leaves behind is removed. */
    public StoredFile keep(ScopeState state, String name, String mediaType, InputStream content) throws IOException {
        var known = new TypedContent(content, mediaType);
        Path file = newFile(state, name, known.mediaType());
        MessageDigest digest = sha256();
        boolean whole = false;
        String problem = null;
        try (OutputStream out = Files.newOutputStream(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                var digested = new DigestOutputStream(out, digest)) {
            if (known.mediaType().equals(MediaTypes.HTTP_ARCHIVE) && known.isObject())
                problem = MaskedArchive.copy(known.stream(), digested, redactor);
            else if (known.isText()) MaskedCopy.copy(known.stream(), digested, redactor);
            else known.stream().transferTo(digested);
            if (known.mediaType().equals(MediaTypes.HTTP_ARCHIVE) && !known.isObject())
                problem = "is no JSON, and was kept as it is but for its secrets";
            whole = true;
        } finally {
            if (!whole) Files.deleteIfExists(file); // whatever it was that ended it
        }
        if (problem != null) problems.add("the archive '" + name + "' " + problem);
        return new StoredFile(
                run.nameInJournal(file),
                known.mediaType(),
                Files.size(file),
                HexFormat.of().formatHex(digest.digest()));
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("every Java platform has SHA-256", impossible);
        }
    }

    private Path newFile(ScopeState state, String name, String mediaType) throws IOException {
        Path folder = state.folder(this::makeFolder);
        int number = state.attachments.incrementAndGet();
        String shown = redactor.redacted(name);
        String extension = FileNames.extension(shown);
        String stem = extension.isEmpty() ? shown : shown.substring(0, shown.length() - extension.length());
        if (extension.isEmpty()) extension = MediaTypes.extension(mediaType);
        String prefix = number < 10 ? "0" + number : String.valueOf(number);
        return named(folder, prefix + "-" + FileNames.small(stem) + extension);
    }

    /** A JVM that was started for plain English cannot name a file otherwise; the event has the true name. */
    private static Path named(Path folder, String name) {
        try {
            return folder.resolve(name);
        } catch (InvalidPathException unnameable) {
            return folder.resolve(FileNames.ascii(name));
        }
    }

    /** Another attempt, another JVM or a namesake may own the folder that is wanted: then {@code name-2} and so on. */
    private Path makeFolder(List<String> wanted) throws IOException {
        Path folder = run.path();
        for (String name : wanted) folder = named(folder, name);
        Files.createDirectories(folder.getParent());
        String last = String.valueOf(folder.getFileName());
        for (int number = 2; ; number++) {
            try {
                return Files.createDirectory(folder);
            } catch (FileAlreadyExistsException taken) {
                folder = folder.resolveSibling(last + "-" + number);
            }
        }
    }
}
