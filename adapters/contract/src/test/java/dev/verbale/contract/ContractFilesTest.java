package dev.verbale.contract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.http.Garden;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;

/** Contracts of several files, and what documents hold beside schemas. */
class ContractFilesTest {

    private static final String JSON = "application/json";

    @RegisterExtension
    static final Garden GARDEN = Garden.open();

    @TempDir
    Path folder;

    @Test
    void what_a_document_refers_to_in_its_folder_counts_as_if_it_stood_there() throws Exception {
        write("parts/plot.yaml", """
                Plot:
                  type: object
                  required: [number, keeper]
                  properties:
                    number: {type: integer}
                    keeper: {$ref: 'people/keeper.yaml#/Keeper'}
                    next: {$ref: '#/Plot'}
                """);
        write("parts/people/keeper.yaml", """
                Keeper: {type: string, nullable: true, minLength: 2}
                """);
        OpenApiContract contract = OpenApiContract.of(write("orto.yaml", """
                openapi: 3.0.3
                paths:
                  /plots/7:
                    get:
                      responses:
                        '200': {content: {application/json: {schema: {$ref: 'parts/plot.yaml#/Plot'}}}}
                """));

        assertThatCode(() -> contract.holds("GET", "/plots/7", 200, JSON, "{\"number\":7,\"keeper\":\"Ada\"}"))
                .doesNotThrowAnyException();
        assertThatCode(() -> contract.holds("GET", "/plots/7", 200, JSON, "{\"number\":7,\"keeper\":null}"))
                .as("as 3.0 says it")
                .doesNotThrowAnyException();
        assertThatThrownBy(() -> contract.holds("GET", "/plots/7", 200, JSON, "{\"number\":7,\"keeper\":\"A\"}"))
                .isInstanceOf(ContractViolated.class);
        assertThatThrownBy(() -> contract.holds(
                        "GET", "/plots/7", 200, JSON, "{\"number\":7,\"keeper\":\"Ada\",\"next\":{\"number\":8}}"))
                .isInstanceOf(ContractViolated.class);
    }

    @Test
    void a_schema_reads_files_in_its_folder_and_no_others() throws Exception {
        write("keeper.json", "{\"type\":\"string\"}");
        JsonSchemaContract schema = JsonSchemaContract.of(
                write(
                        "plot.json",
                        "{\"$id\":\"https://orto.example/plot\",\"properties\":{\"keeper\":{\"$ref\":\"keeper.json\"},\"next\":{\"$ref\":\"#\"}}}"));

        assertThatCode(() -> schema.holds("plot", "{\"keeper\":\"Ada\"}")).doesNotThrowAnyException();
        assertThatThrownBy(() -> schema.holds("plot", "{\"next\":{\"keeper\":7}}"))
                .isInstanceOf(ContractViolated.class);

        Path outside = write("inner/plot.json", "{\"$ref\":\"../keeper.json\"}");
        assertThatThrownBy(() -> JsonSchemaContract.of(outside))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("lies outside of its folder");
    }

    @Test
    void headers_are_checked_as_the_document_says() throws Exception {
        OpenApiContract contract = OpenApiContract.of(write("orto.yaml", """
                openapi: 3.1.0
                paths:
                  /plots:
                    get:
                      responses:
                        '200':
                          headers:
                            X-Count: {required: true, schema: {type: integer, minimum: 1}}
                            X-Crops: {schema: {type: array, items: {enum: [kale, beans]}}}
                            X-Open: {schema: {type: boolean}}
                            Content-Type: {schema: {const: never}}
                """));

        assertThatCode(() -> holds(contract, Map.of("x-count", List.of("7"), "X-Crops", List.of("kale, beans"))))
                .doesNotThrowAnyException();
        assertThatThrownBy(() -> holds(contract, Map.of())).hasMessageContaining("X-Count");
        assertThatThrownBy(() -> holds(contract, Map.of("X-Count", List.of("0"))))
                .isInstanceOf(ContractViolated.class);
        assertThatThrownBy(() -> holds(contract, Map.of("X-Count", List.of("many"))))
                .isInstanceOf(ContractViolated.class);
        assertThatThrownBy(() -> holds(contract, Map.of("X-Count", List.of("1"), "X-Crops", List.of("kale", "weeds"))))
                .isInstanceOf(ContractViolated.class);
        assertThatThrownBy(() -> holds(contract, Map.of("X-Count", List.of("1"), "X-Open", List.of("perhaps"))))
                .isInstanceOf(ContractViolated.class);
    }

