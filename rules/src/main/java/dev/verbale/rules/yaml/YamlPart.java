package dev.verbale.rules.yaml;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
 * A piece of a file in YAML that a person wrote, by its nodes, for those know their line and column. Values do not change.
 *
 * @since 0.2.0
 */
public final class YamlPart {

    private final Path file;
    private final String document;
    private final Node node;

    private YamlPart(Path file, String document, Node node) {
        this.file = file;
        this.document = document;
        this.node = node;
    }

    /**
     * Reads a file.
     *
     * @param document which of our documents shows how such a file looks
     * @return empty where it says nothing
     * @throws YamlFormatException where it is no YAML in UTF-8
     * @throws IOException where it cannot be read
     */
    public static Optional<YamlPart> read(Path file, String document) throws YamlFormatException, IOException {
        try {
            return read(file, document, Files.readString(file));
        } catch (CharacterCodingException noText) {
            throw new YamlFormatException(file, 1, 1, "this is no text in UTF-8", "Save it as UTF-8");
        }
    }

    /**
     * Reads a text that is no file.
     *
     * @param from where it is from, for messages
     * @throws YamlFormatException where it is no YAML
     */
    public static Optional<YamlPart> read(Path from, String document, String text) throws YamlFormatException {
        try {
            LoadSettings settings =
                    LoadSettings.builder().setLabel(from.toString()).build();
            return new Composer(settings, new ParserImpl(settings, new StreamReader(settings, text)))
                    .getSingleNode()
                    .map(root -> new YamlPart(from, document, root));
        } catch (MarkedYamlEngineException broken) {
            Mark mark = broken.getProblemMark().or(broken::getContextMark).orElse(null);
            throw new YamlFormatException(
                    from,
                    mark == null ? 1 : mark.getLine() + 1,
                    mark == null ? 1 : mark.getColumn() + 1,
                    "this is no YAML: " + broken.getProblem(),
                    "See " + document + " for an example");
        } catch (YamlEngineException | StackOverflowError broken) {
            throw new YamlFormatException(
                    from,
                    1,
                    1,
                    "this cannot be read as YAML (" + broken.getMessage() + ")",
                    "See " + document + " for an example");
        }
    }

    /** Whether it has names with values. */
    public boolean isMapping() {
        return node instanceof MappingNode;
    }

    /**
     * Its names with their values, in their order.
     *
     * @param what it is, for messages
     * @param known the names that there can be
     * @throws YamlFormatException where it is none, or has others, or one twice
     */
    public Map<String, YamlPart> mapping(String what, List<String> known) throws YamlFormatException {
        if (!(node instanceof MappingNode mapping))
            throw bad(what + " is no mapping", "Write names with values: " + known);
        Map<String, YamlPart> parts = new LinkedHashMap<>();
        for (NodeTuple tuple : mapping.getValue()) {
            YamlPart key = part(tuple.getKeyNode());
            String name = key.text("a name");
            if (!known.contains(name))
                throw key.bad("'" + name + "' is not known here", "Known are " + String.join(", ", known));
            if (parts.put(name, part(tuple.getValueNode())) != null)
                throw key.bad("'" + name + "' stands here twice", "Keep one; several texts are a list");
        }
        return parts;
    }

    /** @throws YamlFormatException where it is no list */
    public List<YamlPart> list(String what) throws YamlFormatException {
        if (node instanceof SequenceNode) return parts();
        throw bad("'" + what + "' is no list", "Begin each of its parts with a hyphen");
    }

    /** What is in the list, or itself alone. */
    public List<YamlPart> parts() {
        return node instanceof SequenceNode list
                ? list.getValue().stream().map(this::part).toList()
                : List.of(this);
    }

    /** @throws YamlFormatException where it is no text, number or word */
    public String text(String what) throws YamlFormatException {
        if (node instanceof ScalarNode scalar) return scalar.getValue();
        throw bad(what + " is no text", "Write one text there");
    }

    /** Counted from 1. */
    public int line() {
        return node.getStartMark().map(mark -> mark.getLine() + 1).orElse(1);
    }

    /** To be thrown: what is wrong here, and what to do, each a sentence without its full stop. */
    public YamlFormatException bad(String what, String remedy) {
        int column = node.getStartMark().map(mark -> mark.getColumn() + 1).orElse(1);
        return new YamlFormatException(file, line(), column, what, remedy);
    }

    private YamlPart part(Node inside) {
        return new YamlPart(file, document, inside);
    }
}
