package dev.verbale.contract;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.net.URL;
import java.nio.file.Path;
import tools.jackson.databind.JsonNode;

/**
 * A JSON Schema that answers are checked against. Each violation is a check of the test, with its path:
 *
 * <pre>{@code
 * JsonSchemaContract.of(Path.of("src/test/contracts/plot.schema.json")).holds("plot 7", response.body());
 * }</pre>
 *
 * <p>Draft 2020-12 where the schema names no other. From any thread.
 *
 * @since 0.2.0
 */
public final class JsonSchemaContract {

    private final Schema schema;

    private JsonSchemaContract(Schema schema) {
        this.schema = schema;
    }

    /**
     * The schema in {@code file}, JSON or YAML by its name. References to files in its folder are followed.
     *
     * @throws IOException where it cannot be read, or is no schema; the message says which file
     */
    public static JsonSchemaContract of(Path file) throws IOException {
        return of(ContractFile.address(file));
    }

    /** The schema in a file of the class path, as {@link Class#getResource} finds it. */
    public static JsonSchemaContract of(URL file) throws IOException {
        JsonNode document = ContractFiles.read(file);
        var location = SchemaLocation.of(file.toString());
        try {
            SchemaPatterns.check(document, "");
            SchemaCycles.refuse(document);
            Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                    .getSchema(location, document);
            schema.initializeValidators(); // or what it refers to in vain would be found by a response
            return new JsonSchemaContract(schema);
        } catch (IOException unfit) {
            throw new IOException(
                    file + " is no JSON Schema that can be checked against: " + unfit.getMessage(), unfit);
        } catch (RuntimeException | StackOverflowError broken) {
            throw new IOException(file + " is no JSON Schema: " + broken.getMessage(), broken);
        }
    }

    /**
     * Checks {@code json}.
     *
     * @param subject what it is, for the reader
     * @throws ContractViolated where it does not hold and nobody gathers failed checks
     */
    public void holds(String subject, String json) {
        Verdict.of(subject, Violations.in(json, text -> schema.validate(text, InputFormat.JSON)));
    }
}
