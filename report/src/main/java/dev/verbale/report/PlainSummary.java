package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Escaped;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The summary as plain HTML, for who has no JavaScript: the sentence, the counts, reasons with their tests, and what each said. Texts
 * of tests are escaped, and nothing in it is a link, or loads anything but some screenshots of the page's own.
 */
final class PlainSummary {

    private static final int MAX_REASONS = 100;
    private static final int MAX_TESTS = 50;
    private static final int MAX_SCREENSHOTS = 10;
    private static final int LONGEST = 300;

    private final StringBuilder html = new StringBuilder();

    private final Path folder;
    private int screenshots;

    private PlainSummary(Path folder) {
        this.folder = folder;
    }

    static String of(Run run, List<FailureReason> reasons) {
        var summary = new PlainSummary(run.folder());
        summary.write(run, reasons);
        return summary.html.toString();
    }

    private void write(Run run, List<FailureReason> reasons) {
        html.append("<main class=\"summary\">\n<p class=\"dateline\">")
                .append(escaped(run.name()))
                .append(", ");
        html.append(escaped(run.started().toString())).append("</p>\n<h1 class=\"sentence\">");
        html.append(escaped(Headline.withoutGaps(run, reasons))).append("</h1>\n");
        if (!Headline.part(run).isEmpty())
            html.append("<p>").append(escaped(Headline.part(run))).append("</p>\n");
        if (!Headline.leftOut(run).isEmpty())
            html.append("<p>").append(escaped(Headline.leftOut(run))).append("</p>\n");
        if (!run.incomplete().isNothing())
            html.append("<p class=\"incomplete\">")
                    .append(escaped(run.incomplete().sentence()))
                    .append("</p>\n");
        html.append("<ul class=\"counts\">\n");
        run.counts()
                .byOutcome()
                .forEach((outcome, count) -> html.append("<li><b>")
                        .append(count)
                        .append("</b> ")
                        .append(escaped(outcome.text()))
                        .append("</li>\n"));
        if (run.counts().broken() > 0)
            html.append("<li><b>")
                    .append(run.counts().broken())
                    .append("</b> classes broken outside their tests</li>\n");
        html.append("</ul>\n<h2>Reasons</h2>\n<ol class=\"reasons\">\n");
        for (FailureReason reason : reasons.subList(0, Math.min(MAX_REASONS, reasons.size()))) reason(reason);
        html.append("</ol>\n");
        more(reasons.size() - MAX_REASONS, "reason");
        html.append(
                "<p class=\"dim needs-script\">The rest of this page is drawn by a script that lies beside it; it needs JavaScript, and nothing"
                        + " else.</p>\n</main>");
    }

    private void reason(FailureReason reason) {
        html.append("<li><h3>").append(escaped(reason.title())).append("</h3>\n");
        if (reason.evidence() != null)
            html.append("<p class=\"code evidence\">")
                    .append(escaped(reason.evidence()))
                    .append("</p>\n");
        screenshot(reason.tests());
        html.append("<ul class=\"reason-tests\">\n");
        List<TestResult> tests = reason.tests();
        for (TestResult test : tests.subList(0, Math.min(MAX_TESTS, tests.size()))) {
            String in = test.path().isEmpty() ? "" : test.path().get(0) + " › ";
            line(in + test.name(), test.outcome().text(), test.failure());
        }
        for (ContainerResult container : reason.containers())
            line(container.name() + " itself", container.outcome().text(), container.failure());
        html.append("</ul>\n");
        more(tests.size() - MAX_TESTS, "test");
        html.append("</li>\n");
    }

    /** What was to be seen when the first of them failed that has such an image. Loaded only where somebody sees it. */
    private void screenshot(List<TestResult> tests) {
        if (screenshots == MAX_SCREENSHOTS) return;
        TestScreenshot first = TestScreenshot.first(tests);
        if (first == null) return;
        screenshots++;
        html.append("<p><img class=\"plain-shot\" loading=\"lazy\" alt=\"Screenshot of ")
                .append(escaped(first.test().name()))
                .append("\" width=\"480\" src=\"")
                .append(escaped(first.address(folder)))
                .append("\"></p>\n");
    }

    private void line(String name, String outcome, @Nullable Failure failure) {
        html.append("<li>")
                .append(escaped(name))
                .append(" <span class=\"dim\">")
                .append(escaped(outcome));
        if (failure != null) html.append(": ").append(escaped(FailureTitle.of(failure)));
        html.append("</span></li>\n");
    }

    private void more(int number, String word) {
        if (number > 0)
            html.append("<p class=\"dim\">and ")
                    .append(number)
                    .append(" more ")
                    .append(word)
                    .append(number == 1 ? "" : "s")
                    .append("</p>\n");
    }

    private static String escaped(String text) {
        return Escaped.html(Texts.cut(text, LONGEST)).replaceAll("[\\p{Cntrl}&&[^\\n\\t]]", "\uFFFD");
    }
}
