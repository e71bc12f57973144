package dev.verbale.contract;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.http.Garden;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Answers on the border between what a contract allows and what it does not. */
class VerdictTest {

    private static final String JSON = "application/json";

    @RegisterExtension
    static final Garden GARDEN = Garden.open();

    private static void judge(String file, String verdict, String asked, int status, String type, String body)
            throws IOException {
        OpenApiContract contract =
                OpenApiContract.of(Path.of("src/test/contracts").resolve(file));
        String[] words = asked.split(" ");
        var holds = assertThatCode(() -> contract.holds(words[0], words[1], status, type, body == null ? "" : body));
        if (verdict.equals("holds")) holds.doesNotThrowAnyException();
        else holds.isInstanceOf(ContractViolated.class);
    }

    @ParameterizedTest
    @CsvSource(quoteCharacter = '`', delimiter = '|', textBlock = """
            holds    | {"number":7}
            holds    | {"number":2147483647}
            holds    | {"number":-2147483648}
            violated | {"number":2147483648}
            violated | {"number":-2147483649}
            violated | {"number":7.5}
            holds    | {"number":7.0}
            violated | {"number":"7"}
            violated | {"number":null}
            violated | {}
            violated | []
            violated | null
            violated | {"number":7,"more":1}
            holds    | {"number":7,"code":9223372036854775807}
            violated | {"number":7,"code":9223372036854775808}
            holds    | {"number":7,"crop":null}
            holds    | {"number":7,"crop":"Kale"}
            violated | {"number":7,"crop":7}
            holds    | {"number":7,"state":"free"}
            violated | {"number":7,"state":null}
            violated | {"number":7,"state":"sold"}
            holds    | {"number":7,"mood":null}
            violated | {"number":7,"share":0}
            holds    | {"number":7,"share":0.01}
            holds    | {"number":7,"share":1}
            violated | {"number":7,"share":1.01}
            holds    | {"number":7,"id":"3fa85f64-5717-4562-b3fc-2c963f66afa6"}
            violated | {"number":7,"id":"seven"}
            violated | {"number":7,"beds":[{"metres":1},{"metres":-1}]}
            violated | {"number":7
            """)
    void types_and_numbers_of_3_0(String verdict, String body) throws IOException {
        judge("difficult-30.yaml", verdict, "GET /garden/v1/plots/7", 200, JSON, body);
    }

    @ParameterizedTest
    @CsvSource(quoteCharacter = '`', delimiter = '|', textBlock = """
            holds    | {"number":7}
            violated | {"number":0}
            holds    | {"number":7,"crop":null}
            violated | {"number":7,"crop":7}
            holds    | {"number":7,"state":null}
            violated | {"number":7,"state":"taken"}
            violated | {"number":7,"pin":"1234"}
            holds    | {"number":7,"pair":["a",1]}
            violated | {"number":7,"pair":["a",1,2]}
            violated | {"number":7,"pair":[1,"a"]}
            """)
    void types_and_numbers_of_3_1(String verdict, String body) throws IOException {
        judge("difficult-31.yaml", verdict, "GET /plots/7", 200, JSON, body);
    }

    @ParameterizedTest
    @CsvSource(quoteCharacter = '`', delimiter = '|', textBlock = """
            holds    | GET /nursery/plants       | {"kind":"herb","scent":"mint"}
            violated | GET /nursery/plants       | {"kind":"tree","scent":"mint"}
            holds    | GET /nursery/plants       | {"kind":"tree","metres":3}
            holds    | GET /nursery/plants       | {"kind":"herb","scent":"mint","metres":3}
            violated | GET /nursery/plants       | {"kind":"moss","scent":"mint"}
            violated | GET /nursery/plants       | {"scent":"mint"}
            holds    | GET /animals              | [{"species":"bee","hive":7},{"species":"Hen","eggs":2}]
            violated | GET /animals              | [{"species":"bee","eggs":2}]
            violated | GET /animals              | [{"species":"Hen","hive":7}]
            violated | GET /animals              | [{"species":"fox"}]
            violated | GET /animals              | [{"hive":7}]
            holds    | GET /garden/v1/neighbours | {"name":"Ada","since":"2026-01-31"}
            violated | GET /garden/v1/neighbours | {"name":"Ada","password":"x"}
            violated | GET /garden/v1/neighbours | {"since":"2026-01-31"}
            violated | GET /garden/v1/neighbours | {"name":"Ada","since":"yesterday"}
            """)
    void kinds_that_are_told_apart_and_what_nobody_may_send(String verdict, String asked, String body)
            throws IOException {
        judge("difficult-30.yaml", verdict, asked, 200, JSON, body);
    }

