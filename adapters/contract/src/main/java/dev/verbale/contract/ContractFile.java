package dev.verbale.contract;

import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads contracts. */
final class ContractFile {

    private static final JsonMapper JSON = new JsonMapper();
    private static final int MAX_ALIASES = 10_000;
    private static final int MAX_PARTS = 1_000_000;

    /** Whatever stands at an anchor counts once for each place that names it. */
    private int parts;

    private static final String MERGE = "<<";

    private ContractFile() {}

    static URL address(Path file) throws IOException {
        if (file == null) throw new IOException("There is no contract to read: the path is null");
        return file.toUri().toURL();
    }

    static JsonNode read(URL file) throws IOException {
        if (file == null) throw new IOException("There is no contract to read: its address is null. Is it a resource?");
        String name = file.getPath().toLowerCase(Locale.ROOT);
        boolean isYaml = name.endsWith(".yaml") || name.endsWith(".yml");
        try (InputStream in = file.openStream()) {
            return isYaml ? yaml(in) : JSON.readTree(in);
        } catch (JacksonException broken) {
            throw new IOException(file + " cannot be read: " + broken.getOriginalMessage(), broken);
        } catch (YamlEngineException broken) {
            throw new IOException(file + " cannot be read: " + broken.getMessage(), broken);
        }
    }

    /** With its anchors in their places, which a tree that is read token by token would leave open. */
    private static JsonNode yaml(InputStream in) {
        var settings =
                LoadSettings.builder().setMaxAliasesForCollections(MAX_ALIASES).build();
        Object loaded = new Load(settings).loadFromInputStream(in);
        return JSON.valueToTree(new ContractFile().plain(loaded, new IdentityHashMap<>()));
    }

    /** With texts as names, and what {@code <<} merges in its place. */
    private @Nullable Object plain(@Nullable Object value, Map<Object, Boolean> around) {
        if (++parts > MAX_PARTS)
            throw new YamlEngineException("its anchors unfold to more than " + MAX_PARTS + " parts");
        if (!(value instanceof Map<?, ?>) && !(value instanceof List<?>)) return value;
        if (around.put(value, true) != null) throw new YamlEngineException("an anchor stands inside itself");
        try {
            if (value instanceof List<?> list) {
                List<@Nullable Object> items = new ArrayList<>();
                for (Object one : list) items.add(plain(one, around));
                return items;
            }
            Map<String, @Nullable Object> named = new LinkedHashMap<>();
            for (Map.Entry<?, ?> one : ((Map<?, ?>) value).entrySet()) {
                String name = String.valueOf(one.getKey());
                Object inner = plain(one.getValue(), around);
                if (name.equals(MERGE)) merge(inner, named);
                else named.put(name, inner);
            }
            return named;
        } finally {
            around.remove(value);
        }
    }

    /** What a mapping says itself wins over what is merged, wherever it stands. */
    private static void merge(@Nullable Object merged, Map<String, @Nullable Object> named) {
        if (merged instanceof List<?> many) many.forEach(one -> merge(one, named));
        if (merged instanceof Map<?, ?> one)
            one.forEach((name, value) -> named.putIfAbsent(String.valueOf(name), value));
    }
}
