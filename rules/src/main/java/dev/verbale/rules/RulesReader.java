package dev.verbale.rules;

import dev.verbale.rules.TriageRule.Subject;
import dev.verbale.rules.yaml.YamlFormatException;
import dev.verbale.rules.yaml.YamlPart;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;

/**
 * Reads a file of rules by its nodes, for those know their line and column.
 *
 * @since 0.2.0
 */
public final class RulesReader {

    /** The labels that need not be written down. */
    static final List<String> GIVEN = List.of("product", "test", "environment");

    private static final List<String> PARTS = List.of("labels", "triage", "gate");
    private static final List<String> OF_A_RULE = List.of("when", "label", "owner", "link", "comment", "known-until");
    private static final List<String> OF_THE_GATE = List.of(
            "failures",
            "new-failures",
            "except-flaky",
            "unlabelled",
            "expired",
            "flaky",
            "min-tests",
            "slower",
            "vanished",
            "unclosed",
            "shards",
            "missing");

    private static final String DOCUMENT = "docs/rules.md";

    private final Set<String> labels = new LinkedHashSet<>(GIVEN);

    private RulesReader() {}

    /**
     * Reads {@code file}.
     *
     * @throws YamlFormatException where it says something that cannot be meant; with line and column
     * @throws IOException where it cannot be read
     */
    public static Rules read(Path file) throws YamlFormatException, IOException {
        return new RulesReader().read(YamlPart.read(file, DOCUMENT));
    }

    /**
     * Reads rules that are no file, such as those of a hub.
     *
     * @param from where they are from, for messages
     * @throws YamlFormatException where they say something that cannot be meant; with line and column
     */
    public static Rules read(Path from, String text) throws YamlFormatException {
        return new RulesReader().read(YamlPart.read(from, DOCUMENT, text));
    }

    private Rules read(Optional<YamlPart> root) throws YamlFormatException {
        if (root.isEmpty()) return Rules.NONE;
        Map<String, YamlPart> parts = root.get().mapping("the file", PARTS);
        if (parts.containsKey("labels"))
            for (YamlPart label : parts.get("labels").list("labels")) labels.add(label.text("a label"));
        List<TriageRule> triage = new ArrayList<>();
        if (parts.containsKey("triage"))
            for (YamlPart rule : parts.get("triage").list("triage")) triage.add(rule(rule));
        GateRules gate = parts.containsKey("gate") ? gate(parts.get("gate")) : GateRules.STRICT;
        return new Rules(triage, gate);
    }

    private TriageRule rule(YamlPart node) throws YamlFormatException {
        Map<String, YamlPart> parts = node.mapping("a rule", OF_A_RULE);
        YamlPart when = parts.get("when");
        if (when == null) throw node.bad("this rule has no 'when'", "Write what the failures have that it is about");
        YamlPart label = parts.get("label");
        if (label == null)
            throw node.bad("this rule has no 'label'", "Write one of " + labels + ", or list a new one under 'labels'");
        String name = label.text("a label");
        if (!labels.contains(name))
            throw label.bad(
                    "the label '" + name + "' is not known", "Write one of " + labels + ", or list it under 'labels'");
        return new TriageRule(
                node.line(),
                when(when),
                name,
                optional(parts.get("owner"), "an owner"),
                optional(parts.get("link"), "a link"),
                optional(parts.get("comment"), "a comment"),
                day(parts.get("known-until")));
    }

    private Map<Subject, List<TextPattern>> when(YamlPart node) throws YamlFormatException {
        Map<Subject, List<TextPattern>> wanted = new EnumMap<>(Subject.class);
        List<String> subjects =
                Arrays.stream(Subject.values()).map(Subject::word).toList();
        for (var part : node.mapping("'when'", subjects).entrySet()) {
            List<TextPattern> patterns = new ArrayList<>();
            for (YamlPart text : part.getValue().parts()) patterns.add(pattern(text, part.getKey()));
            Subject.ofWord(part.getKey()).ifPresent(subject -> wanted.put(subject, patterns));
        }
        if (wanted.isEmpty())
            throw node.bad("'when' is empty, and would match every failure", "Name one of " + subjects);
        return wanted;
    }

    private TextPattern pattern(YamlPart node, String subject) throws YamlFormatException {
        String text = node.text("'" + subject + "'");
        if (text.isEmpty())
            throw node.bad("'" + subject + "' is empty, and would match everything", "Leave it out, or write a text");
        try {
            return TextPattern.of(text);
        } catch (PatternSyntaxException broken) {
            throw node.bad(
                    "'" + text + "' is no regular expression: " + broken.getDescription(),
                    "What stands between slashes is one; without them it is looked for as it stands");
        }
    }

    private @Nullable LocalDate day(@Nullable YamlPart node) throws YamlFormatException {
        if (node == null) return null;
        String text = node.text("a day");
        try {
            return LocalDate.parse(text);
        } catch (DateTimeParseException noDay) {
            throw node.bad("'" + text + "' is no day", "Write it as 2026-12-31");
        }
    }

    private GateRules gate(YamlPart node) throws YamlFormatException {
        Map<String, Integer> numbers = new HashMap<>();
        for (var part : node.mapping("the gate", OF_THE_GATE).entrySet()) {
            String text = part.getValue().text("'" + part.getKey() + "'");
            if (!text.matches("\\d{1,9}"))
                throw part.getValue().bad("'" + text + "' is no number", "Write a whole number from 0");
            if (part.getKey().equals("except-flaky") && Integer.parseInt(text) > 100)
                throw part.getValue().bad("'" + text + "' is more than 100 per cent", "Write a number from 0 to 100");
            numbers.put(part.getKey(), Integer.valueOf(text));
        }
        if (numbers.isEmpty())
            throw node.bad("the gate asks for nothing", "Name one of " + OF_THE_GATE + ", or leave 'gate' out");
        return new GateRules(
                numbers.get("failures"),
                numbers.get("new-failures"),
                numbers.get("except-flaky"),
                numbers.get("unlabelled"),
                numbers.get("expired"),
                numbers.get("flaky"),
                numbers.getOrDefault("min-tests", 1),
                numbers.get("slower"),
                numbers.get("vanished"),
                numbers.getOrDefault("unclosed", 0),
                numbers.getOrDefault("shards", 0),
                numbers.getOrDefault("missing", 0));
    }

    private @Nullable String optional(@Nullable YamlPart node, String what) throws YamlFormatException {
        return node == null ? null : node.text(what);
    }
}
