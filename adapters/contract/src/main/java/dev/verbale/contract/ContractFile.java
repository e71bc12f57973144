package dev.verbale.contract;

import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.util.Locale;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.dataformat.yaml.YAMLMapper;

/** Reads contracts. */
final class ContractFile {

    private ContractFile() {}

    static JsonNode read(URL file) throws IOException {
        String name = file.getPath().toLowerCase(Locale.ROOT);
        ObjectMapper mapper = name.endsWith(".yaml") || name.endsWith(".yml") ? new YAMLMapper() : new JsonMapper();
        try (InputStream in = file.openStream()) {
            return mapper.readTree(in);
        } catch (JacksonException broken) {
            throw new IOException(file + " cannot be read: " + broken.getOriginalMessage(), broken);
        }
    }
}
