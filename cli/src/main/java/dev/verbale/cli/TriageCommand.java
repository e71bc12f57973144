package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.Texts;
import dev.verbale.rules.Rules;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.Triage;
import dev.verbale.rules.Triage.Labelled;
import dev.verbale.rules.TriageRule;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What the rules say of failures. */
@Command(
        name = "triage",
        description = "Labels failures by the rules of a file, those that no rule "
                + "knows first. With several runs it shows what each rule would "
                + "have said of them.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale triage",
            "  verbale triage --rules new-rules.yaml target/verbale/*",
        })
final class TriageCommand implements Callable<Integer> {

    private static final int LONGEST = 140;

    @Parameters(
            arity = "0..*",
            paramLabel = "RUN",
            description = "Runs, by folder or name. Left out: the newest in target/verbale.")
    private List<Path> runs = new ArrayList<>();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Spec
    private CommandSpec spec;

    private final TerminalText text = new TerminalText(Ansi.AUTO);

    @Override
    public Integer call() throws Exception {
        Rules read = rules.read();
        PrintWriter out = spec.commandLine().getOut();
        List<Path> named = runs.isEmpty() ? List.of(RunArgument.root()) : runs;
        List<Labelled> all = new ArrayList<>();
        for (Path one : named) {
            Run run = RunReader.read(RunArgument.found(one), TestKeeper.FAILURES);
            Triage triage = Triage.of(run, read.triage(), LocalDate.now(ZoneId.systemDefault()));
            all.addAll(triage.failures());
            if (named.size() > 1) out.println(run.name() + ": " + sentence(triage));
            else print(out, run, triage, read);
        }
        if (named.size() > 1) byRule(out, read, all);
        return ExitCodes.DONE;
    }

    private static String sentence(Triage triage) {
        int all = triage.failures().size();
        if (all == 0) return "no test needs attention";
        return (all == 1 ? "1 test needs attention" : all + " tests need attention") + ", " + triage.unlabelled()
                + " without a label"
                + (triage.expired() == 0 ? "" : ", " + triage.expired() + " known only until a day that is over");
    }

    private void print(PrintWriter out, Run run, Triage triage, Rules read) {
        out.println(text.strong(capital(sentence(triage)) + "."));
        ZoneId zone = ZoneId.systemDefault();
        for (Part part : TodayParts.byLabel(run, triage, read, LocalDate.now(zone), zone))
            new PartText(out, text, run, Integer.MAX_VALUE).print(part);
    }

    private void byRule(PrintWriter out, Rules read, List<Labelled> all) {
        out.println();
        for (TriageRule rule : read.triage()) {
            List<Labelled> its = all.stream()
                    .filter(one -> one.rule().isPresent() && one.rule().get().line() == rule.line())
                    .toList();
            out.println("line " + rule.line() + ", " + TerminalText.printable(rule.label()) + ": "
                    + (its.size() == 1 ? "1 failure" : its.size() + " failures") + examples(its));
        }
        List<Labelled> none = all.stream().filter(one -> one.rule().isEmpty()).toList();
        out.println("no rule: " + (none.size() == 1 ? "1 failure" : none.size() + " failures") + examples(none));
    }

    private static String examples(List<Labelled> its) {
        List<String> names =
                its.stream().map(one -> one.test().name()).distinct().limit(3).toList();
        return names.isEmpty()
                ? ""
                : ", such as " + TerminalText.printable(Texts.cut(String.join("; ", names), LONGEST));
    }

    private static String capital(String sentence) {
        return Character.toUpperCase(sentence.charAt(0)) + sentence.substring(1);
    }
}
