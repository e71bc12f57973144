package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import dev.verbale.rules.Standing;
import dev.verbale.rules.TodayParts.Line;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.TodayParts.Reason;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * A part of what is to know, for a terminal: each reason with what told it, what the team says of it, and its tests. In the width of a
 * terminal, so that nothing that a test recorded breaks a line.
 */
final class PartText {

    private static final int MAX_TESTS = 2;

    private final PrintWriter out;
    private final TerminalText text;
    private final int limit;
    private final UnaryOperator<String> links;

    /**
     * @param run whose page its reasons lead to, where it has one
     * @param limit how many reasons, or lines, of a part at the most
     */
    PartText(PrintWriter out, TerminalText text, Run run, int limit) {
        this.out = out;
        this.text = text;
        Path page = new RunFolder(run.folder().toAbsolutePath()).page().resolve("index.html");
        links = Files.exists(page) ? id -> page.toUri() + "#/tests?reason=" + id : id -> "";
        this.limit = limit;
    }

    void print(Part part) {
        out.println();
        out.println(title(part) + text.dim("  " + count(part)));
        List<Reason> reasons = part.reasons();
        for (Reason reason : reasons.subList(0, Math.min(limit, reasons.size()))) print(reason);
        more(reasons.size() - limit, "reason");
        List<Line> lines = part.lines();
        for (Line line : lines.subList(0, Math.min(limit, lines.size()))) print("  ", line, "");
        more(lines.size() - limit, "");
    }

    private String title(Part part) {
        boolean isUrgent = part.standing() == Standing.NEW
                || part.standing() == Standing.NEW_TOGETHER
                || part.standing() == Standing.UNCOMPARED;
        return isUrgent ? text.bad(part.title()) : text.strong(part.title());
    }

    private static String count(Part part) {
        int count = part.count();
        if (part.reasons().isEmpty()) return String.valueOf(count);
        int reasons = part.reasons().size();
        String what = part.standing() == null ? "test" : "failure";
        return count + " " + what + (count == 1 ? ", " : "s, ") + (reasons == 1 ? "1 reason" : reasons + " reasons");
    }

    private void more(int count, String word) {
        if (count > 0)
            out.println(text.dim(
                    "  and " + count + " more" + (word.isEmpty() ? "" : " " + word + (count == 1 ? "" : "s"))));
    }

    private void print(Reason reason) {
        String id = reason.id().isEmpty() ? "" : "  " + reason.id();
        String shownId = id.isEmpty() ? "" : "  " + text.link(text.dim(reason.id()), links.apply(reason.id()));
        String title = text.oneLine(reason.title());
        int room = text.width() - 2 - id.length();
        if (title.length() <= room) out.println("  " + text.strong(title) + shownId);
        else {
            List<String> lines = text.wrapped(title, room, 2);
            out.println("  " + text.strong(lines.get(0)) + shownId);
            for (String line : lines.subList(1, lines.size())) out.println("  " + text.strong(line));
        }
        for (String line : together(reason.about())) out.println("    " + text.cut(line, text.width() - 4));
        if (reason.evidence() != null) out.println("    " + text.dim(text.cut(reason.evidence(), text.width() - 4)));
        List<Line> tests = reason.tests();
        int shown = tests.size() <= MAX_TESTS ? tests.size() : 1;
        for (int i = 0; i < shown; i++) {
            String code = i == 0 ? Texts.cut(reason.code(), 60) : "";
            String more = i == 0 && shown < tests.size() ? "and " + (tests.size() - shown) + " more" : "";
            print("    ", tests.get(i), (code + (code.isEmpty() || more.isEmpty() ? "" : "  ") + more));
        }
    }

    /** As many in a line as fit. */
    private List<String> together(List<String> texts) {
        List<String> lines = new ArrayList<>();
        String line = "";
        for (String one : texts) {
            String more = text.oneLine(one);
            if (line.isEmpty()) line = more;
            else if (line.length() + more.length() + 2 <= text.width() - 4) line += "; " + more;
            else {
                lines.add(line);
                line = more;
            }
        }
        if (!line.isEmpty()) lines.add(line);
        return lines;
    }

    /** The name gives way to what stands behind it: its beginning tells which test it is. */
    private void print(String indent, Line line, String aside) {
        String more = text.oneLine(line.more());
        String behind = (more.isEmpty() ? "" : ": " + more);
        int room = Math.max(
                20, text.width() - indent.length() - behind.length() - (aside.isEmpty() ? 0 : aside.length() + 2));
        out.println(indent
                + text.cut(line.name(), room)
                + text.cut(behind, text.width())
                + (aside.isEmpty() ? "" : text.dim("  " + aside)));
    }
}