    @ParameterizedTest
    @CsvSource(quoteCharacter = '`', delimiter = '|', textBlock = """
            holds    | GET https://orto.example/garden/v1/plots/7        | 200 | application/json; charset=utf-8 | {"number":7}
            holds    | GET https://any.example:8443/orchard/v1/plots/7   | 200 | application/json      | {"number":7}
            violated | GET https://orto.example/meadow/v1/plots/7        | 200 | application/json      | {"number":7}
            violated | GET https://orto.example/plots/7                  | 200 | application/json      | {"number":7}
            violated | GET /plots/7                                      | 200 | application/json      | {"number":7}
            violated | GET /garden/v1/plots/7/beds                       | 200 | application/json      | {"number":7}
            holds    | GET /garden/v1/plots/7?full=yes#beds              | 200 | application/json      | {"number":7}
            holds    | GET /garden/v1/plots/a%20b                        | 200 | application/json      | {"number":7}
            holds    | GET /garden/v1/plots/a%2Fb                        | 200 | application/json      | {"number":7}
            violated | GET /garden/v1/plants                             | 200 | application/json      | {"kind":"herb","scent":"mint"}
            violated | GET /garden/v1/animals                            | 200 | application/json      | []
            holds    | GET http://other.example:8080/animals             | 200 | application/json      | []
            holds    | HEAD /garden/v1/neighbours                        | 200 | application/json      |
            holds    | HEAD /garden/v1/neighbours                        | 200 | ``                    |
            violated | HEAD /garden/v1/neighbours                        | 200 | text/html             |
            holds    | HEAD /garden/v1/plots/7                           | 200 | application/json      |
            violated | HEAD /garden/v1/plots/7                           | 500 | application/json      |
            violated | HEAD /garden/v1/nothing                           | 200 | application/json      |
            holds    | GET /garden/v1/plots/7                            | 204 | ``                    |
            violated | GET /garden/v1/plots/7                            | 204 | application/json      | {"number":7}
            holds    | GET /garden/v1/plots/7                            | 404 | application/json      | {"number":7}
            violated | GET /garden/v1/plots/7                            | 404 | application/json      | {"number":"seven"}
            violated | GET /garden/v1/plots/7                            | 200 | application/json      |
            violated | GET /garden/v1/plots/7                            | 200 | text/plain            | {"number":7}
            holds    | GET /garden/v1/plots/free                         | 200 | text/plain            | 3
            violated | GET /garden/v1/plots/free                         | 200 | text/plain            | -3
            violated | GET /garden/v1/plots/free                         | 200 | text/plain            | three
            holds    | GET /garden/v1/map                                | 200 | image/png             | x
            holds    | GET /garden/v1/map                                | 406 | application/xml       | <a/>
            holds    | GET /garden/v1/map                                | 503 | application/problem+json | {"reason":"rain"}
            violated | GET /garden/v1/map                                | 503 | application/problem+json | {}
            violated | POST /garden/v1/map                               | 200 | image/png             | x
            """)
    void paths_methods_statuses_and_media_types(String verdict, String asked, int status, String type, String body)
            throws IOException {
        judge("difficult-30.yaml", verdict, asked, status, type, body);
    }

