package dev.verbale.export;

import dev.verbale.journal.PlainFile;
import dev.verbale.results.Entry;
import dev.verbale.results.Escaped;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Line;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.TodayParts.Reason;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A run as a mail: the sentence, what is new, then all else, the reasons with their tests and a small screenshot each. As HTML without scripts, whose
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

    /** For mail programs that know it; others show it as it is, or turn its colours themselves. */
    private static final String IN_THE_DARK = "<meta name=\"color-scheme\" content=\"light dark\">\n"
            + "<style>@media (prefers-color-scheme: dark) { body { background: #1b1915 !important; color: #ebe4d5 !important }"
            + " [style*=\"#6f6757\"] { color: #a79e8c !important } a { color: #9cc6df !important }"
            + " img { border-color: #38342b !important } }</style>\n";

    private static final String BODY =
            "margin:0;padding:24px;background:#f8f4ea;color:#29251e;font:16px/1.5 Georgia,serif";
    private static final String SENTENCE = "margin:0 0 8px;font-size:26px;font-weight:normal;line-height:1.25";
    private static final String DIM = "color:#6f6757";
    private static final String CODE = "font:13px/1.4 Consolas,Menlo,monospace";

    private static final String PLAIN = "margin:0 0 4px";

    private final TodayParts today;

    private final @Nullable String page;

    private MailSummary(TodayParts today, @Nullable String page) {
        this.today = today;
        this.page = page;
    }

    /** As HTML of one file. */
    public static String html(TodayParts today) {
        return html(today, null);
    }

    /** @param page the address of the run's page; null where there is none */
    public static String html(TodayParts today, @Nullable String page) {
        return new MailSummary(today, page).html();
    }

    /** As plain text, in lines of any length. */
    public static String text(TodayParts today) {
        return text(today, null);
    }

    /** @param page the address of the run's page; null where there is none */
    public static String text(TodayParts today, @Nullable String page) {
        return new MailSummary(today, page).text();
    }

    private String html() {
        var html = new StringBuilder("<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>");
        html.append(escaped(today.dateline()))
                .append("</title>\n")
                .append(IN_THE_DARK)
                .append("</head>\n<body style=\"")
                .append(BODY)
                .append("\">\n");
        element(html, "p", "margin:0;" + DIM, today.dateline());
        element(html, "h1", SENTENCE, today.sentence());
        for (String sentence : today.beside()) element(html, "p", PLAIN, sentence);
        element(html, "p", PLAIN, String.join(" ", today.gate()));
        if (page != null)
            html.append("<p style=\"")
                    .append(PLAIN)
                    .append("\"><a style=\"color:#b5532a\" href=\"")
                    .append(escaped(page))
                    .append("\">The page of the run</a></p>\n");
        int images = 0;
        for (Part part : today.parts()) {
            element(
                    html,
                    "h2",
                    "margin:28px 0 4px;font-size:20px;font-weight:normal",
                    part.title() + " (" + part.count() + ")");
            for (Reason reason : part.reasons()
                    .subList(0, Math.min(MAX_REASONS, part.reasons().size()))) {
                element(html, "h3", "margin:16px 0 4px;font-size:17px", reason.title());
                for (String about : reason.about()) element(html, "p", PLAIN, about);
                if (reason.evidence() != null) element(html, "p", PLAIN + ";" + CODE, reason.evidence());
                list(html, reason.tests());
                String image = images < MAX_IMAGES && reason.first() != null ? image(reason.first()) : null;
                if (image == null) continue;
                images++;
                html.append(
                                "<img alt=\"Screenshot of the first of them\" style=\"display:block;margin:8px 0;max-width:100%;border:1px solid"
                                        + " #e2dac8\" src=\"")
                        .append(image)
                        .append("\">\n");
            }
            more(part).ifPresent(more -> element(html, "p", DIM, more));
            list(html, part.lines());
        }
        return html.append("</body></html>\n").toString();
    }

    private static void element(StringBuilder html, String name, String style, String text) {
        html.append('<').append(name).append(" style=\"").append(style).append("\">");
        html.append(escaped(text)).append("</").append(name).append(">\n");
    }

    private static void list(StringBuilder html, List<Line> lines) {
        if (lines.isEmpty()) return;
        html.append("<ul style=\"margin:0;padding-left:20px\">\n");
        for (String line : first(lines))
            html.append("<li>").append(escaped(line)).append("</li>\n");
        html.append("</ul>\n");
    }

    private static Optional<String> more(Part part) {
        int more = part.reasons().size() - MAX_REASONS;
        return more > 0 ? Optional.of("and " + more + " more reasons") : Optional.empty();
    }

    private String text() {
        var text = new StringBuilder(line(today.sentence())).append('\n').append(line(today.dateline()));
        text.append("\n\n");
        for (String sentence : today.beside()) text.append(line(sentence)).append('\n');
        text.append(line(String.join(" ", today.gate()))).append('\n');
        if (page != null)
            text.append("\nThe page of the run: ").append(line(page)).append('\n');
        for (Part part : today.parts()) {
            String title = line(part.title() + " (" + part.count() + ")");
            text.append('\n')
                    .append(title)
                    .append('\n')
                    .append("-".repeat(title.length()))
                    .append('\n');
            for (Reason reason : part.reasons()
                    .subList(0, Math.min(MAX_REASONS, part.reasons().size()))) {
                text.append("* ").append(line(reason.title())).append('\n');
                for (String about : reason.about())
                    text.append("  ").append(line(about)).append('\n');
                if (reason.evidence() != null)
                    text.append("  ").append(line(reason.evidence())).append('\n');
                for (String test : first(reason.tests()))
                    text.append("  - ").append(line(test)).append('\n');
            }
            more(part).ifPresent(more -> text.append(more).append('\n'));
            for (String test : first(part.lines()))
                text.append("- ").append(line(test)).append('\n');
        }
        return text.toString();
    }

    private static List<String> first(List<Line> lines) {
        List<String> first = new ArrayList<>();
        for (Line line : lines.subList(0, Math.min(MAX_TESTS, lines.size())))
            first.add(line.name() + (line.more().isEmpty() ? "" : ": " + line.more()));
        if (lines.size() > MAX_TESTS) first.add("and " + (lines.size() - MAX_TESTS) + " more");
        return first;
    }

    /** The last one: what was to be seen when it failed. */
    private static @Nullable String image(TestResult test) {
        var last = Entry.AttachmentEntry.last(test.entries(), AttachmentKind.SCREENSHOT);
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
