package dev.verbale.cli;

import dev.verbale.cli.CiPlan.Planned;
import dev.verbale.cli.CiPlan.Step;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.summary.Headline;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** The end of a job, whatever is to be done there. */
@Command(
        name = "ci",
        description = {
            "Does at the end of a job what verbale-ci.yaml says: join, remember, page, export, pack, publish, send, mail, gate.",
            "Without a file: the page and the gate. Each part of the file is a command with its options. All of them are done, "
                    + "also where one failed. Exit code 5 where the gate is closed, or else that of the first that failed."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale ci",
            "  verbale ci --dry-run   # the commands that it would run",
        })
final class CiCommand implements Callable<Integer> {

    @Option(names = "--file", paramLabel = "FILE", description = "What is to be done, not " + CiPlan.DEFAULT)
    private @Nullable Path file;

    @Option(names = "--dry-run", description = "Only says which commands it would run")
    private boolean isDry;

    @Spec
    private CommandSpec spec;

    private final TerminalText text = new TerminalText(Ansi.AUTO);

    @Override
    public Integer call() throws Exception {
        CiPlan plan = plan();
        PrintWriter out = spec.commandLine().getOut();
        if (isDry) {
            for (Planned one : plan.steps()) out.println("verbale " + typed(arguments(one, plan.run())));
            return ExitCodes.DONE;
        }
        int failed = ExitCodes.DONE;
        int gate = ExitCodes.DONE;
        Path run = null; // found once: another may begin meanwhile
        for (Planned one : plan.steps()) {
            if (one.step() != Step.JOIN && run == null) {
                run = plan.run() == null ? RunReader.find(RunArgument.root()).path() : plan.run();
                headline(out, run);
            }
            int code = run(one, run, out);
            if (one.step() == Step.GATE) gate = code;
            else if (failed == ExitCodes.DONE) failed = code;
            if (one.step() == Step.JOIN && code != ExitCodes.DONE)
                return code; // what follows would be about another run
        }
        return gate == ExitCodes.GATE_CLOSED || failed == ExitCodes.DONE ? gate : failed;
    }

    private CiPlan plan() throws YamlFormatException, IOException {
        if (file == null && !Files.exists(Path.of(CiPlan.DEFAULT))) return CiPlan.usual();
        try {
            return CiPlan.read(file == null ? Path.of(CiPlan.DEFAULT) : file, System.getenv());
        } catch (NoSuchFileException none) {
            throw new picocli.CommandLine.ParameterException(spec.commandLine(), "there is no file " + file);
        }
    }

    private void headline(PrintWriter out, Path named) throws IOException {
        Run run = RunReader.read(RunArgument.found(named), TestKeeper.FAILURES);
        out.println(run.name() + ": " + Headline.of(run));
    }

    /** In one line. */
    private int run(Planned one, @Nullable Path run, PrintWriter out) {
        var written = new StringWriter();
        var complained = new StringWriter();
        String[] arguments = arguments(one, run).toArray(String[]::new);
        int code = Main.commandLine(new PrintWriter(written), new PrintWriter(complained), arguments)
                .execute(arguments);
        boolean isGood = code == ExitCodes.DONE;
        if (isGood && isForTheOutput(one)) { // such as annotations, which the CI system reads as they stand
            out.print(written);
            out.flush();
            return code;
        }
        String line =
                isGood || code == ExitCodes.GATE_CLOSED ? words(one.step(), written.toString()) : first(complained);
        String word = String.format("%-9s ", one.step().word());
        out.println((isGood ? word : text.bad(word)) + line);
        out.flush();
        return code;
    }

    private static boolean isForTheOutput(Planned one) {
        return one.step() == Step.EXPORT
                && one.arguments().stream().noneMatch(argument -> argument.startsWith("--output="));
    }

    /** What the command said last; of the gate all that closes it. */
    private static String words(Step step, String written) {
        List<String> lines = written.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        if (lines.isEmpty()) return "done";
        return step == Step.GATE
                ? String.join(" ", lines.subList(0, Math.max(1, lines.size() - 1)))
                : lines.get(lines.size() - 1);
    }

    private static String first(StringWriter complained) {
        return complained
                .toString()
                .lines()
                .filter(line -> !line.isBlank())
                .findFirst()
                .orElse("failed")
                .replaceFirst("^verbale: ", "");
    }

    private static List<String> arguments(Planned one, @Nullable Path run) {
        List<String> all = new ArrayList<>(one.arguments());
        if (run != null && one.step() != Step.JOIN) all.add(run.toString());
        return all;
    }

    private static String typed(List<String> arguments) {
        return String.join(
                " ",
                arguments.stream()
                        .map(one -> one.matches("[\\w./:=@%+,-]+") ? one : "'" + one.replace("'", "'\\''") + "'")
                        .toList());
    }
}
