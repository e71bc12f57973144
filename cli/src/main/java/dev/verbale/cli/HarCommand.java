package dev.verbale.cli;

import dev.verbale.har.HarWriter;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.concurrent.Callable;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Writes the HTTP exchanges of a run as an archive. */
@Command(
        name = "har",
        description = "Writes the HTTP exchanges of a run as an archive (HAR 1.2), which browsers and proxies read.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale har",
            "  verbale har --test SeedsApiTest --to seeds.har",
        })
final class HarCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--test",
            paramLabel = "TEXT",
            description = "Only tests whose address holds TEXT: a class, a method, or all of it.")
    private @Nullable String test;

    @Option(
            names = "--to",
            paramLabel = "FILE",
            description = "Where to write it. Left out: exchanges.har, in the run's folder.")
    private @Nullable Path to;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        Run read = run.read();
        Path file = to == null ? read.folder().resolve("exchanges.har") : to;
        String text = test == null ? "" : test;
        Predicate<TestResult> wanted = one -> one.address().contains(text);
        if (read.tests().stream().noneMatch(wanted))
            throw new ParameterException(
                    spec.commandLine(), "No test of " + read.name() + " has '" + text + "' in its address.");
        int count;
        try {
            count = write(read, wanted, file);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the archive was not written to " + file, failed);
        }
        out.println((count == 1 ? "1 exchange" : count + " exchanges") + ": " + file);
        return ExitCodes.DONE;
    }

    /** Whole or not at all. */
    private int write(Run read, Predicate<TestResult> wanted, Path file) throws IOException {
        Path folder = file.toAbsolutePath().getParent();
        if (folder != null) Files.createDirectories(folder);
        Path fresh = Files.createTempFile(folder, ".verbale-", ".har");
        try {
            int count;
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(fresh))) {
                count = HarWriter.write(read, wanted, test == null, VerbaleCommand.Version.number(), out);
            }
            Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING);
            return count;
        } finally {
            Files.deleteIfExists(fresh);
        }
    }
}
