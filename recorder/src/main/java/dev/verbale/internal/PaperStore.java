package dev.verbale.internal;

import dev.verbale.folder.FileNames;
import dev.verbale.folder.MediaTypes;
import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Locale;

/**
 * Puts papers into their owner's folder, as {@code 01-rota-before-swap.png}: numbered in the order in which they were
 * taken, so that a person who browses the folder reads them in that order and no two collide.
 */
final class PaperStore {

    private final RunFolder run;

    PaperStore(RunFolder run) {
        this.run = run;
    }

    /** A paper that is on disk. */
    record Stored(String fileInJournal, long size) {}

    /** Copies {@code content} to its end, with constant memory. What a failure leaves behind is removed. */
    Stored keep(Owner owner, String name, String mediaType, InputStream content) throws IOException {
        Path file = newFile(owner, name, mediaType);
        try (OutputStream out = Files.newOutputStream(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            return new Stored(run.nameInJournal(file), content.transferTo(out));
        } catch (IOException cut) {
            try {
                Files.deleteIfExists(file);
            } catch (IOException also) {
                cut.addSuppressed(also);
            }
            throw cut;
        }
    }

    private Path newFile(Owner owner, String name, String mediaType) throws IOException {
        Path folder = owner.folder(this::makeFolder);
        int number = owner.papers.incrementAndGet();
        String extension = FileNames.extension(name);
        String stem = extension.isEmpty() ? name : name.substring(0, name.length() - extension.length());
        if (extension.isEmpty()) extension = MediaTypes.extension(mediaType);
        return folder.resolve(String.format(Locale.ROOT, "%02d-%s%s", number, FileNames.small(stem), extension));
    }

    /** Another attempt, another JVM or a namesake may own the folder that is wanted: then {@code name-2} and so on. */
    private Path makeFolder(Path wanted) throws IOException {
        Path folder = run.path().resolve(wanted.toString());
        Files.createDirectories(folder.getParent());
        for (int number = 2; ; number++) {
            try {
                return Files.createDirectory(folder);
            } catch (FileAlreadyExistsException taken) {
                folder = folder.resolveSibling(wanted.getFileName() + "-" + number);
            }
        }
    }
}
