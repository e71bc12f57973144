package dev.verbale.cli;

import dev.verbale.export.Annotations;
import dev.verbale.export.CodeQuality;
import dev.verbale.export.CsvTables;
import dev.verbale.export.JUnitXml;
import dev.verbale.export.JsonSummary;
import dev.verbale.export.Labels;
import dev.verbale.export.MailSummary;
import dev.verbale.export.MarkdownSummary;
import dev.verbale.folder.WholeFile;
import dev.verbale.results.Run;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** A run as other tools read it. */
@Command(
        name = "export",
        description = "Writes a run for other tools: as XML, Markdown, tables, archives, traces.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale export --format markdown --baseline branch:main",
            "  verbale export --format annotations   # in a job, for the CI system to show",
            "  verbale export --format har --test SeedsApiTest --output seeds.har"
        })
final class ExportCommand implements Callable<Integer> {

    /** As what. */
    enum Format {
        JUNIT,
        MARKDOWN,
        TESTS_CSV,
        STEPS_CSV,
        JSON,
        MAIL_HTML,
        MAIL_TEXT,
        ANNOTATIONS,
        CODE_QUALITY,
        HAR,
        OTLP;

        /** As it is typed. */
        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--format",
            paramLabel = "FORMAT",
            required = true,
            description = {
                "junit, markdown, tests-csv, steps-csv, json, mail-html, mail-text, annotations, code-quality, har, otlp",
                "junit: XML as JUnit's readers take it. markdown: for the page of a CI job. tests-csv, steps-csv: tables. json: a summary. annotations, code-quality: failures at their lines of code, for a CI system or a merge request. har: HTTP exchanges, to a file. otlp: traces and log records, sent to a collector of OpenTelemetry."
            },
            converter = FormatConverter.class)
    private Format format = Format.JSON;

    /** Hyphens, as in all of this command's words. */
    static final class FormatConverter implements picocli.CommandLine.ITypeConverter<Format> {
        @Override
        public Format convert(String word) {
            for (Format one : Format.values()) if (one.toString().equalsIgnoreCase(word)) return one;
            throw new picocli.CommandLine.TypeConversionException("'" + word + "' is none of "
                    + java.util.Arrays.stream(Format.values())
                            .map(Format::toString)
                            .collect(java.util.stream.Collectors.joining(", ")));
        }
    }

    @Option(
            names = "--output",
            paramLabel = "FILE",
            description = {"Where; left out, the standard output", "Of har: exchanges.har, in the run's folder."})
    private @Nullable Path output;

    @Option(names = "--overwrite", description = "Replaces a file that is there")
    private boolean overwrite;

    @Option(names = "--max-bytes", paramLabel = "N", description = "markdown: how long it may be (${DEFAULT-VALUE})")
    private int maxBytes = MarkdownSummary.USUAL_LIMIT;

    @Option(names = "--test", paramLabel = "TEXT", description = "har: only tests with TEXT in their id")
    private @Nullable String test;

    @Mixin
    private final CollectorOptions collector = new CollectorOptions();

    @Mixin
    private final SourcesOption sources = new SourcesOption();

    @Mixin
    private final BaselineOption baseline = new BaselineOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (maxBytes < 500)
            throw new ParameterException(spec.commandLine(), "--max-bytes takes a number from 500, not " + maxBytes);
        if (test != null && format != Format.HAR)
            throw new ParameterException(spec.commandLine(), "--test is for --format har");
        Run read = run.read();
        if (format == Format.HAR) new HarFile(spec, test, overwrite).write(read, output);
        else if (format == Format.OTLP) collector.send(read, spec);
        else write(read);
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }

    private void write(Run read) throws IOException, YamlFormatException, FailureMessages.NotWritten {
        byte[] bytes = bytes(read);
        PrintWriter out = spec.commandLine().getOut();
        if (output == null) out.print(new String(bytes, StandardCharsets.UTF_8));
        else {
            try {
                write(output, bytes);
            } catch (IOException failed) {
                throw new FailureMessages.NotWritten("nothing was written to " + output, failed);
            }
            out.println(format + ": " + output);
        }
    }

    private byte[] bytes(Run read) throws IOException, YamlFormatException {
        var bytes = new ByteArrayOutputStream();
        var text = new StringBuilder();
        switch (format) {
            case JUNIT -> JUnitXml.write(read, labels(read), bytes);
            case JSON -> JsonSummary.write(read, bytes);
            case MARKDOWN -> text.append(MarkdownSummary.of(read, today(read), maxBytes));
            case MAIL_HTML -> text.append(MailSummary.html(today(read)));
            case MAIL_TEXT -> text.append(MailSummary.text(today(read)));
            case TESTS_CSV -> CsvTables.tests(read, text);
            case STEPS_CSV -> CsvTables.steps(read, text);
            case ANNOTATIONS ->
                text.append(Annotations.of(System.getenv()).text(read, sources.codeHere(spec), Path.of("")));
            case HAR, OTLP -> throw new IllegalStateException(format + " is no text");
            case CODE_QUALITY -> {
                int without = CodeQuality.write(read, sources.codeHere(spec), Path.of(""), bytes);
                if (without > 0)
                    spec.commandLine()
                            .getErr()
                            .println("verbale: of " + without + (without == 1 ? " failure" : " failures")
                                    + " no line is known, and it is not there. Name the sources with --sources");
            }
        }
        bytes.writeBytes(text.toString().getBytes(StandardCharsets.UTF_8));
        return bytes.toByteArray();
    }

    private Labels labels(Run read) throws IOException, YamlFormatException {
        return new Labels(rules.labels(read));
    }

    /** Times in UTC: who reads it is anywhere. Rules are over by the day of here, as they are for the gate. */
    private TodayParts today(Run read) throws IOException, YamlFormatException {
        Today today = history.today(
                read,
                RunArgument.around(read),
                rules.read(),
                baseline.named(),
                spec.commandLine().getErr());
        return TodayParts.of(today, LocalDate.now(ZoneId.systemDefault()), ZoneOffset.UTC);
    }

    /** Whole or not at all: a reader may wait for it. */
    private void write(Path file, byte[] bytes) throws IOException {
        Path target = file.toAbsolutePath().normalize();
        if (!overwrite && Files.exists(target, LinkOption.NOFOLLOW_LINKS))
            throw new FileAlreadyExistsException(
                    target.toString(), null, "it is there already. Name another file, or add --overwrite");
        WholeFile.write(target, fresh -> {
            Files.write(fresh, bytes, StandardOpenOption.CREATE_NEW);
            return true;
        });
    }
}