    @Test
    void a_server_may_have_the_paths_elsewhere() throws IOException {
        OpenApiContract here = OpenApiContract.of(Path.of("src/test/contracts/difficult-30.yaml"))
                .servedAt("/");

        assertThatCode(() -> here.holds("GET", "http://127.0.0.1:8080/plots/7", 200, JSON, "{\"number\":7}"))
                .doesNotThrowAnyException();
        assertThatThrownBy(() -> here.holds("GET", "/garden/v1/plots/7", 200, JSON, "{\"number\":7}"))
                .isInstanceOf(ContractViolated.class);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            {$ref: '#/components/schemas/Nowhere'}    | which is not there
            {$ref: 'https://orto.example/plot.yaml'}  | put all of it into one document
            {$ref: 'other.yaml#/Plot'}                | other.yaml
            {$ref: '../other.yaml#/Plot'}             | lies outside of its folder
            {$ref: '/etc/plot.yaml'}                  | lies outside of its folder
            {type: string, pattern: '['}              | is no regular expression
            {type: strng}                             | is no schema
            {type: object, required: number}          | is no schema
            {type: array, items: {minimum: 'seven'}}  | is no schema
            """)
    void a_document_that_cannot_be_checked_is_an_error(String schema, String message, @TempDir Path folder)
            throws IOException {
        Path file = Files.writeString(folder.resolve("orto.yaml"), """
                openapi: 3.0.3
                paths: {/plots: {get: {responses: {'200': {description: d, content: {application/json: {schema: %s}}}}}}}
                """.formatted(schema));

        assertThatThrownBy(() -> OpenApiContract.of(file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("orto.yaml cannot be checked against: /paths/~1plots/get/responses/200")
                .hasMessageContaining(message);
    }

    /** Names of the document's own that are words of the language elsewhere. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            default  | {type: strng}
            '200'    | {properties: {default: {$ref: '#/components/schemas/Nowhere'}}}
            '200'    | {properties: {x-bed: {$ref: '#/components/schemas/Nowhere'}}}
            '200'    | {properties: {enum: {items: {$ref: '#/components/schemas/Nowhere'}}}}
            """)
    void nothing_is_overlooked_for_its_name(String status, String schema, @TempDir Path folder) throws IOException {
        Path file = Files.writeString(folder.resolve("orto.yaml"), """
                openapi: 3.1.0
                paths: {/plots: {get: {responses: {%s: {description: d, content: {application/json: {schema: %s}}}}}}}
                """.formatted(status, schema));

        assertThatThrownBy(() -> OpenApiContract.of(file)).hasMessageContaining("orto.yaml cannot be checked against");
    }

    @Test
    void a_path_that_stands_elsewhere_in_the_document_is_judged_like_any(@TempDir Path folder) throws IOException {
        OpenApiContract contract = OpenApiContract.of(Files.writeString(folder.resolve("orto.yaml"), """
                openapi: 3.1.0
                paths: {/gate: {$ref: '#/components/pathItems/Gate'}}
                components:
                  pathItems:
                    Gate: {get: {responses: {'200': {description: d, content: {application/json: {schema:
                      {type: object, required: [pin], properties: {pin: {type: string, writeOnly: true}}}}}}}}}
                """));

        assertThatCode(() -> contract.holds("GET", "/gate", 200, JSON, "{}")).doesNotThrowAnyException();
        assertThatThrownBy(() -> contract.holds("GET", "/gate", 200, JSON, "{\"pin\":\"1\"}"))
                .isInstanceOf(ContractViolated.class);
    }

    @Test
    void an_anchor_inside_itself_and_an_unknown_version_are_errors(@TempDir Path folder) throws IOException {
        Path loop = Files.writeString(folder.resolve("loop.yaml"), "openapi: 3.0.3\npaths: &a {x: *a}\n");
        assertThatThrownBy(() -> OpenApiContract.of(loop)).hasMessageContaining("loop.yaml cannot be read");
        Path old = Files.writeString(folder.resolve("old.yaml"), "openapi: 2.0\npaths: {}\n");
        assertThatThrownBy(() -> OpenApiContract.of(old)).hasMessageContaining("no OpenAPI document of 3.0 or 3.1");
    }
}
