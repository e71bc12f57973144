package dev.verbale.export;

import dev.verbale.results.Counts;
import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Line;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.TodayParts.Reason;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A run in Markdown, for the page that a CI system shows of a job: what it came to, what is new, then all else. As long as is allowed,
 * and whole lines only. Nothing that a test recorded is read as Markdown or HTML.
 *
 * @since 0.2.0
 */
public final class MarkdownSummary {

    /** What the most narrow of the common CI systems takes. */
    public static final int USUAL_LIMIT = 1_000_000;

    private static final int LONGEST_TITLE = 200;
    private static final int MAX_TESTS = 10;
    private static final Pattern SPECIAL = Pattern.compile("[\\\\`*_{}\\[\\]()#+.!|<>~&@:$-]");
    private static final Pattern ADDRESS = Pattern.compile("https?://[\\w.~:/?#@!$&'*+,;=%-]+");
    private static final Pattern CONTROLS = Pattern.compile("\\p{Cntrl}+");

    private MarkdownSummary() {}

    /** @param limit how many bytes of UTF-8 it may have, 500 at least */
    public static String of(Run run, TodayParts today, int limit) {
        List<String> lines = new ArrayList<>();
        lines.add("## " + escaped(today.sentence()));
        lines.add("");
        lines.add(escaped(today.dateline()) + link(run));
        paragraphs(lines, today.beside());
        lines.add("");
        lines.add(today.gate().stream().map(MarkdownSummary::text).collect(Collectors.joining(" ")));
        for (Part part : today.parts()) part(lines, part);
        counts(lines, run);
        return within(lines, Math.max(500, limit));
    }

    /** An address of the job, where it is one that a browser opens. */
    private static String link(Run run) {
        String link = run.facts().getOrDefault("CI link", "");
        return ADDRESS.matcher(link).matches() ? " ([job](<" + link + ">))" : "";
    }

    private static void paragraphs(List<String> lines, List<String> sentences) {
        for (String sentence : sentences) {
            lines.add("");
            lines.add(text(sentence));
        }
    }

    private static void part(List<String> lines, Part part) {
        lines.add("");
        lines.add("### " + escaped(part.title()) + " (" + part.count() + ")");
        for (Reason reason : part.reasons()) {
            lines.add("");
            lines.add("**" + text(reason.title()) + "**");
            for (String about : reason.about()) {
                lines.add("");
                lines.add("*" + text(about) + "*");
            }
            if (reason.evidence() != null) {
                lines.add("");
                lines.add("> " + text(reason.evidence()));
            }
            tests(lines, reason.tests());
        }
        tests(lines, part.lines());
    }

    private static void tests(List<String> lines, List<Line> tests) {
        if (!tests.isEmpty()) lines.add("");
        for (Line test : tests.subList(0, Math.min(MAX_TESTS, tests.size())))
            lines.add("- " + text(test.name()) + (test.more().isEmpty() ? "" : " (" + text(test.more()) + ")"));
        if (tests.size() > MAX_TESTS) lines.add("- and " + (tests.size() - MAX_TESTS) + " more");
    }

    private static void counts(List<String> lines, Run run) {
        Counts counts = run.counts();
        if (counts.all() + counts.broken() == 0) return;
        lines.add("");
        lines.add("| outcome | tests |");
        lines.add("|---|---:|");
        for (Outcome outcome : counts.byOutcome().keySet())
            lines.add("| " + escaped(outcome.text()) + " | " + counts.of(outcome) + " |");
        if (counts.flaky() > 0) lines.add("| of them flaky | " + counts.flaky() + " |");
        if (counts.broken() > 0) lines.add("| classes broken outside their tests | " + counts.broken() + " |");
        lines.add("| in all | " + counts.all() + " |");
    }

    private static String text(String recorded) {
        return escaped(Texts.cut(recorded, LONGEST_TITLE));
    }

    /** CommonMark 0.31, 2.4: a backslash before any of its punctuation makes it an ordinary character. */
    static String escaped(String text) {
        return SPECIAL.matcher(CONTROLS.matcher(text).replaceAll(" ").strip()).replaceAll("\\\\$0");
    }

    private static String within(List<String> lines, int limit) {
        var text = new StringBuilder();
        int bytes = 0;
        int last = 40; // for the line that says that there is more
        for (int i = 0; i < lines.size(); i++) {
            int more = lines.get(i).getBytes(StandardCharsets.UTF_8).length + 1;
            if (bytes + more > limit - last) {
                text.append("\n… ").append(lines.size() - i).append(" lines more\n");
                break;
            }
            text.append(lines.get(i)).append('\n');
            bytes += more;
        }
        return text.toString();
    }
}
