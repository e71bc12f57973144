package dev.verbale.testing;

import dev.verbale.results.Entry;
import dev.verbale.vocabulary.StepKind;
import java.util.List;
import java.util.stream.Stream;

/** What happened in a test, a line each, as a test can compare it. */
public final class Outline {

    private Outline() {}

    /** Steps with what is in them, indented. */
    public static List<String> of(List<Entry> entries) {
        return entries.stream().flatMap(Outline::lines).toList();
    }

    private static Stream<String> lines(Entry entry) {
        if (entry instanceof Entry.StepEntry step) {
            String kind = step.kind().equals(StepKind.ACTION) ? "" : step.kind().word() + ": ";
            String table = step.argument() == null || step.argument().rows().isEmpty()
                    ? ""
                    : " " + step.argument().rows();
            String text = step.argument() == null || step.argument().text() == null
                    ? ""
                    : " '" + step.argument().text() + "'";
            return Stream.concat(
                    Stream.of(kind + step.name() + table + text + " "
                            + step.outcome().word()),
                    step.entries().stream().flatMap(Outline::lines).map(line -> "  " + line));
        }
        if (entry instanceof Entry.LogEntry log) return Stream.of("- " + log.text());
        if (entry instanceof Entry.DataEntry data) return Stream.of(data.name() + "=" + data.value());
        if (entry instanceof Entry.AttachmentEntry attachment) return Stream.of("[" + attachment.name() + "]");
        if (entry instanceof Entry.CheckEntry check)
            return Stream.of("check " + check.name() + " " + check.outcome().word());
        return Stream.of(entry.getClass().getSimpleName());
    }
}
