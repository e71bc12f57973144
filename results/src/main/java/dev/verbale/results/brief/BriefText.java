package dev.verbale.results.brief;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.results.DurationText;
import dev.verbale.results.Entry;
import dev.verbale.results.OwnFrames;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.element.MissingElement;
import dev.verbale.results.element.NearElement;
import dev.verbale.results.element.PageSource;
import dev.verbale.results.reason.BrowserFindings;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.results.source.SourceSnippet;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Writes a brief, section by section, within its length. Of one thread. */
final class BriefText {

    private static final int LONGEST_VALUE = 1_000;
    private static final int LONGEST_LINE = 240;
    private static final int MAX_ENTRIES = 40;
    private static final int MAX_EXCHANGES = 3;
    private static final int MAX_FRAMES = 12;
    private static final int MAX_OTHERS = 8;
    private static final int INDENT = 2;
    /** Around a section: its title's signs, and how many lines were left out. */
    private static final int FRAME = 40;

    private final Run run;
    private final TestResult test;
    private final @Nullable MissingElement missing;
    private final @Nullable SourceSnippet source;
    private final BriefOptions options;
    private final int longest;
    private final StringBuilder text = new StringBuilder();

    BriefText(
            Run run,
            TestResult test,
            @Nullable MissingElement missing,
            @Nullable SourceSnippet source,
            BriefOptions options) {
        this.run = run;
        this.test = test;
        this.missing = missing;
        this.source = source;
        this.options = options;
        this.longest = options.longest();
    }

    String whole(@Nullable FailureReason reason) {
        head();
        failure();
        missing();
        code();
        steps();
        console();
        exchanges();
        if (reason != null) others(reason);
        if (options.hasEnvironment()) facts();
        outline();
        return Texts.cut(text.toString().stripTrailing(), longest - 2) + "\n";
    }

    /** Whole sections only, but for the first ones. */
    private void section(String title, List<String> lines) {
        if (lines.isEmpty()) return;
        int room = longest - text.length() - title.length() - FRAME;
        if (room < 80) return;
        var section = new StringBuilder();
        int left = 0;
        for (String line : lines) {
            if (section.length() + line.length() + 2 > room) left++;
            else section.append(line.startsWith("#") ? " " : "").append(line).append('\n');
        }
        text.append("\n## ").append(title).append("\n\n").append(section);
        if (left > 0)
            text.append("(").append(left).append(left == 1 ? " line" : " lines").append(" left out)\n");
    }

    private void head() {
        text.append("# ")
                .append(line(String.join(" › ", test.path()) + (test.path().isEmpty() ? "" : " › ") + test.name()))
                .append('\n');
        text.append('\n')
                .append(line(test.outcome().text()))
                .append(" after ")
                .append(DurationText.of(test.duration()));
        if (test.attempt().number() > 1)
            text.append(", attempt ").append(test.attempt().number());
        text.append("; run ").append(run.name()).append('\n');
        text.append("id: ").append(line(test.key())).append('\n');
        if (test.identity().source() != null)
            text.append("written in: ").append(line(test.identity().source())).append('\n');
        if (test.about().owner() != null)
            text.append("owner: ").append(line(test.about().owner())).append('\n');
        if (options.label() != null)
            text.append("known as: ").append(line(options.label())).append('\n');
        if (options.difference() != null)
            text.append("first different: ").append(line(options.difference())).append('\n');
        if (!test.tags().isEmpty())
            text.append("tags: ").append(line(String.join(", ", test.tags()))).append('\n');
    }

    private void failure() {
        Failure failure = test.failure();
        if (failure == null) {
            section(
                    "Failure",
                    List.of(test.reason() == null ? "None was recorded: the test has no end." : line(test.reason())));
            return;
        }
        List<String> lines = new ArrayList<>();
        lines.add(line(failure.type()));
        if (failure.message() != null) lines.add("  " + block(failure.message(), 2));
        if (failure.expected() != null && failure.actual() != null) {
            lines.add("expected: " + block(failure.expected(), 10));
            lines.add("actual:   " + block(failure.actual(), 10));
        }
        OwnFrames own = run.ownFrames();
        failure.stack()
                .lines()
                .filter(line -> line.startsWith("Caused by: ") || own.isOwnLine(line))
                .map(String::strip)
                .limit(MAX_FRAMES)
                .forEach(frame -> lines.add("  " + line(frame)));
        section("Failure", lines);
    }

    /** The lines around the one that failed, and who touched them last. */
    private void code() {
        if (source == null) return;
        List<String> lines = new ArrayList<>();
        int number = source.first();
        for (String one : source.lines()) {
            lines.add((number == source.line() ? "> " : "  ") + number + "  "
                    + Texts.cut(one.stripTrailing(), LONGEST_LINE));
            number++;
        }
        section("Source, " + line(String.valueOf(source.file().getFileName())), lines);
        CodeAtHand code = options.code();
        List<String> commits = code == null ? List.of() : code.commits().apply(source.file());
        section(
                "Commits that touched it last",
                commits.stream().map(one -> "- " + line(one)).toList());
    }

    private void missing() {
        if (missing == null || missing.nearest().isEmpty()) return;
        List<String> lines = new ArrayList<>();
        lines.add("The page had no " + missing.locator() + ". Nearest to it:");
        for (NearElement near : missing.nearest())
            lines.add("- " + near.selector() + (near.text().isEmpty() ? "" : " \"" + near.text() + "\"") + ": "
                    + near.why());
        section("Element not found", lines);
    }