    private static void holds(OpenApiContract contract, Map<String, List<String>> headers) {
        contract.holds("GET", "/plots", 200, headers, "");
    }

    @Test
    void null_is_among_the_kinds_of_one_that_may_be_null() throws Exception {
        OpenApiContract contract = OpenApiContract.of(write("orto.yaml", """
                openapi: 3.0.3
                components: {schemas: {Plot: {type: object, required: [number]}}}
                paths:
                  /plots/7:
                    get:
                      responses:
                        '200':
                          content:
                            application/json:
                              schema: {nullable: true, allOf: [{$ref: '#/components/schemas/Plot'}]}
                """));

        assertThatCode(() -> contract.holds("GET", "/plots/7", 200, JSON, "null"))
                .doesNotThrowAnyException();
        assertThatCode(() -> contract.holds("GET", "/plots/7", 200, JSON, "{\"number\":1}"))
                .doesNotThrowAnyException();
        assertThatThrownBy(() -> contract.holds("GET", "/plots/7", 200, JSON, "{}"))
                .isInstanceOf(ContractViolated.class);
    }

    @Test
    void anchors_that_unfold_to_millions_are_an_error_and_no_wait() throws Exception {
        var yaml = new StringBuilder("a0: &a0 [1,1,1,1,1,1,1,1,1]\n");
        for (int i = 1; i <= 7; i++)
            yaml.append("a%d: &a%d [%s]\n"
                    .formatted(
                            i,
                            i,
                            String.join(
                                    ",",
                                    List.of(("*a" + (i - 1) + " ")
                                            .repeat(9)
                                            .trim()
                                            .split(" ")))));
        Path file = write("bomb.yaml", yaml.toString());

        assertThatThrownBy(() -> OpenApiContract.of(file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("its anchors unfold to more than");
    }

    @Test
    void a_schema_that_goes_round_is_an_error_and_no_overflow() throws Exception {
        Path round = write(
                "round.json",
                "{\"$defs\":{\"a\":{\"allOf\":[{\"$ref\":\"#/$defs/b\"}]},"
                        + "\"b\":{\"$ref\":\"#/$defs/a\"}},\"$ref\":\"#/$defs/a\"}");
        Path tree = write("tree.json", "{\"properties\":{\"left\":{\"$ref\":\"#\"},\"right\":{\"$ref\":\"#\"}}}");

        assertThatThrownBy(() -> JsonSchemaContract.of(round)).hasMessageContaining("comes back to itself");
        assertThat(JsonSchemaContract.of(tree)).isNotNull();
    }

    @Test
    void a_document_whose_schemas_go_round_is_an_error_that_says_where() throws Exception {
        Path file = write("orto.yaml", """
                openapi: 3.0.3
                components:
                  schemas:
                    Whole: {allOf: [{$ref: '#/components/schemas/Part'}]}
                    Part: {oneOf: [{$ref: '#/components/schemas/Whole'}]}
                paths:
                  /plots:
                    get:
                      responses:
                        '200': {content: {application/json: {schema: {$ref: '#/components/schemas/Whole'}}}}
                """);

        assertThatThrownBy(() -> OpenApiContract.of(file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("comes back to itself");
    }

    private Path write(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        return Files.writeString(file, text);
    }
}
