package dev.verbale.cli;

import dev.verbale.folder.FolderTree;
import dev.verbale.folder.RunFolder;
import dev.verbale.packing.PackOptions;
import dev.verbale.packing.RunPacker;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.results.RunReader;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Set;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** One file of a run. */
@Command(
        name = "pack",
        description = "Makes one file of a run, to keep or to hand on; every command reads it as it is.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale pack --to tonight.zip",
            "  verbale pack --failures-only --without video,bodies --to tonight.zip",
            "  verbale failures tonight.zip"
        })
final class PackCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(names = "--to", paramLabel = "FILE.zip", required = true, description = "The file; none may be there")
    private Path target = Path.of("");

    @Option(names = "--overwrite", description = "Replaces a file that is there")
    private boolean overwrite;

    @Option(names = "--page", description = "The run's page instead, for who only wants to look")
    private boolean page;

    @Option(names = "--failures-only", description = "Of tests that need no attention only their end")
    private boolean failuresOnly;

    @Option(
            names = "--without",
            paramLabel = "PARTS",
            split = ",",
            description = {
                "Without video, screenshot, bodies, logs, ...",
                "Some of: video, frames, screenshot, page-source, console, network, attachment, bodies, logs."
            })
    private Set<String> without = Set.of();

    @Option(
            names = "--max-size",
            paramLabel = "SIZE",
            description = {
                "Such as 20MB: leaves out until it fits",
                "Attachments are left out: those of tests that passed first, then videos, screenshots last, older ones before newer ones."
            })
    private @Nullable String maxSize;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PackOptions options = options();
        if (page && !options.equals(PackOptions.WHOLE))
            throw wrong("--page is the whole page. What is to be left out of it is said by: verbale page --leave-out");
        if (!target.toString().endsWith(".zip"))
            throw wrong("--to takes a file whose name ends in .zip, by which commands know it, not " + target);
        RunFolder folder = RunReader.find(run.path());
        RunPacker.Packed packed;
        try {
            if (!overwrite && Files.exists(target, LinkOption.NOFOLLOW_LINKS))
                throw new FileAlreadyExistsException(
                        target.toString(), null, "it is there already. Name another file, or add --overwrite");
            packed = page ? packPage(folder) : RunPacker.pack(folder, target, options);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("nothing was packed to " + target, failed);
        }
        spec.commandLine()
                .getOut()
                .println("Packed: " + packed.file() + ", " + packed.files()
                        + (packed.files() == 1 ? " file, " : " files, ") + SizeText.of(packed.bytes()));
        if (!packed.leftOut().isEmpty()) spec.commandLine().getOut().println("Left out: " + packed.leftOut());
        return ExitCodes.DONE;
    }

    private RunPacker.Packed packPage(RunFolder folder) throws IOException {
        Path work = Files.createTempDirectory("verbale-pack");
        try {
            Path fresh = work.resolve("page");
            Page.write(folder, fresh, PageOptions.PLAIN, any -> true);
            return RunPacker.packPage(folder, fresh, target);
        } finally {
            FolderTree.delete(work);
        }
    }

    private PackOptions options() {
        try {
            PackOptions options =
                    PackOptions.WHOLE.withFailuresOnly(failuresOnly).withWithout(without);
            return maxSize == null
                    ? options
                    : options.withMaxBytes(SizeText.bytes(maxSize)
                            .orElseThrow(() -> wrong("--max-size takes a size such as 20MB, not '" + maxSize + "'")));
        } catch (IllegalArgumentException refused) {
            throw wrong(String.valueOf(refused.getMessage()));
        }
    }

    private ParameterException wrong(String why) {
        return new ParameterException(spec.commandLine(), why);
    }
}
