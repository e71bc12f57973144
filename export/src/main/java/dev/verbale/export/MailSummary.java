package dev.verbale.export;

import dev.verbale.history.compare.Comparison;
import dev.verbale.journal.PlainFile;
import dev.verbale.results.DurationText;
import dev.verbale.results.Entry;
import dev.verbale.results.Escaped;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A run as a mail: the sentence, what is new, the reasons with their tests and a small screenshot each. As HTML without scripts, whose
 * styles stand in its elements and whose images lie inside of it, as mail programs want it; and as its twin in plain text.
 *
 * @since 0.2.0
 */
public final class MailSummary {

    private static final int LONGEST = 300;
    private static final int MAX_REASONS = 30;
    private static final int MAX_TESTS = 8;
    private static final int MAX_IMAGES = 8;
    private static final int LARGEST_IMAGE = 8 << 20;

    private static final String BODY =
            "margin:0;padding:24px;background:#f8f4ea;color:#29251e;font:16px/1.5 Georgia,serif";
    private static final String SENTENCE = "margin:0 0 8px;font-size:26px;font-weight:normal;line-height:1.25";
    private static final String DIM = "color:#6f6757";
    private static final String CODE = "font:13px/1.4 Consolas,Menlo,monospace";

    private final Run run;
    private final @Nullable Comparison comparison;
    private final List<FailureReason> reasons;
    private final Labels labels;

    private MailSummary(Run run, @Nullable Comparison comparison, Labels labels) {
        this.run = run;
        this.labels = labels;
        this.comparison = comparison;
        this.reasons = FailureReason.of(run);
    }

    /**
     * As HTML of one file.
     *
     * @param comparison with an earlier run; null for none
     */
    public static String html(Run run, @Nullable Comparison comparison) {
        return html(run, comparison, Labels.NONE);
    }

    /**
     * The same, with what a team says of failures.
     *
     * @param comparison with an earlier run; null for none
     */
    public static String html(Run run, @Nullable Comparison comparison, Labels labels) {
        return new MailSummary(run, comparison, labels).html();
    }

    /**
     * As plain text, in lines of any length.
     *
     * @param comparison with an earlier run; null for none
     */
    public static String text(Run run, @Nullable Comparison comparison) {
        return text(run, comparison, Labels.NONE);
    }

    /**
     * The same, with what a team says of failures.
     *
     * @param comparison with an earlier run; null for none
     */
    public static String text(Run run, @Nullable Comparison comparison, Labels labels) {
        return new MailSummary(run, comparison, labels).text();
    }

    private String html() {
        var html = new StringBuilder("<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>");
        html.append(escaped(subject()))
                .append("</title></head>\n<body style=\"")
                .append(BODY)
                .append("\">\n");
        html.append("<p style=\"margin:0;")
                .append(DIM)
                .append("\">")
                .append(escaped(when()))
                .append("</p>\n<h1 style=\"");
        html.append(SENTENCE)
                .append("\">")
                .append(escaped(Headline.of(run, reasons)))
                .append("</h1>\n");
        if (comparison != null)
            html.append("<p>Beside ")
                    .append(escaped(comparison.baseline().text()))
                    .append(": <b>")
                    .append(escaped(comparison.sentence()))
                    .append("</b></p>\n");
        int images = 0;
        for (FailureReason reason : shown()) {
            html.append("<h2 style=\"margin:24px 0 4px;font-size:17px\">")
                    .append(escaped(reason.title()))
                    .append("</h2>\n");
            for (String label : labels.of(reason))
                html.append("<p style=\"margin:0 0 4px\">")
                        .append(escaped(label))
                        .append("</p>\n");
            if (reason.evidence() != null)
                html.append("<p style=\"margin:0 0 4px;")
                        .append(CODE)
                        .append("\">")
                        .append(escaped(reason.evidence()))
                        .append("</p>\n");
            html.append("<ul style=\"margin:0;padding-left:20px\">\n");
            for (String test : tests(reason))
                html.append("<li>").append(escaped(test)).append("</li>\n");
            html.append("</ul>\n");
            String image = images < MAX_IMAGES ? image(reason) : null;
            if (image == null) continue;
            images++;
            html.append(
                            "<img alt=\"Screenshot of the first of them\" style=\"display:block;margin:8px 0;max-width:100%;border:1px solid"
                                    + " #e2dac8\" src=\"")
                    .append(image)
                    .append("\">\n");
        }
        if (reasons.size() > MAX_REASONS)
            html.append("<p style=\"")
                    .append(DIM)
                    .append("\">and ")
                    .append(reasons.size() - MAX_REASONS)
                    .append(" more reasons</p>\n");
        return html.append("</body></html>\n").toString();
    }

    private String text() {
        var text = new StringBuilder(line(subject()))
                .append("\n")
                .append(line(when()))
                .append("\n\n");
        text.append(line(Headline.of(run, reasons))).append('\n');
        if (comparison != null)
            text.append("Beside ")
                    .append(line(comparison.baseline().text()))
                    .append(": ")
                    .append(line(comparison.sentence()))
                    .append('\n');
        for (FailureReason reason : shown()) {
            text.append("\n* ").append(line(reason.title())).append('\n');
            for (String label : labels.of(reason))
                text.append("  ").append(line(label)).append('\n');
            if (reason.evidence() != null)
                text.append("  ").append(line(reason.evidence())).append('\n');
            for (String test : tests(reason))
                text.append("  - ").append(line(test)).append('\n');
        }
        if (reasons.size() > MAX_REASONS)
            text.append("\nand ").append(reasons.size() - MAX_REASONS).append(" more reasons\n");
        return text.toString();
    }

    private String subject() {
        return run.name();
    }

    private String when() {
        return run.started() + ", " + DurationText.of(run.duration());
    }

    private List<FailureReason> shown() {
        return reasons.subList(0, Math.min(MAX_REASONS, reasons.size()));
    }

    private static List<String> tests(FailureReason reason) {
        List<String> names = new ArrayList<>();
        for (TestResult test : reason.tests())
            names.add((test.path().isEmpty() ? "" : test.path().get(0) + " › ") + test.name());
        reason.containers().forEach(container -> names.add(container.name() + " itself"));
        if (names.size() <= MAX_TESTS) return names;
        List<String> first = new ArrayList<>(names.subList(0, MAX_TESTS));
        first.add("and " + (names.size() - MAX_TESTS) + " more");
        return first;
    }

    private static @Nullable String image(FailureReason reason) {
        if (reason.tests().isEmpty()) return null;
        // The last one: what was to be seen when it failed.
        var last = Entry.AttachmentEntry.last(reason.tests().get(0).entries(), AttachmentKind.SCREENSHOT);
        if (last == null || last.file() == null) return null;
        try {
            return SmallImage.address(PlainFile.bytes(last.file(), LARGEST_IMAGE));
        } catch (IOException unreadable) {
            return null; // the run says elsewhere that it has lost a file
        }
    }

    private static String escaped(String text) {
        return Escaped.html(line(text));
    }

    /** What a test recorded is in one line, and moves no terminal's cursor. */
    private static String line(String text) {
        String beginning = Texts.cut(text.strip(), LONGEST * 2); // a megabyte of blanks is not searched for line ends
        return Texts.cut(beginning.replaceAll("\\s*\\R\\s*", " "), LONGEST).replaceAll("\\p{Cntrl}", "\uFFFD");
    }
}
