package dev.verbale.viewer;

import dev.verbale.history.RunSummary;
import dev.verbale.json.JsonOut;
import dev.verbale.report.Page;
import dev.verbale.results.DurationText;
import dev.verbale.results.Escaped;
import dev.verbale.results.Texts;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayOutputStream;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** The list of runs, the newest first, as HTML. A script puts in what comes later; without it the list is as it was. */
final class ListPage {

    private static final DateTimeFormatter MINUTE = DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm", Locale.ENGLISH);
    private static final int LONGEST = 200;
    private static final int MARK = 3;
    private static final int TALL = 16;
    private static final int CALM = 6;

    private final String nonce;
    private final String title;
    private final List<ViewedRun> runs;

    ListPage(String title, List<ViewedRun> runs) {
        this.title = title;
        this.runs = runs;
        byte[] random = new byte[16];
        new SecureRandom().nextBytes(random);
        this.nonce = HexFormat.of().formatHex(random);
    }

    static String stylesheet() throws IOException {
        return Page.stylesheet() + own("runs.css");
    }

    /** What it may load and run: itself. */
    String policy() {
        return "default-src 'none'; script-src 'nonce-" + nonce + "'; style-src 'unsafe-inline'; font-src data:;"
                + " connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";
    }

    String html() throws IOException {
        var rows = new StringBuilder();
        for (ViewedRun run : runs) rows.append(row(run));
        return own("runs.html")
                .replace("[style]", stylesheet())
                .replace("[folder]", escaped(title))
                .replace("[nonce]", nonce)
                .replace("[script]", own("runs.js"))
                .replace("[rows]", rows); // last: names of strangers are in there
    }

    /** What the script puts into the list, as JSON. */
    static String event(ViewedRun run) {
        var bytes = new ByteArrayOutputStream();
        try (JsonGenerator json = JsonOut.generator(bytes)) {
            json.writeStartObject();
            json.writeStringProperty("name", run.name());
            json.writeStringProperty("row", row(run));
            json.writeEndObject();
        }
        return bytes.toString(StandardCharsets.UTF_8);
    }

    private static String row(ViewedRun run) {
        return "<tr data-run=\"" + escaped(run.name()) + "\" data-tags=\""
                + (run.line() == null
                        ? ""
                        : escaped(String.join(", ", run.line().tags()))) + "\">" + cells(run, "") + "</tr>\n";
    }

    /** @param site the address of its list from where this stands; empty for here */
    static String cells(ViewedRun run, String site) {
        String address = site + "runs/" + RunsSite.encoded(run.name()) + "/";
        return cells(run.name(), run.line(), how(run, run.line()), address, site.isEmpty() ? "./" : site);
    }

    /**
     * @param line null where it is not known how it went
     * @param how in HTML
     * @param list where the list is that a tag leads to; null where tags lead nowhere
     */
    static String cells(String name, @Nullable RunRow line, String how, String address, @Nullable String list) {
        return "<td class=\"when\"><a href=\"" + address + "\">"
                + (line == null ? escaped(name) : moment(line.summary().started()))
                + "</a><span class=\"dim\">" + escaped(name) + "</span></td><td>"
                + (line == null ? "" : escaped(line.summary().branch()) + tags(line, list))
                + "</td><td class=\"how\">" + how + "</td><td class=\"number\">"
                + (line == null ? "" : escaped(DurationText.of(line.summary().duration())))
                + "</td><td>" + (line == null ? "" : marks(line)) + "</td>";
    }

    /** Each leads to the list of the runs that have it. */
    private static String tags(RunRow line, @Nullable String list) {
        var tags = new StringBuilder();
        for (String tag : line.tags())
            tags.append(
                    list == null
                            ? " <span class=\"tag\">" + escaped(tag) + "</span>"
                            : " <a class=\"tag\" href=\"" + list + "?tag=" + RunsSite.encoded(tag) + "\">"
                                    + escaped(tag) + "</a>");
        return tags.toString();
    }

    /** In HTML, in the time of this machine. */
    static String moment(Instant at) {
        return "<time datetime=\"" + at + "\">" + MINUTE.format(at.atZone(ZoneId.systemDefault())) + "</time>";
    }

    /** What cannot be read, or has gaps, is not good. */
    private static String how(ViewedRun run, @Nullable RunRow line) {
        if (run.unreadable() != null)
            return "<b class=\"failed\">cannot be read: " + escaped(String.valueOf(run.unreadable())) + "</b>";
        if (line == null) return "<span class=\"dim\">not read yet</span>";
        if (!run.isGoing()) return how(line);
        int attention = line.summary().needingAttention();
        String soFar = attention == 0 ? "" : ", <b class=\"failed\">" + attention + "</b> of them not good";
        return "<b class=\"going\">going</b>, " + tests(line) + " so far" + soFar + flaky(line);
    }

    /** Of one that is over. What has gaps is not good. */
    static String how(RunRow line) {
        RunSummary summary = line.summary();
        String words = summary.isGood() && line.problems() == 0
                ? summary.words()
                : "<b class=\"failed\">" + escaped(summary.words()) + "</b>";
        String problems = line.problems() == 0
                ? ""
                : ", <b class=\"failed\">" + line.problems() + (line.problems() == 1 ? " problem" : " problems")
                        + "</b> in recording or reading it";
        return words + ", " + tests(line) + flaky(line) + problems;
    }

    private static String tests(RunRow line) {
        return line.summary().tests() + (line.summary().tests() == 1 ? " test" : " tests");
    }

    private static String flaky(RunRow line) {
        return line.flaky() > 0 ? ", " + line.flaky() + " flaky" : "";
    }

    private static String marks(RunRow line) {
        var marks = new StringBuilder("<svg class=\"marks\" viewBox=\"0 0 "
                + line.marks().size() * MARK + " " + TALL + "\" aria-hidden=\"true\">");
        for (int i = 0; i < line.marks().size(); i++) {
            Outcome outcome = line.marks().get(i);
            if (outcome == null) continue;
            int tall = outcome.needsAttention() ? TALL : CALM;
            String look = outcome.isKnown() ? outcome.word() : "unfinished";
            marks.append("<rect class=\"")
                    .append(look)
                    .append("\" x=\"")
                    .append(i * MARK)
                    .append("\" y=\"")
                    .append(TALL - tall)
                    .append("\" width=\"")
                    .append(MARK - 1)
                    .append("\" height=\"")
                    .append(tall)
                    .append("\"/>");
        }
        return marks.append("</svg>").toString();
    }

    private static String escaped(String text) {
        return Escaped.html(Texts.cut(text, LONGEST));
    }

    private static String own(String file) throws IOException {
        try (InputStream in = ListPage.class.getResourceAsStream(file)) {
            if (in == null) throw new FileNotFoundException(file + " is missing in this build of Verbale");
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