    private void steps() {
        List<String> lines = new ArrayList<>();
        steps(test.entries(), 0, lines);
        int from = Math.max(0, lines.size() - MAX_ENTRIES);
        List<String> last = new ArrayList<>(lines.subList(from, lines.size()));
        if (from > 0) last.add(0, "… " + from + " lines before");
        section("What happened", last);
    }

    private void steps(List<Entry> entries, int depth, List<String> lines) {
        String indent = " ".repeat(depth * INDENT);
        for (Entry entry : entries) {
            String at = offset(entry) + " " + indent;
            if (entry instanceof Entry.StepEntry step) {
                boolean failed = step.outcome().needsAttention();
                String how = step.outcome().equals(Outcome.PASSED)
                        ? ""
                        : " [" + step.outcome().text() + "]";
                lines.add((failed ? "> " : "  ") + at + line(step.name()) + how);
                // What is inside of a step that passed is known by its name.
                if (failed) steps(step.entries(), depth + 1, lines);
            } else if (entry instanceof Entry.LogEntry log) {
                String level = log.level() == null ? "" : log.level() + ": ";
                String marker = log.written().marker() == null
                        ? ""
                        : "[" + log.written().marker() + "] ";
                lines.add("  " + at + line(level + marker + log.text()));
            } else if (entry instanceof Entry.CheckEntry check) {
                lines.add((check.outcome().needsAttention() ? "> " : "  ") + at + "check " + line(check.name()) + " ["
                        + check.outcome().text() + "]");
            } else if (entry instanceof Entry.DataEntry data) {
                lines.add("  " + at + line(data.name() + " = " + data.value()));
            } else if (entry instanceof Entry.ExchangeEntry exchange) {
                lines.add("  " + at + line(asked(exchange.made())));
            } else if (entry instanceof Entry.AttachmentEntry attachment
                    && !attachment.kind().equals(AttachmentKind.NETWORK)) {
                lines.add("  " + at + "attached " + line(attachment.name()) + ": "
                        + attachment.stored().path());
            }
        }
    }

    private String offset(Entry entry) {
        long millis = Math.max(0, Duration.between(test.started(), entry.at()).toMillis());
        return String.format(Locale.ROOT, "%d:%02d.%03d", millis / 60_000, millis / 1_000 % 60, millis % 1_000);
    }

    private static String asked(ExchangeMade made) {
        String answer = made.response() == null ? "no response" : String.valueOf(made.status());
        return made.request().method() + " " + made.request().url() + " → " + answer;
    }

    private void console() {
        BrowserFindings browser = BrowserFindings.in(test.entries());
        List<String> lines = new ArrayList<>();
        for (String error : browser.scriptErrors()) lines.add(line(error));
        for (BrowserFindings.Request failed : browser.failed())
            lines.add(line(failed.method() + " " + failed.url() + " → "
                    + (failed.status() == 0 ? "no response" : failed.status())));
        section("Browser", lines);
    }

    private void exchanges() {
        List<Entry.ExchangeEntry> all = Entry.ExchangeEntry.in(test.entries());
        List<String> lines = new ArrayList<>();
        for (Entry.ExchangeEntry one : all.subList(Math.max(0, all.size() - MAX_EXCHANGES), all.size())) {
            ExchangeMade made = one.made();
            lines.add(line(asked(made)));
            body("  sent: ", made.request().body(), lines);
            if (made.response() != null) body("  came: ", made.response().body(), lines);
        }
        section("Last exchanges", lines);
    }

    private static void body(String label, ExchangeMade.@Nullable Body body, List<String> lines) {
        if (body == null || body.text() == null || body.text().isBlank()) return;
        lines.add(label + block(body.text(), label.length()));
    }

    private void others(FailureReason reason) {
        List<String> lines = new ArrayList<>();
        lines.add(line(reason.title()));
        for (TestResult other : reason.tests()) {
            if (lines.size() > MAX_OTHERS) break;
            if (!other.key().equals(test.key())) lines.add("- " + line(other.key()));
        }
        if (lines.size() == 1) return;
        // Of each test only its last attempt has a reason. To look for more of this one in all of them takes a second.
        int more = reason.tests().size() - lines.size();
        if (more > 0) lines.add("- and " + more + " more");
        section("Others with this reason", lines);
    }

    private void facts() {
        List<String> lines = new ArrayList<>();
        for (Map.Entry<String, String> fact : run.facts().entrySet())
            lines.add(line(fact.getKey() + ": " + fact.getValue()));
        section("Environment", lines);
    }

    private void outline() {
        String source = PageSource.last(test.entries());
        if (source != null) section("The page, as it was", PageOutline.of(source));
    }

    /** Its lines below each other, indented: none of them looks like a heading of ours. */
    private static String block(String text, int indent) {
        return Texts.cut(text.strip(), LONGEST_VALUE).replaceAll("\\R", "\n" + " ".repeat(indent));
    }

    /** In one line: what a test recorded must not look like a heading of ours. */
    private static String line(String text) {
        String beginning =
                Texts.cut(text.strip(), LONGEST_LINE * 2); // a megabyte of blanks is not searched for line ends
        return Texts.cut(beginning.replaceAll("\\s*\\R\\s*", " ⏎ "), LONGEST_LINE);
    }
}
