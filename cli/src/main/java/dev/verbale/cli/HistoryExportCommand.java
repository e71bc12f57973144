package dev.verbale.cli;

import dev.verbale.lake.AnyLake;
import dev.verbale.lake.Lake;
import dev.verbale.lake.LakeRun;
import dev.verbale.results.Problem;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What is remembered, for engines that others run. */
@Command(
        name = "export",
        description = {
            "Writes what is remembered as Parquet files, a lake.",
            "Any engine reads them, by project and day: docs/lake.md. What is there already is passed over. Of runs whose folders are named, all attempts and exchanges are written."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale history export --to lake --project orto",
            "  verbale runs query --lake lake \"select count(*) from tests\""
        })
final class HistoryExportCommand implements Callable<Integer> {

    @Parameters(arity = "0..*", paramLabel = "RUN", description = "Runs; left out, all that is remembered")
    private List<Path> runs = new ArrayList<>();

    @Option(
            names = "--to",
            paramLabel = "LAKE",
            required = true,
            description = "Where it is: a folder, or s3://BUCKET/PREFIX")
    private String lake = "";

    @Option(
            names = "--project",
            paramLabel = "NAME",
            required = true,
            defaultValue = "${env:VERBALE_HUB_PROJECT}",
            description = {
                "Whose runs they are",
                "Left out, what VERBALE_HUB_PROJECT says. Letters, digits, '.', '_' and '-'."
            })
    private String project = "";

    @Option(names = "--format", paramLabel = "FORMAT", defaultValue = "parquet", description = "parquet, the only one")
    private String format = "";

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    /** What of the history could not be read: the lake lacks it. */
    private final List<Problem> problems = new ArrayList<>();

    @Override
    public Integer call() throws Exception {
        if (!format.equals("parquet"))
            throw new ParameterException(spec.commandLine(), "--format is parquet, not '" + format + "'");
        Lake.Added added;
        try (NamedLake named = NamedLake.of(lake)) {
            added = added(named.lake());
        } catch (IllegalArgumentException wrong) {
            throw new ParameterException(spec.commandLine(), String.valueOf(wrong.getMessage()));
        } catch (UncheckedIOException unread) {
            throw Objects.requireNonNull(unread.getCause());
        }
        spec.commandLine()
                .getOut()
                .println((added.runs() == 1 ? "1 run" : added.runs() + " runs") + " of " + project + " came in, "
                        + added.present() + " were there: " + added.files() + " files, " + SizeText.of(added.bytes()));
        return problems.isEmpty() ? ExitCodes.DONE : ExitCodes.NO_RUN;
    }

    private Lake.Added added(AnyLake target) throws IOException, FailureMessages.NotWritten {
        if (runs.isEmpty()) history.refuseEmpty();
        try {
            if (!runs.isEmpty())
                return target.add(project, runs.stream().map(this::whole).iterator());
            Lake.Added added = target.addRemembered(project, history.folder(), problems::add);
            history.list(problems, spec.commandLine().getErr());
            return added;
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("nothing more came into the lake", failed);
        }
    }

    private LakeRun whole(Path named) {
        try {
            return LakeRun.of(HistoryCommand.readWhole(named));
        } catch (IOException unread) {
            throw new UncheckedIOException(unread);
        }
    }
}
