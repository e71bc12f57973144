package dev.verbale.cli;

import dev.verbale.results.Entry;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Line;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.TodayParts.Reason;
import java.io.PrintWriter;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;

/** What failed in a run, for a terminal: on one screen, by the reasons that it failed for. */
final class ReasonsText {

    private static final int MAX_REASONS = 15;

    private final PrintWriter out;
    private final TerminalText text;

    ReasonsText(PrintWriter out, TerminalText text) {
        this.out = out;
        this.text = text;
    }

    void print(Today today) {
        Run run = today.run();
        TodayParts all = TodayParts.of(today, LocalDate.now(ZoneId.systemDefault()), ZoneId.systemDefault());
        for (String line : text.wrapped(all.sentence(), text.width(), 4)) out.println(text.strong(line));
        for (String line : text.wrapped(all.dateline(), text.width(), 2)) out.println(text.dim(line));
        var parts = new PartText(out, text, run, MAX_REASONS);
        String id = "";
        for (Part part : all.parts()) {
            if (part.reasons().isEmpty()) continue;
            parts.print(part);
            for (Reason reason : part.reasons())
                if (id.isEmpty() && reason.first() != null) id = reason.id(); // of classes alone there is no brief
        }
        if (!run.failedOutsideTests().isEmpty()) parts.print(outside(run.failedOutsideTests()));
        out.println();
        if (!id.isEmpty()) out.println(text.dim("More of one: verbale failures brief " + id));
        out.println(text.dim("Each test, with its attachments: verbale failures --all"));
        out.println(text.dim("Recorded in " + OpenArchives.outside(run.folder())));
    }

    private static Part outside(List<Entry.StepEntry> steps) {
        List<Line> lines = steps.stream()
                .map(step -> new Line(step.name(), step.failure() == null ? "" : FailureTitle.of(step.failure())))
                .toList();
        return new Part(null, "Outside the tests", List.of(), lines);
    }
}
