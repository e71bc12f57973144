package dev.verbale.hub;

import dev.verbale.history.Appearance;
import dev.verbale.history.Flakiness;
import dev.verbale.history.History;
import dev.verbale.history.TestHistory;
import dev.verbale.results.Escaped;
import dev.verbale.viewer.RunsSite;
import java.io.IOException;
import java.util.List;

/** A test over all runs of a project. Its address stays: it has only the test's key. */
final class TestPage {

    private static final int MAX_RUNS = 200;

    private final History history;
    private final TestHistory test;

    TestPage(History history, TestHistory test) {
        this.history = history;
        this.test = test;
    }

    String html() throws IOException {
        List<Appearance> all = test.appearances();
        Appearance since = test.failingSince();
        Flakiness flakiness = history.flakiness(test.key());
        return HubPages.page(
                "./",
                test.name(),
                "<p class=\"code dim\">" + Escaped.html(test.key()) + "</p><p>"
                        + (since == null
                                ? ""
                                : "It fails since "
                                        + RunsSite.moment(since.run().started()) + ". ")
                        + (flakiness.isFlaky() ? "It is flaky: it " + Escaped.html(flakiness.sentence()) + "." : "")
                        + "</p><h2>Runs</h2>" + runs(all)
                        + (all.size() > MAX_RUNS
                                ? "<p class=\"dim\">and " + HubPages.count(all.size() - MAX_RUNS, "earlier run")
                                        + "</p>"
                                : ""));
    }

    private String runs(List<Appearance> all) {
        var rows = new StringBuilder("<table class=\"groups\"><tbody>");
        for (int i = all.size() - 1; i >= Math.max(0, all.size() - MAX_RUNS); i--) {
            Appearance one = all.get(i);
            String how = one.recovered()
                    ? "passed on attempt " + one.attempts()
                    : one.outcome().word();
            boolean isBad = one.outcome().needsAttention();
            rows.append("<tr><th scope=\"row\"><a href=\"runs/")
                    .append(RunsSite.encoded(one.run().name()))
                    .append("/#/test/")
                    .append(RunsSite.encoded(test.key()))
                    .append("\">")
                    .append(RunsSite.moment(one.run().started()))
                    .append("</a></th><td>")
                    .append(Escaped.html(one.run().branch()))
                    .append("</td><td>")
                    .append(isBad ? "<b class=\"failed\">" + Escaped.html(how) + "</b>" : Escaped.html(how))
                    .append("</td><td dir=\"auto\">")
                    .append(reason(one))
                    .append("</td></tr>");
        }
        return rows.append("</tbody></table>").toString();
    }

    private String reason(Appearance one) {
        if (one.reason() == null) return "";
        return "<a href=\"reasons/" + RunsSite.encoded(one.reason()) + "\">"
                + Escaped.html(history.titleOf(one.reason())) + "</a>";
    }
}
