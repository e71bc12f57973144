package dev.verbale.hub;

import dev.verbale.history.History;
import dev.verbale.history.ReasonHistory;
import dev.verbale.history.RunResults;
import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.hub.Knowledge.Change;
import dev.verbale.results.Escaped;
import dev.verbale.rules.TriageRule;
import dev.verbale.viewer.RunsSite;
import java.io.IOException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A reason over all runs of a project, what is known of it, and a form that changes that. Its address stays: it has only the reason's id. */
final class ReasonPage {

    private static final int MAX_RUNS = 100;
    private static final int MAX_TESTS = 50;

    private final History history;
    private final String reason;
    private final List<Change> changes;
    private final boolean mayLabel;

    /** @param changes the newest first */
    ReasonPage(History history, String reason, List<Change> changes, boolean mayLabel) {
        this.history = history;
        this.reason = reason;
        this.changes = changes;
        this.mayLabel = mayLabel;
    }

    /** A run that has it. */
    private record Seen(RunSummary run, int tests) {}

    String html() throws IOException {
        ReasonHistory known = history.reason(reason).orElse(null);
        List<Seen> seen = seen();
        return HubPages.page(
                "../",
                known == null ? "Reason " + reason : known.title(),
                past(known, seen) + knowledge() + (mayLabel ? form() : "") + runs(seen) + tests() + changed());
    }

    /** The newest first. */
    private List<Seen> seen() {
        List<Seen> seen = new ArrayList<>();
        for (RunResults results : history.results()) {
            int at = position(results);
            if (at >= 0) seen.add(0, new Seen(results.run(), results.testsByReason()[at]));
        }
        return seen;
    }

    private int position(RunResults results) {
        List<ReasonDigest> reasons = results.reasons();
        for (int i = 0; i < reasons.size(); i++) if (reasons.get(i).id().equals(reason)) return i;
        return -1;
    }

    private String past(@Nullable ReasonHistory known, List<Seen> seen) {
        if (known == null) return "<p>No run of this project that is over had it so far.</p>";
        Map<String, Integer> branches = new LinkedHashMap<>();
        for (Seen one : seen) branches.merge(one.run().branch(), 1, Integer::sum);
        var where = new StringBuilder();
        branches.forEach((branch, runs) -> where.append(where.isEmpty() ? "" : ", ")
                .append(branch.isEmpty() ? "no branch" : Escaped.html(branch))
                .append(" (")
                .append(runs)
                .append(')'));
        return "<p>"
                + (known.since() == null
                        ? "The newest run does not have it. It was there last " + day(known.last())
                        : "Each run has it since " + day(known.since()) + ": " + HubPages.count(known.stretch(), "run"))
                + ". " + HubPages.count(known.failures(), "failure") + " in " + HubPages.count(known.runs(), "run")
                + " so far, the first " + day(known.first()) + ". Branches: " + where + ".</p>";
    }

    private static String day(RunSummary run) {
        return RunsSite.moment(run.started());
    }

    private String knowledge() {
        TriageRule known = known();
        if (known == null) return "<p>Nobody has said whose it is.</p>";
        LocalDate today = LocalDate.now(ZoneId.systemDefault());
        String sentence = sentence(known, today);
        return "<p class=\"known\">" + (known.isExpired(today) ? "<b class=\"failed\">" + sentence + "</b>" : sentence)
                + "</p>";
    }

    /** What it says, in HTML; where it has a link, that can be followed. */
    private static String sentence(TriageRule known, LocalDate today) {
        String link = known.link();
        if (link == null) return Escaped.html(known.sentence(today));
        String words = TriageRule.ofReason("", known.label(), known.owner(), null, known.comment(), known.knownUntil())
                .sentence(today);
        String to = Escaped.html(link);
        return Escaped.html(words) + ", <a href=\"" + to + "\" rel=\"noopener noreferrer\">" + to + "</a>";
    }

    private @Nullable TriageRule known() {
        return changes.isEmpty() ? null : changes.get(0).known();
    }

