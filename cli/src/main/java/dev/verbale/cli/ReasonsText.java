package dev.verbale.cli;

import dev.verbale.results.Entry;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Part;
import java.io.PrintWriter;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;

/** What failed in a run, for a terminal: on one screen, by the reasons that it failed for. */
final class ReasonsText {

    private static final int MAX_REASONS = 15;
    private static final int MAX_OUTSIDE = 3;

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
            if (id.isEmpty()) id = part.reasons().get(0).id();
        }
        outside(run.failedOutsideTests());
        out.println();
        if (!id.isEmpty()) {
            out.println(text.dim("More of one: verbale brief " + id));
            out.println(text.dim("Each test, with its attachments: verbale failures --all"));
        }
        out.println(text.dim("Recorded in " + run.folder()));
    }

    private void outside(List<Entry.StepEntry> steps) {
        if (steps.isEmpty()) return;
        out.println();
        out.println(text.bad("Outside the tests") + text.dim("  " + steps.size()));
        for (Entry.StepEntry step : steps.subList(0, Math.min(MAX_OUTSIDE, steps.size()))) {
            String why = step.failure() == null ? "" : ": " + FailureTitle.of(step.failure());
            out.println("  " + text.cut(step.name() + why, text.width() - 2));
        }
        if (steps.size() > MAX_OUTSIDE) out.println(text.dim("  and " + (steps.size() - MAX_OUTSIDE) + " more"));
    }
}
