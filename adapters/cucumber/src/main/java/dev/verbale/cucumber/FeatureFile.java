package dev.verbale.cucumber;

import io.cucumber.plugin.event.Node;
import java.net.URI;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A feature as it is written. The identity of a scenario is made of names, and of numbers among equal ones; never of a line, so that
 * what is inserted above makes no new scenario of it.
 */
final class FeatureFile {

    /** Where a feature lies says nothing that differs between a class path and a folder. */
    private static final List<String> ROOTS =
            List.of("src/test/resources/", "target/test-classes/", "build/resources/test/");

    private final String path;
    private final String name;
    private final String[] lines;
    private final Map<Integer, Scenario> byLine = new HashMap<>();

    /**
     * A scenario, or one row of an outline.
     *
     * @param key its identity in all runs
     * @param rules the names of the rules around it
     * @param number which row of its outline it is, from 1; 0 where it is no row
     * @param outline what its outline is called as it is written; null where it is no row
     * @param head the names of its cells
     * @param cells what it is run with
     */
    record Scenario(
            String key,
            List<String> rules,
            int number,
            @Nullable String outline,
            List<String> head,
            List<String> cells) {}

    FeatureFile(URI uri, Node feature, String source) {
        this.path = path(uri);
        this.name = feature.getName().filter(given -> !given.isBlank()).orElse(path);
        this.lines = source.split("\r?\n", -1);
        if (feature instanceof Node.Container<?> container) read(container, path, List.of());
    }

    /** Such as {@code features/rota.feature}, however it was found. */
    String path() {
        return path;
    }

    String name() {
        return name;
    }

    /** The scenario, or the row, that stands at {@code line}. */
    Scenario at(int line, String called) {
        Scenario known = byLine.get(line);
        return known != null ? known : new Scenario(path + "/" + called, List.of(), 0, null, List.of(), List.of());
    }

    private static String path(URI uri) {
        String text = uri.getPath() == null ? uri.getSchemeSpecificPart() : uri.getPath();
        text = text.replace('\\', '/');
        for (String root : ROOTS) {
            int at = text.indexOf(root);
            if (at >= 0) return text.substring(at + root.length());
        }
        String here = Path.of("").toAbsolutePath().toUri().getPath();
        if (text.startsWith(here)) text = text.substring(here.length());
        return text.startsWith("/") ? text.substring(1) : text;
    }

    private void read(Node.Container<?> container, String around, List<String> rules) {
        Map<String, Integer> seen = new HashMap<>();
        for (Node node : container.elements()) {
            String key = around + "/" + numbered(nameOf(node), seen);
            if (node instanceof Node.Rule rule) {
                List<String> inner = new ArrayList<>(rules);
                inner.add(nameOf(rule));
                read(rule, key, List.copyOf(inner));
            } else if (node instanceof Node.ScenarioOutline outline) {
                outline(outline, key, rules);
            } else {
                byLine.put(node.getLocation().getLine(), new Scenario(key, rules, 0, null, List.of(), List.of()));
            }
        }
    }

    private void outline(Node.ScenarioOutline outline, String key, List<String> rules) {
        int number = 0;
        for (Node.Examples examples : outline.elements()) {
            List<String> head = null;
            for (Node.Example row : examples.elements()) {
                int line = row.getLocation().getLine();
                if (head == null) head = rowAbove(line);
                byLine.put(line, new Scenario(key + "#" + ++number, rules, number, nameOf(outline), head, rowAt(line)));
            }
        }
    }

    private static String nameOf(Node node) {
        Optional<String> given = node.getName().filter(name -> !name.isBlank());
        return given.orElseGet(() -> node.getKeyword().orElse("scenario"));
    }

    /** The second of a name is another one. */
    private static String numbered(String called, Map<String, Integer> seen) {
        int count = seen.merge(called, 1, Integer::sum);
        return count == 1 ? called : called + " (" + count + ")";
    }

    private List<String> rowAbove(int line) {
        for (int above = line - 1; above > 0; above--) {
            List<String> cells = rowAt(above);
            if (!cells.isEmpty()) return cells;
        }
        return List.of();
    }

    /** The cells of a table's row, by the rules of Gherkin; empty where there is none at that line. */
    private List<String> rowAt(int line) {
        if (line < 1 || line > lines.length) return List.of();
        String text = lines[line - 1].strip();
        if (!text.startsWith("|")) return List.of();
        List<String> cells = new ArrayList<>();
        var cell = new StringBuilder();
        for (int i = 1; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '|') {
                cells.add(cell.toString().strip());
                cell.setLength(0);
            } else if (c == '\\' && i + 1 < text.length()) {
                char escaped = text.charAt(++i);
                if (escaped == 'n') cell.append('\n');
                else if (escaped == '|' || escaped == '\\') cell.append(escaped);
                else cell.append(c).append(escaped);
            } else cell.append(c);
        }
        return cells;
    }
}
