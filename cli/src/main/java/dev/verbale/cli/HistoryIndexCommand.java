package dev.verbale.cli;

import dev.verbale.query.RunTables;
import dev.verbale.results.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Brings what is remembered into a team's database. */
@Command(
        name = "index",
        description = {
            "Brings what is remembered into a PostgreSQL database.",
            "There all of a team may ask: verbale runs query --database."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale history index --database jdbc:postgresql://host/tests --user owner \\",
            "      --reader may_read"
        })
final class HistoryIndexCommand implements Callable<Integer> {

    @ArgGroup(exclusive = false, multiplicity = "1")
    private final DatabaseOption database = new DatabaseOption();

    @Option(
            names = "--reader",
            paramLabel = "ROLE",
            description = {
                "Who may read the tables, and do nothing else",
                "A role of the database that is there already."
            })
    private @Nullable String reader;

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        history.refuseEmpty();
        List<Problem> problems = new ArrayList<>();
        try (RunTables tables = RunTables.at(database.url(spec), database.user, DatabaseOption.password())) {
            RunTables.Update update = tables.update(history.folder(), problems::add);
            if (reader != null) tables.allow(reader);
            history.list(problems, spec.commandLine().getErr());
            spec.commandLine()
                    .getOut()
                    .println((update.all() == 1 ? "1 run is" : update.all() + " runs are") + " in the tables: "
                            + update.added() + " came in, " + update.removed() + " went");
        }
        return problems.isEmpty() ? ExitCodes.DONE : ExitCodes.NO_RUN;
    }
}
