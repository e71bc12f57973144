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
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;

/** Failures by the labels that rules give them, those that no rule knows first; of several runs what each rule says of them. */
final class LabelText {

    private static final int LONGEST = 140;

    private final PrintWriter out;
    private final TerminalText text;
    private final Rules rules;

    LabelText(PrintWriter out, TerminalText text, Rules rules) {
        this.out = out;
        this.text = text;
        this.rules = rules;
    }

    void print(Run run) {
        print(run, Triage.of(run, rules.triage(), LocalDate.now(ZoneId.systemDefault())));
    }

    void print(List<Path> named) throws IOException {
        List<Labelled> all = new ArrayList<>();
        for (Path one : named) {
            Run run = RunReader.read(RunArgument.found(one), TestKeeper.FAILURES);
            Triage triage = Triage.of(run, rules.triage(), LocalDate.now(ZoneId.systemDefault()));
            all.addAll(triage.failures());
            out.println(run.name() + ": " + sentence(triage));
        }
        byRule(all);
    }

    private static String sentence(Triage triage) {
        int all = triage.failures().size();
        if (all == 0) return "no test needs attention";
        return (all == 1 ? "1 test needs attention" : all + " tests need attention") + ", " + triage.unlabelled()
                + " without a label"
                + (triage.expired() == 0 ? "" : ", " + triage.expired() + " known only until a day that is over");
    }

    private void print(Run run, Triage triage) {
        out.println(text.strong(capital(sentence(triage)) + "."));
        ZoneId zone = ZoneId.systemDefault();
        for (Part part : TodayParts.byLabel(run, triage, rules, LocalDate.now(zone), zone))
            new PartText(out, text, run, Integer.MAX_VALUE).print(part);
    }

    private void byRule(List<Labelled> all) {
        out.println();
        for (TriageRule rule : rules.triage()) {
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