    private String form() {
        TriageRule known = known();
        return "<form class=\"knowledge\" method=\"post\"><h2>" + (known == null ? "Say whose it is" : "Change it")
                + "</h2>"
                + field(
                        "label",
                        "Label",
                        known == null ? "" : known.label(),
                        "list=\"labels\" required maxlength=\"100\"")
                + "<datalist id=\"labels\"><option>product<option>test<option>environment</datalist>"
                + field("owner", "Owner", known == null ? null : known.owner(), "maxlength=\"200\"")
                + field("link", "Link", known == null ? null : known.link(), "type=\"url\" maxlength=\"1000\"")
                + field(
                        "known-until",
                        "Nobody needs to look until",
                        known == null || known.knownUntil() == null
                                ? null
                                : known.knownUntil().toString(),
                        "type=\"date\"")
                + field("comment", "Comment", known == null ? null : known.comment(), "maxlength=\"2000\"")
                        .replaceFirst("<p>", "<p class=\"wide\">")
                + "<p><button>Save</button>"
                + (known == null ? "" : " <button name=\"forget\" value=\"yes\" formnovalidate>Take it away</button>")
                + "</p></form>";
    }

    private static String field(String name, String label, @Nullable String value, String attributes) {
        return "<p><label>" + label + "<br><input name=\"" + name + "\" value=\""
                + (value == null ? "" : Escaped.html(value)) + "\" " + attributes + "></label></p>";
    }

    private String runs(List<Seen> seen) {
        if (seen.isEmpty()) return "";
        var rows = new StringBuilder("<h2>Runs</h2><table class=\"groups\"><tbody>");
        for (Seen one : seen.subList(0, Math.min(MAX_RUNS, seen.size())))
            rows.append("<tr><th scope=\"row\"><a href=\"../runs/")
                    .append(RunsSite.encoded(one.run().name()))
                    .append("/#/tests?reason=")
                    .append(reason)
                    .append("\">")
                    .append(day(one.run()))
                    .append("</a></th><td>")
                    .append(Escaped.html(one.run().branch()))
                    .append("</td><td class=\"number\">")
                    .append(HubPages.count(one.tests(), "test"))
                    .append("</td></tr>");
        return rows.append("</tbody></table>") + more(seen.size() - MAX_RUNS, "earlier run");
    }

    /** Those that have it in the newest run that does. */
    private String tests() {
        List<RunResults> all = history.results();
        for (int i = all.size() - 1; i >= 0; i--) {
            int at = position(all.get(i));
            if (at >= 0) return tests(all.get(i), at);
        }
        return "";
    }

    private static String tests(RunResults results, int reason) {
        var list = new StringBuilder("<h2>Tests, in the newest run that has it</h2><ul>");
        int found = 0;
        for (int i = 0; i < results.size(); i++) {
            if (results.reason(i) != reason || ++found > MAX_TESTS) continue;
            list.append("<li><a dir=\"auto\" href=\"../tests?key=")
                    .append(RunsSite.encoded(results.keys().get(i)))
                    .append("\">")
                    .append(Escaped.html(results.names().get(i)))
                    .append("</a></li>");
        }
        return list.append("</ul>") + more(found - MAX_TESTS, "more test");
    }

    private static String more(int count, String what) {
        return count > 0 ? "<p class=\"dim\">and " + HubPages.count(count, what) + "</p>" : "";
    }

    private String changed() {
        if (changes.isEmpty()) return "";
        var rows = new StringBuilder("<h2>Who said it</h2><table class=\"groups\"><tbody>");
        for (Change one : changes)
            rows.append("<tr><th scope=\"row\">")
                    .append(RunsSite.moment(one.at().toInstant()))
                    .append("</th><td>")
                    .append(Escaped.html(one.who()))
                    .append("</td><td dir=\"auto\">")
                    .append(one.known() == null ? "took it away" : sentence(one.known(), LocalDate.MIN))
                    .append("</td></tr>");
        return rows.append("</tbody></table>").toString();
    }
}
