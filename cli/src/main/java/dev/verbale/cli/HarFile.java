package dev.verbale.cli;

import dev.verbale.folder.WholeFile;
import dev.verbale.har.HarWriter;
import dev.verbale.journal.PlainFile;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** The HTTP exchanges of a run as an archive, which may be too large for a terminal. */
final class HarFile {

    private final CommandSpec spec;
    private final @Nullable String test;
    private final boolean overwrite;

    /** @param test only tests whose id holds it; null for all */
    HarFile(CommandSpec spec, @Nullable String test, boolean overwrite) {
        this.spec = spec;
        this.test = test;
        this.overwrite = overwrite;
    }

    /** To {@code output}, or beside the run where that is null. */
    void write(Run read, @Nullable Path output) throws FailureMessages.NotWritten {
        PrintWriter out = spec.commandLine().getOut();
        Path file = output == null ? OpenArchives.beside(read.folder().resolve("exchanges.har")) : output;
        String text = test == null ? "" : test;
        Predicate<TestResult> wanted = one -> one.id().contains(text);
        if (test != null && read.tests().stream().noneMatch(wanted))
            throw new ParameterException(
                    spec.commandLine(), "No test of " + read.name() + " has '" + text + "' in its id.");
        int count;
        try {
            count = write(read, wanted, file);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the archive was not written to " + file, failed);
        }
        if (count == 0)
            out.println("No HTTP exchange was recorded in " + (test == null ? read.name() : "these tests")
                    + ". Nothing was written. How a client is watched: docs/http.md");
        else out.println((count == 1 ? "1 exchange" : count + " exchanges") + ": " + file);
    }

    /** Whole or not at all. */
    private int write(Run read, Predicate<TestResult> wanted, Path file) throws IOException {
        Path target = file.toAbsolutePath().normalize();
        refuseForeign(target);
        var count = new AtomicInteger();
        WholeFile.write(target, fresh -> {
            try (OutputStream out =
                    new BufferedOutputStream(Files.newOutputStream(fresh, StandardOpenOption.CREATE_NEW))) {
                count.set(HarWriter.write(read, wanted, test == null, Version.number(), out));
            }
            return count.get() > 0;
        });
        return count.get();
    }

    /** Only an archive that was written here before is replaced: a wrong name must not cost a journal, or somebody's file. */
    private void refuseForeign(Path target) throws IOException {
        if (overwrite || !Files.exists(target, LinkOption.NOFOLLOW_LINKS)) return;
        if (!PlainFile.isThere(target))
            throw new FileAlreadyExistsException(target.toString(), null, "is no regular file, and is not replaced");
        String beginning;
        try (InputStream in = PlainFile.open(target)) {
            beginning = new String(in.readNBytes(1_000), StandardCharsets.UTF_8);
        }
        if (!beginning.replaceAll("\\s", "").matches("(?s)\\{\"log\":.*\"creator\":\\{\"name\":\"Verbale\".*"))
            throw new FileAlreadyExistsException(
                    target.toString(), null, "is no archive that Verbale wrote, and is not replaced");
    }
}
