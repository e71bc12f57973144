package dev.verbale.cli;

import dev.verbale.lake.LakeTables;
import dev.verbale.query.AnswerText;
import dev.verbale.query.AnswerWriting;
import dev.verbale.query.HistoryTables;
import dev.verbale.query.QueryException;
import dev.verbale.query.RunTables;
import dev.verbale.query.TableReader;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import picocli.CommandLine.TypeConversionException;

/** Questions of one's own. */
@Command(
        name = "query",
        description = {
            "Asks runs, or the history, in SQL.",
            "The tables: runs, tests, reasons, attempts, failures, steps, exchanges, attachments; of what is remembered only the first three have rows."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale runs query --tables   # the tables and their columns",
            "  verbale runs query \"select name, duration_ms from steps order by 2 desc\"",
            "  verbale runs query --remembered \"select * from reasons order by runs desc\""
        })
final class QueryCommand implements Callable<Integer> {

    @Parameters(
            index = "0",
            arity = "0..1",
            paramLabel = "SQL",
            description = "The question, as one argument; - reads it")
    private @Nullable String sql;

    @Parameters(index = "1..*", arity = "0..*", paramLabel = "RUN", description = "Runs to ask; left out, the newest")
    private List<Path> runs = new ArrayList<>();

    @Option(names = "--tables", description = "Lists the tables and their columns")
    private boolean tables;

    @Option(names = "--remembered", description = "Asks the history")
    private boolean remembered;

    @Option(
            names = "--format",
            paramLabel = "FORMAT",
            description = "table, csv or json (table)",
            converter = FormatConverter.class)
    private AnswerText format = AnswerText.TABLE;

    static final class FormatConverter implements ITypeConverter<AnswerText> {
        @Override
        public AnswerText convert(String word) {
            for (AnswerText one : AnswerText.values())
                if (one.name().toLowerCase(Locale.ROOT).equals(word)) return one;
            throw new TypeConversionException("'" + word + "' is none of table, csv, json");
        }
    }

    @Option(
            names = "--lake",
            paramLabel = "LAKE",
            description = "Asks the Parquet files there, or in s3://BUCKET/PREFIX: docs/lake.md")
    private @Nullable String lake;

    @Option(names = "--project", paramLabel = "NAME", description = "Of a lake, whose runs; left out, of all")
    private @Nullable String project;

    @Option(
            names = "--time-limit",
            paramLabel = "SECONDS",
            defaultValue = "60",
            description = "Breaks it off after so long; 0 never (${DEFAULT-VALUE})")
    private int timeLimit;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @ArgGroup(exclusive = false, multiplicity = "0..1")
    private @Nullable DatabaseOption database;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (tables) sql = lake == null ? TableReader.COLUMNS : LakeTables.COLUMNS;
        if (sql == null)
            throw new ParameterException(
                    spec.commandLine(), "Say what to ask, in quotes, such as \"select name, outcome from tests\"");
        if ((remembered || database != null) && !runs.isEmpty())
            throw new ParameterException(
                    spec.commandLine(), "Name runs, or --remembered, or --database: one of the three is asked");
        if (remembered && database != null)
            throw new ParameterException(
                    spec.commandLine(), "--remembered asks the history, --database another: name one");
        if (lake != null && (remembered || database != null || !runs.isEmpty()))
            throw new ParameterException(
                    spec.commandLine(), "--lake asks its files: name no run, --remembered or --database beside it");
        if (lake == null && project != null)
            throw new ParameterException(spec.commandLine(), "--project is of a lake: name it with --lake");
        String question = sql.equals("-") ? new String(System.in.readAllBytes(), StandardCharsets.UTF_8) : sql;
        if (database != null) {
            answer(TableReader.at(database.url(spec), database.user, DatabaseOption.password()), question);
            return ExitCodes.DONE;
        }
        if (lake != null) {
            askLake(lake, question);
            return ExitCodes.DONE;
        }
        if (remembered) {
            history.refuseEmpty();
            try (HistoryTables made =
                    HistoryTables.of(history.read(spec.commandLine().getErr()))) {
                answer(made.reader(), question);
            }
            return ExitCodes.DONE;
        }
        try (RunTables filled = RunTables.inMemory()) {
            if (!tables) fill(filled);
            answer(filled.reader(), question);
        }
        return ExitCodes.DONE;
    }

    private void askLake(String named, String question) throws QueryException, IOException {
        try (NamedLake asked = NamedLake.of(named)) {
            List<String> projects = asked.lake().projects();
            if (projects.isEmpty())
                throw new IOException("there is no lake in " + named
                        + ": it has a folder 'manifest'. Make one by verbale history export --to " + named);
            if (project != null && !projects.contains(project))
                throw new ParameterException(
                        spec.commandLine(), "the lake has no project '" + project + "'. It has " + projects);
            try (LakeTables made = asked.lake().tables(project)) {
                answer(made.reader(), question);
            }
        } catch (IllegalArgumentException wrong) {
            throw new ParameterException(spec.commandLine(), String.valueOf(wrong.getMessage()));
        }
    }

    private void fill(RunTables filled) throws QueryException, YamlFormatException, IOException {
        PrintWriter err = spec.commandLine().getErr();
        List<Run> read = new ArrayList<>();
        if (runs.isEmpty()) read.add(RunReader.read(RunArgument.root()));
        for (Path run : runs) read.add(RunReader.read(RunArgument.found(run)));
        for (Run run : read) if (!run.problems().isEmpty()) err.println(ProblemList.of(run));
        for (Run run : read) filled.add(run, rules.labelWords(run));
    }

    private void answer(TableReader reader, String question) throws QueryException, IOException {
        AnswerWriting writing = format.to(spec.commandLine().getOut());
        if (timeLimit < 0) throw new ParameterException(spec.commandLine(), "--time-limit is 0 seconds or more");
        (timeLimit == 0 ? reader : reader.within(Duration.ofSeconds(timeLimit))).ask(question, writing);
        writing.end();
    }
}
