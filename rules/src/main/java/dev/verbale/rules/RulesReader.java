package dev.verbale.rules;

import dev.verbale.rules.TriageRule.Subject;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

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

    private final Path file;
    private final Set<String> labels = new LinkedHashSet<>(GIVEN);

    private RulesReader(Path file) {
        this.file = file;
    }

    /**
     * Reads {@code file}.
     *
     * @throws RulesFormatException where it says something that cannot be meant; with line and column
     * @throws IOException where it cannot be read
     */
    public static Rules read(Path file) throws RulesFormatException, IOException {
        return new RulesReader(file).read();
    }

    /**
     * Reads rules that are no file, such as those of a hub.
     *
     * @param from where they are from, for messages
     * @throws RulesFormatException where they say something that cannot be meant; with line and column
     */
    public static Rules read(Path from, String text) throws RulesFormatException {
        return new RulesReader(from).read(text);
    }

    private Rules read() throws RulesFormatException, IOException {
        try {
            return read(Files.readString(file));
        } catch (CharacterCodingException noText) {
            throw new RulesFormatException(file, 1, 1, "this is no text in UTF-8", "Save it as UTF-8");
        }
    }

    private Rules read(String text) throws RulesFormatException {
        Optional<Node> root;
        try {
            LoadSettings settings =
                    LoadSettings.builder().setLabel(file.toString()).build();
            root = new Composer(settings, new ParserImpl(settings, new StreamReader(settings, text))).getSingleNode();
        } catch (MarkedYamlEngineException broken) {
            Mark mark = broken.getProblemMark().or(broken::getContextMark).orElse(null);
            throw new RulesFormatException(
                    file,
                    mark == null ? 1 : mark.getLine() + 1,
                    mark == null ? 1 : mark.getColumn() + 1,
                    "this is no YAML: " + broken.getProblem(),
                    "See docs/rules.md for an example");
        } catch (YamlEngineException | StackOverflowError broken) {
            throw new RulesFormatException(
                    file,
                    1,
                    1,
                    "this cannot be read as YAML (" + broken.getMessage() + ")",
                    "See docs/rules.md for an example");
        }
        if (root.isEmpty()) return Rules.NONE;
        Map<String, Node> parts = mapping(root.get(), "the file", PARTS);
        if (parts.containsKey("labels"))
            for (Node label : sequence(parts.get("labels"), "labels")) labels.add(text(label, "a label"));
        List<TriageRule> triage = new ArrayList<>();
        if (parts.containsKey("triage"))
            for (Node rule : sequence(parts.get("triage"), "triage")) triage.add(rule(rule));
        GateRules gate = parts.containsKey("gate") ? gate(parts.get("gate")) : GateRules.STRICT;
        return new Rules(triage, gate);
    }

    private TriageRule rule(Node node) throws RulesFormatException {
        Map<String, Node> parts = mapping(node, "a rule", OF_A_RULE);
        Node when = parts.get("when");
        if (when == null) throw bad(node, "this rule has no 'when'", "Write what the failures have that it is about");
        Node label = parts.get("label");
        if (label == null)
            throw bad(
                    node, "this rule has no 'label'", "Write one of " + labels + ", or list a new one under 'labels'");
        String name = text(label, "a label");
        if (!labels.contains(name))
            throw bad(
                    label,
                    "the label '" + name + "' is not known",
                    "Write one of " + labels + ", or list it under 'labels'");
        return new TriageRule(
                line(node),
                when(when),
                name,
                optional(parts.get("owner"), "an owner"),
                optional(parts.get("link"), "a link"),
                optional(parts.get("comment"), "a comment"),
                day(parts.get("known-until")));
    }

    private Map<Subject, List<TextPattern>> when(Node node) throws RulesFormatException {
        Map<Subject, List<TextPattern>> wanted = new EnumMap<>(Subject.class);
        List<String> subjects =
                Arrays.stream(Subject.values()).map(Subject::word).toList();
        for (var part : mapping(node, "'when'", subjects).entrySet()) {
            List<TextPattern> patterns = new ArrayList<>();
            Node value = part.getValue();
            List<Node> texts = value instanceof SequenceNode list ? list.getValue() : List.of(value);
            for (Node text : texts) patterns.add(pattern(text, part.getKey()));
            Subject.ofWord(part.getKey()).ifPresent(subject -> wanted.put(subject, patterns));
        }
        if (wanted.isEmpty())
            throw bad(node, "'when' is empty, and would match every failure", "Name one of " + subjects);
        return wanted;
    }

    private TextPattern pattern(Node node, String subject) throws RulesFormatException {
        String text = text(node, "'" + subject + "'");
        if (text.isEmpty())
            throw bad(node, "'" + subject + "' is empty, and would match everything", "Leave it out, or write a text");
        try {
            return TextPattern.of(text);
        } catch (PatternSyntaxException broken) {
            throw bad(
                    node,
                    "'" + text + "' is no regular expression: " + broken.getDescription(),
                    "What stands between slashes is one; without them it is looked for as it stands");
        }
    }

    private @Nullable LocalDate day(@Nullable Node node) throws RulesFormatException {
        if (node == null) return null;
        String text = text(node, "a day");
        try {
            return LocalDate.parse(text);
        } catch (DateTimeParseException noDay) {
            throw bad(node, "'" + text + "' is no day", "Write it as 2026-12-31");
        }
    }

    private GateRules gate(Node node) throws RulesFormatException {
        Map<String, Integer> numbers = new HashMap<>();
        for (var part : mapping(node, "the gate", OF_THE_GATE).entrySet()) {
            String text = text(part.getValue(), "'" + part.getKey() + "'");
            if (!text.matches("\\d{1,9}"))
                throw bad(part.getValue(), "'" + text + "' is no number", "Write a whole number from 0");
            if (part.getKey().equals("except-flaky") && Integer.parseInt(text) > 100)
                throw bad(part.getValue(), "'" + text + "' is more than 100 per cent", "Write a number from 0 to 100");
            numbers.put(part.getKey(), Integer.valueOf(text));
        }
        if (numbers.isEmpty())
            throw bad(node, "the gate asks for nothing", "Name one of " + OF_THE_GATE + ", or leave 'gate' out");
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

    private Map<String, Node> mapping(Node node, String what, List<String> known) throws RulesFormatException {
        if (!(node instanceof MappingNode mapping))
            throw bad(node, what + " is no mapping", "Write names with values: " + known);
        Map<String, Node> parts = new LinkedHashMap<>();
        for (NodeTuple tuple : mapping.getValue()) {
            String name = text(tuple.getKeyNode(), "a name");
            if (!known.contains(name))
                throw bad(
                        tuple.getKeyNode(),
                        "'" + name + "' is not known here",
                        "Known are " + String.join(", ", known));
            if (parts.put(name, tuple.getValueNode()) != null)
                throw bad(tuple.getKeyNode(), "'" + name + "' stands here twice", "Keep one; several texts are a list");
        }
        return parts;
    }

    private List<Node> sequence(@Nullable Node node, String what) throws RulesFormatException {
        if (node instanceof SequenceNode list) return list.getValue();
        if (node == null) return List.of();
        throw bad(node, "'" + what + "' is no list", "Begin each of its parts with a hyphen");
    }

    private String text(Node node, String what) throws RulesFormatException {
        if (node instanceof ScalarNode scalar) return scalar.getValue();
        throw bad(node, what + " is no text", "Write one text there");
    }

    private @Nullable String optional(@Nullable Node node, String what) throws RulesFormatException {
        return node == null ? null : text(node, what);
    }

    private static int line(Node node) {
        return node.getStartMark().map(mark -> mark.getLine() + 1).orElse(1);
    }

    private RulesFormatException bad(Node node, String what, String remedy) {
        int column = node.getStartMark().map(mark -> mark.getColumn() + 1).orElse(1);
        return new RulesFormatException(file, line(node), column, what, remedy);
    }
}
