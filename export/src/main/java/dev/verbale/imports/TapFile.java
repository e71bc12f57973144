package dev.verbale.imports;

import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The Test Anything Protocol, version 14 (testanything.org, 2022), and 13, which has less. Subtests are indented by four blanks; the
 * point that closes them is no test of its own.
 */
final class TapFile {

    private static final Pattern POINT = Pattern.compile("(not )?ok\\b(?:\\s+(\\d{1,9}))?(?:\\s+-)?\\s*(.*)");
    private static final Pattern PLAN = Pattern.compile("1\\.\\.(\\d{1,9})\\s*(?:#\\s*(.*))?");
    private static final Pattern DIRECTIVE = Pattern.compile("(.*?)(?<!\\\\)#\\s*(?i:(skip|todo))\\w*\\s*(.*)");
    private static final Pattern SUBTEST = Pattern.compile("#\\s*Subtest(?::\\s*(.*))?");
    private static final Pattern MICROS = Pattern.compile("duration_ms:\\s*([\\d.]+)");
    private static final Pattern MESSAGE = Pattern.compile("message:\\s*['\"]?(.*?)['\"]?\\s*");

    private final ForeignResults results = new ForeignResults();
    private final Deque<Level> levels = new ArrayDeque<>();
    private @Nullable ForeignTest last;
    private @Nullable StringBuilder diagnostics;

    /** A file, or a subtest in it. */
    private static final class Level {
        private final int indent;
        private final String name;
        private int planned = -1;
        private int points;

        private Level(int indent, String name) {
            this.indent = indent;
            this.name = name;
        }
    }

    private TapFile() {}

    /** @param name of the file, which stands for its suite */
    static ForeignResults read(String name, List<String> lines) {
        var file = new TapFile();
        file.levels.push(new Level(0, name));
        for (int i = 0; i < lines.size(); i++) file.line(lines.get(i), i + 1);
        file.endDiagnostics();
        while (!file.levels.isEmpty()) file.leave(lines.size());
        return file.results;
    }

    private void line(String line, int number) {
        String text = line.strip();
        StringBuilder open = diagnostics;
        if (open != null) {
            if (text.equals("...")) endDiagnostics();
            else open.append(text).append('\n');
            return;
        }
        if (text.isEmpty() || text.startsWith("TAP version") || text.startsWith("pragma ")) return;
        int indent = line.length() - line.stripLeading().length();
        if (text.equals("---") && last != null) {
            diagnostics = new StringBuilder();
            return;
        }
        Matcher subtest = SUBTEST.matcher(text);
        if (subtest.matches()) {
            String name = subtest.group(1) == null ? "subtest" : subtest.group(1);
            // Said inside of it, or before it at the level of its parent.
            levels.push(new Level(indent > level().indent ? indent : indent + 4, name));
            return;
        }
        if (text.startsWith("Bail out!")) {
            results.isTorn = true;
            results.problem(number, "the run was given up: " + text.substring(9).strip());
            return;
        }
        if (text.startsWith("#")) {
            results.output.add(text.substring(1).strip());
            return;
        }
        Matcher plan = PLAN.matcher(text);
        if (plan.matches()) {
            level().planned = Integer.parseInt(plan.group(1));
            return;
        }
        Matcher point = POINT.matcher(text);
        if (point.matches()) point(point, indent, number);
        else results.output.add(text);
    }

    private Level level() {
        Level top = levels.peek();
        return top == null ? new Level(0, "") : top;
    }

    private void point(Matcher point, int indent, int number) {
        boolean closes = false;
        while (levels.size() > 1 && indent < level().indent) {
            leave(number);
            closes = true;
        }
        Level level = level();
        level.points++;
        if (closes) return; // its subtests said it all
        String name = point.group(3).strip();
        Matcher directive = DIRECTIVE.matcher(name);
        String word = "";
        String why = "";
        if (directive.matches()) {
            name = directive.group(1).strip();
            word = directive.group(2).toLowerCase(java.util.Locale.ROOT);
            why = directive.group(3).strip();
        }
        if (name.isEmpty()) name = "test " + (point.group(2) == null ? String.valueOf(level.points) : point.group(2));
        var test = new ForeignTest(suite(), name.replace("\\#", "#").replace("\\\\", "\\"));
        boolean failed = point.group(1) != null;
        if (word.equals("skip")) test.outcome = Outcome.SKIPPED;
        else if (failed) test.outcome = word.equals("todo") ? Outcome.EXPECTED_FAILURE : Outcome.FAILED;
        if (!why.isEmpty()) test.reason = why;
        if (test.outcome.equals(Outcome.FAILED))
            test.failure = Failure.of("not ok", "").message(name).build();
        results.tests.add(test);
        last = test;
    }

    private String suite() {
        var names = new StringBuilder();
        for (var all = levels.descendingIterator(); all.hasNext(); )
            names.append(names.length() == 0 ? "" : " › ").append(all.next().name);
        return names.toString();
    }

    private void endDiagnostics() {
        StringBuilder text = diagnostics;
        diagnostics = null;
        ForeignTest test = last;
        if (text == null || test == null) return;
        Matcher micros = MICROS.matcher(text);
        if (micros.find()) {
            try {
                test.micros = Math.min(1_000_000_000_000L, Math.round(Double.parseDouble(micros.group(1)) * 1_000));
            } catch (NumberFormatException odd) {
                // then nobody knows
            }
        }
        String message = text.toString()
                .lines()
                .map(MESSAGE::matcher)
                .filter(Matcher::matches)
                .map(one -> one.group(1))
                .findFirst()
                .orElse(null);
        if (test.failure != null)
            test.failure = Failure.of("not ok", text.toString())
                    .message(message == null ? test.name : message)
                    .build();
        else if (!text.toString().isBlank()) test.output.add(text.toString().strip());
    }

    private void leave(int number) {
        Level level = levels.pop();
        if (level.planned <= level.points) return;
        results.isTorn = true;
        results.problem(
                number,
                "'" + level.name + "' planned " + level.planned + " tests and has " + level.points
                        + "; the others never came");
    }
}
